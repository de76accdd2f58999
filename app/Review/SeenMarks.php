<?php

declare(strict_types=1);

namespace App\Review;

use App\Models\User;
use App\Support\Month;
use App\Support\PgArray;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;

/**
 * Which exceptions a person has seen: the reasons that stood there then.
 */
final readonly class SeenMarks
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<int>  $kpiUnits
     * @return array<int, string> codes of the reasons, by KPI-unit
     */
    public function by(User $user, Period $month, array $kpiUnits): array
    {
        return $this->database->table('seen_marks')->where('user_id', $user->id)->where('period', Month::date($month))
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($kpiUnits)])->pluck('reasons', 'kpi_unit_id')->all();
    }
}
