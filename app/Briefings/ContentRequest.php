<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;
use App\Http\MonthRule;
use App\Models\Briefing;
use App\Models\Unit;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

/** What stands on a briefing, as it is sent to be kept or looked at. */
#[OA\Schema(schema: 'BriefingContent', required: ['bands', 'version', 'name'], properties: [
    new OA\Property(property: 'name', type: 'string', maxLength: 120),
    new OA\Property(property: 'version', type: 'integer'),
    new OA\Property(property: 'bands', type: 'array', items: new OA\Items(type: 'array', items: new OA\Items(ref: '#/components/schemas/Piece'))),
])]
final class ContentRequest extends FormRequest
{
    private const LEAST_WIDTH = 2;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        $briefing = $this->route('briefing');

        return [
            'period' => ['sometimes', 'bail', 'string', new MonthRule],
            'span' => ['sometimes', 'bail', 'string', Rule::enum(Span::class)],
            'unit' => ['sometimes', 'bail', 'string', 'max:64'],
            'name' => ['sometimes', 'bail', 'required', 'string', 'max:120'],
            'version' => ['sometimes', 'bail', 'required', 'integer', 'between:0,2147483647'],
            'bands' => ['bail', 'present', 'array', 'list', 'max:'.Content::MOST_BANDS],
            'bands.*' => ['bail', 'array', 'list', 'min:1', 'max:'.Content::MOST_IN_A_BAND],
            'bands.*.*' => ['bail', 'array'],
            'bands.*.*.id' => ['bail', 'required', 'string', 'regex:/\A[a-z0-9]{1,16}\z/', 'distinct'],
            'bands.*.*.kind' => ['bail', 'required', 'string', Rule::enum(PieceKind::class)],
            'bands.*.*.width' => ['bail', 'required', 'integer', 'between:'.self::LEAST_WIDTH.','.Content::TWELFTHS],
            'bands.*.*.title' => ['bail', 'nullable', 'string', 'max:120'],
            'bands.*.*.line' => ['bail', 'nullable', 'string', 'max:300'],
            'bands.*.*.kpis' => ['bail', 'present', 'array', 'list', 'max:24'],
            'bands.*.*.kpis.*' => ['bail', 'required', 'string', 'max:64'],
            'bands.*.*.unit' => ['bail', 'nullable', 'string', 'max:64'],
            'bands.*.*.span' => ['bail', 'nullable', 'string', Rule::enum(Span::class)],
            'bands.*.*.of' => ['bail', 'nullable', 'string', 'max:80'],
            'bands.*.*.choices' => ['bail', 'present', 'array'],
            'bands.*.*.choices.*' => ['bail', 'required', 'string', 'max:20'],
            'bands.*.*.parts' => ['bail', 'nullable', 'array', 'list', 'max:12'],
            'bands.*.*.parts.*' => ['bail', 'required', 'string', 'max:20'],
            'bands.*.*.text' => ['bail', 'nullable', 'string', 'max:6000'],
            'bands.*.*.picture' => ['bail', 'nullable', 'integer', Rule::exists('briefing_pictures', 'id')->where('briefing_id', $briefing instanceof Briefing ? $briefing->id : 0)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'name.*' => 'What is the page called?',
            'bands.max' => 'Up to '.Content::MOST_BANDS.' bands. A page as long as this is a report.',
            'bands.*.max' => 'Up to four pieces beside each other.',
            'bands.*.min' => 'A band without pieces is none.',
            'bands.*.*.title.*' => 'A title has up to 120 characters.',
            'bands.*.*.line.*' => 'The line of explanation has up to 300 characters.',
            'bands.*.*.text.*' => 'A text has up to 6,000 characters.',
            'bands.*.*.kpis.max' => 'Up to 24 KPIs in one piece.',
            'bands.*.*.width.*' => 'A piece is 2 to 12 twelfths wide.',
            'bands.*.*.picture.*' => 'This picture is not there any more. Choose it again.',
            'bands.*' => 'This is no page of pieces.',
        ];
    }

    /** @return list<\Closure(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            $content = $this->content();
            foreach ($content->bands as $band => $pieces) {
                if (array_sum(array_map(fn (Piece $piece): int => $piece->width, $pieces)) > Content::TWELFTHS) {
                    $validator->errors()->add("bands.{$band}", 'The pieces of a band are wider than the page.');
                }
                foreach ($pieces as $place => $piece) {
                    foreach ($this->wrong($piece) as $field => $problem) {
                        $validator->errors()->add("bands.{$band}.{$place}.{$field}", $problem);
                    }
                }
            }
        }];
    }

    /** @return array<string, string> by field */
    private function wrong(Piece $piece): array
    {
        $wrong = [];
        if (count($piece->kpis) > $piece->kind->mostKpis()) {
            $wrong['kpis'] = $piece->kind->mostKpis() === 0 ? 'This piece is about no KPI.' : "Up to {$piece->kind->mostKpis()} KPIs.";
        }
        foreach ($piece->choices as $name => $choice) {
            if (! in_array($choice, $piece->kind->choices()[$name] ?? [], true)) {
                $wrong["choices.{$name}"] = 'This cannot be chosen here.';
            }
        }
        if (array_diff($piece->parts ?? [], array_merge(...$piece->kind->parts())) !== []) {
            $wrong['parts'] = 'This piece has no such part.';
        }

        return $wrong;
    }

    public function content(): Content
    {
        /** @var list<non-empty-list<array{id: string, kind: string, width: int|string, title?: string|null, line?: string|null, kpis: list<string>, unit?: string|null, span?: string|null, of?: string|null, choices: array<string, string>, parts?: list<string>|null, text?: string|null, picture?: int|string|null}>> $bands as they passed */
        $bands = $this->input('bands', []);

        return new Content(array_map(fn (array $band): array => array_map(fn (array $piece): Piece => new Piece(
            $piece['id'], PieceKind::from($piece['kind']), (int) $piece['width'], trim($piece['title'] ?? ''), trim($piece['line'] ?? ''), $piece['kpis'], $piece['unit'] ?? '', $piece['span'] ?? '', $piece['of'] ?? '',
            $piece['choices'], $piece['parts'] ?? null, $piece['text'] ?? '', isset($piece['picture']) ? (int) $piece['picture'] : null,
        ), $band), $bands));
    }

    public function version(): int
    {
        return $this->integer('version');
    }

    public function name(): string
    {
        return $this->string('name')->squish()->toString();
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function span(string $own): Span
    {
        return Span::from($this->string('span', $own)->toString());
    }

    public function unit(): ?Unit
    {
        return $this->filled('unit') ? Unit::query()->where('code', $this->string('unit')->toString())->first() : null;
    }
}
