<?php

declare(strict_types=1);

namespace App\Review;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'SeenInput',
    required: ['period', 'reasons'],
    properties: [
        new OA\Property(property: 'period', description: 'a month, 2026-08', type: 'string'),
        new OA\Property(property: 'reasons', description: 'the reasons that were seen; none takes the mark back', type: 'array', items: new OA\Items(type: 'string')),
    ],
)]
final class SeenRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['required', 'string', new MonthRule],
            'reasons' => ['present', 'array', 'max:9'],
            'reasons.*' => ['string', 'max:20', 'regex:/\A[a-z-]+\z/'],
        ];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    /** @return list<string> */
    public function reasons(): array
    {
        /** @var list<string> $reasons */
        $reasons = $this->validated('reasons');

        return $reasons;
    }
}
