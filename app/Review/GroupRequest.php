<?php

declare(strict_types=1);

namespace App\Review;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** How the rows of a scorecard are grouped. */
final class GroupRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['group' => ['sometimes', 'nullable', 'string', Rule::in(ScorecardReader::GROUPINGS)]];
    }

    public function group(): string
    {
        return $this->string('group')->toString();
    }
}
