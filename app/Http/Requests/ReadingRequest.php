<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Models\User;
use App\Support\Month;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'ReadingInput',
    required: ['typed', 'version'],
    properties: [
        new OA\Property(property: 'typed', description: 'the figure as typed; blank takes the reading back', type: 'string'),
        new OA\Property(property: 'version', description: 'the version that was seen; 0 when there was none', type: 'integer'),
    ],
)]
final class ReadingRequest extends FormRequest
{
    private ?BigDecimal $figure = null;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'typed' => ['present', 'nullable', 'string', 'max:60'],
            'version' => ['required', 'integer', 'min:0'],
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($this->period()->compareTo(Month::running()) > 0) {
                $validator->errors()->add('typed', Month::words($this->period()).' has not begun yet.');
            }
            /** @var User $user */
            $user = $this->user();
            try {
                $this->figure = (new NumberSetting($user->locale))->read($this->string('typed')->toString());
            } catch (InvalidArgumentException $error) {
                $validator->errors()->add('typed', $error->getMessage());
            }
        }];
    }

    public function figure(): ?BigDecimal
    {
        return $this->figure;
    }

    public function period(): Period
    {
        /** @var string $period the route lets nothing else through */
        $period = $this->route('period');

        return Period::parse($period);
    }
}
