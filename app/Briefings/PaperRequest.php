<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Models\Briefing;
use App\Models\Unit;
use Illuminate\Foundation\Http\FormRequest;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/** A view of a briefing that is to be printed. */
final class PaperRequest extends FormRequest
{
    private ?BriefingRequest $view = null;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return (new BriefingRequest)->rules() + ['paper' => ['sometimes', 'bail', 'nullable', 'string', 'in:a4,a3']];
    }

    public function period(): Period
    {
        return $this->view()->period();
    }

    public function span(Briefing $briefing): Span
    {
        return $this->view()->span($briefing);
    }

    public function unit(Briefing $briefing): Unit
    {
        return $this->view()->unit($briefing);
    }

    public function issue(): ?int
    {
        return $this->view()->issue();
    }

    /** @return 'a4'|'a3' */
    public function paper(): string
    {
        return $this->string('paper')->toString() === 'a3' ? 'a3' : 'a4';
    }

    private function view(): BriefingRequest
    {
        return $this->view ??= BriefingRequest::createFrom($this, new BriefingRequest);
    }
}
