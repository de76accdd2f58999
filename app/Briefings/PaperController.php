<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\BriefingPage;
use App\Models\Briefing;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;

/** Briefings on paper. */
final class PaperController
{
    public function __construct(private readonly Organisation $organisation, private readonly Rights $rights) {}

    #[OA\Get(path: '/api/briefings/{briefing}/pdf', operationId: 'briefingPdf', parameters: [
        new OA\Parameter(ref: '#/components/parameters/briefing'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'span', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'unit', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'issue', in: 'query', required: false, schema: new OA\Schema(type: 'integer')),
        new OA\Parameter(name: 'paper', in: 'query', required: false, schema: new OA\Schema(type: 'string', enum: ['a4', 'a3'])),
    ], responses: [
        new OA\Response(response: 200, description: 'The page as PDF', content: new OA\MediaType(mediaType: 'application/pdf')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function show(Briefing $briefing, PaperRequest $request, BriefingReader $reader, Printer $printer, #[CurrentUser] User $user): Response
    {
        $page = $reader->page($briefing, $request->period(), $request->span($briefing), $request->unit($briefing), $request->issue(), false, $user);

        return $this->pdf("{$briefing->code}-{$page->period}", fn (): string => $printer->print(['pages' => [$page], 'title' => '', 'locale' => $user->locale, 'units' => $this->names($user)], $request->paper()));
    }

    #[OA\Get(path: '/api/briefing-pack', operationId: 'briefingPack', parameters: [
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'title', in: 'query', required: true, schema: new OA\Schema(type: 'string', maxLength: 120)),
        new OA\Parameter(name: 'unit', in: 'query', required: true, description: 'code of the unit of scorecard and exceptions', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'span', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'parts', in: 'query', required: true, description: 'in their order, with commas between them: codes of briefings, and @scorecard and @exceptions', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'paper', in: 'query', required: false, schema: new OA\Schema(type: 'string', enum: ['a4', 'a3'])),
    ], responses: [
        new OA\Response(response: 200, description: 'All of it as one PDF, with a first page and contents', content: new OA\MediaType(mediaType: 'application/pdf')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function pack(PackRequest $request, PackReader $reader, Printer $printer, #[CurrentUser] User $user): Response
    {
        $unit = Unit::query()->where('code', $request->string('unit')->toString())->firstOrFail();
        Gate::authorize('view', $unit);
        $pages = array_map(function (string $part) use ($request, $reader, $unit, $user): BriefingPage {
            if ($part === PackRequest::SCORECARD) {
                return $reader->scorecard($unit, $request->period(), $request->span(), $user);
            }
            if ($part === PackRequest::EXCEPTIONS) {
                return $reader->exceptions($unit, $request->period(), $request->span(), $user);
            }
            $briefing = Briefing::query()->where('code', $part)->firstOrFail();
            Gate::authorize('view', $briefing);

            return $reader->briefing($briefing, $request->period(), $user);
        }, $request->parts());
        $title = $request->string('title')->squish()->toString();

        return $this->pdf(Str::slug($title).'-'.$request->period()->key(), function () use ($pages, $title, $printer, $request, $user): string {
            // Where each part begins is known when those before it are laid out: each is printed by itself first.
            $starts = [];
            $next = 2;
            foreach ($pages as $page) {
                $starts[] = $next;
                $next += Printer::pages($printer->print(['pages' => [$page], 'title' => '', 'locale' => $user->locale, 'units' => $this->names($user)], $request->paper()));
            }

            return $printer->print(['pages' => $pages, 'title' => $title, 'starts' => $starts, 'by' => $user->name, 'locale' => $user->locale, 'units' => $this->names($user)], $request->paper());
        });
    }

    /** @return array<string, string> names of the units that the person may open, by code */
    private function names(User $user): array
    {
        $names = [];
        foreach ($this->rights->units($user) as $unit) {
            $names[$this->organisation->unit($unit)->code] = $this->organisation->unit($unit)->name;
        }

        return $names;
    }

    /** @param  callable(): string  $print */
    private function pdf(string $name, callable $print): Response
    {
        try {
            $pdf = $print();
        } catch (PrinterFailed $failure) {
            throw ValidationException::withMessages(['paper' => $failure->getMessage()]);
        }

        return new Response($pdf, 200, ['Content-Type' => 'application/pdf', 'Content-Disposition' => 'attachment; filename="'.preg_replace('/[^A-Za-z0-9._-]+/', '-', $name).'.pdf"', 'Cache-Control' => 'no-store, private']);
    }
}
