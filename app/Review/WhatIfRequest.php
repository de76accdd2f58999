<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Http\MonthRule;
use App\Models\Kpi;
use App\Models\User;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Status\Polarity;

/**
 * Limits and targets that somebody tries out. They stand in an address that is sent to others, so they say in which
 * number setting they are written.
 */
final class WhatIfRequest extends FormRequest
{
    public const LIMITS = ['green', 'amber', 'low', 'high', 'marginLow', 'marginHigh'];

    private const MOST_CHARACTERS = 60;

    private const MOST_PERCENT = 100;

    private ?WantedWhatIf $wanted = null;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['required', 'string', new MonthRule],
            'as' => ['nullable', Rule::in(NumberSetting::LOCALES)],
            'periods' => ['nullable', 'integer', 'between:1,60'],
            ...array_fill_keys([...self::LIMITS, 'moved', 'same'], ['nullable', 'string', 'max:'.self::MOST_CHARACTERS]),
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['periods.*' => 'From 1 to 60 previous periods can be compared with.'];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            $limits = [];
            foreach (self::LIMITS as $member) {
                $figure = $this->figure($validator, $member);
                $limits += $figure === null ? [] : [$member => (string) $figure];
            }
            $moved = $this->figure($validator, 'moved');
            if ($moved !== null && $moved->abs()->isGreaterThan(self::MOST_PERCENT)) {
                $validator->errors()->add('moved', 'A target can be moved by up to '.self::MOST_PERCENT.' % either way.');
            }
            $this->wanted = new WantedWhatIf(
                Period::parse($this->string('period')->toString()),
                $limits,
                $this->filled('periods') ? $this->integer('periods') : null,
                $moved,
                $this->same($validator),
            );
        }];
    }

    public function wanted(): WantedWhatIf
    {
        return $this->wanted ?? throw new \LogicException('A request that passed says what is wanted.');
    }

    private function figure(Validator $validator, string $field): ?BigDecimal
    {
        try {
            return $this->setting()->read($this->string($field)->toString());
        } catch (InvalidArgumentException $problem) {
            $validator->errors()->add($field, $problem->getMessage());

            return null;
        }
    }

    private function same(Validator $validator): ?CellValue
    {
        $kpi = $this->route('kpi');
        if (! $kpi instanceof Kpi || ! $this->filled('same')) {
            return null;
        }
        try {
            $shape = new Definition($kpi->measure, max(0, $kpi->decimals), Polarity::from($kpi->polarity), Accumulation::from($kpi->accumulation), []);

            return (new CellText($this->setting()))->read($shape, $this->string('same')->toString(), true);
        } catch (InvalidArgumentException $problem) {
            $validator->errors()->add('same', $problem->getMessage());

            return null;
        }
    }

    private function setting(): NumberSetting
    {
        /** @var User $user */
        $user = $this->user();

        return new NumberSetting($this->filled('as') ? $this->string('as')->toString() : $user->locale);
    }
}
