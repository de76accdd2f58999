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
     * @param  list<int>  $measurements
     * @return array<int, string> codes of the reasons, by measurement
     */
    public function by(User $user, Period $month, array $measurements): array
    {
        return $this->database->table('seen_marks')->where('user_id', $user->id)->where('period', Month::date($month))
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($measurements)])->pluck('reasons', 'kpi_unit_id')->all();
    }

    /** @param  list<string>  $reasons  codes; none takes the mark back */
    public function mark(User $user, Period $month, int $measurement, array $reasons): void
    {
        $key = ['user_id' => $user->id, 'kpi_unit_id' => $measurement, 'period' => Month::date($month)];
        if ($reasons === []) {
            $this->database->table('seen_marks')->where($key)->delete();

            return;
        }
        $this->database->table('seen_marks')->upsert([[...$key, 'reasons' => implode(' ', $reasons), 'at' => now()]], array_keys($key), ['reasons', 'at']);
    }
}
