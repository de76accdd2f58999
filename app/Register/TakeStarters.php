<?php

declare(strict_types=1);

namespace App\Register;

use App\Models\Kpi;
use App\Models\User;
use App\Support\Currencies;
use App\Support\Installation;
use App\Support\Month;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\FinancialYear;

/**
 * Takes measures of the list into the register as drafts: what they are worked out from comes with them, what is there
 * already stays as it is.
 */
final readonly class TakeStarters
{
    /** Years before the running one that their limits judge, for history that is loaded later. */
    private const YEARS_BACK = 3;

    public function __construct(private StarterList $list, private ImportDefinitions $import, private Installation $installation, private FinancialYear $year) {}

    /**
     * @param  list<string>  $codes
     * @return list<string> codes of those that were taken
     *
     * @throws ValidationException where one of them cannot be defined there
     */
    public function __invoke(array $codes, string $unit, User $user): array
    {
        $unknown = array_diff($codes, array_keys($this->list->all()));
        if ($unknown !== []) {
            throw ValidationException::withMessages(['codes' => 'There is no measure '.implode(', ', $unknown).' in the list.']);
        }
        $wanted = $this->list->withNeeds($codes);
        $taken = Kpi::query()->whereIn('code', array_keys($wanted))->pluck('code')->all();
        $new = array_diff_key($wanted, array_flip(array_filter($taken, is_string(...))));
        $from = $this->year->months(Month::running())[0]->plus(-12 * self::YEARS_BACK)->key();
        $this->import->define(array_values(array_map(fn (StarterKpi $starter): array => $starter->definition($unit, Currencies::symbol($this->installation->currency()), $from), $new)), $user, 'codes');

        return array_keys($new);
    }
}
