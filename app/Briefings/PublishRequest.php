<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Kybernet\Core\Calendar\Period;

final class PublishRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['period' => ['bail', 'required', 'string', new MonthRule], 'version' => ['bail', 'required', 'integer', 'between:0,2147483647']];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }
}
