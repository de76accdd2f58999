<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\PgArray;
use Illuminate\Database\Connection;

/**
 * Whoever writes figures or definitions of KPIs in their units holds those until the commit. All take them in the same
 * order, so none waits for another in a circle; readers, and whoever only refers to them, do not wait at all.
 */
final readonly class MeasurementLock
{
    public function __construct(private Connection $database) {}

    /** @param  list<int>  $measurements */
    public function hold(array $measurements): void
    {
        if ($this->database->transactionLevel() === 0) {
            throw new \LogicException('A lock holds as long as its transaction, and there is none.');
        }
        $this->database->select('SELECT id FROM kpi_unit WHERE id = ANY(?::bigint[]) ORDER BY id FOR NO KEY UPDATE', [PgArray::of(array_values(array_unique($measurements)))]);
    }

    /** @param  list<int>  $kpis */
    public function holdKpis(array $kpis): void
    {
        $this->database->select('SELECT id FROM kpis WHERE id = ANY(?::bigint[]) ORDER BY id FOR NO KEY UPDATE', [PgArray::of($kpis)]);
        $this->hold(array_values($this->database->table('kpi_unit')->whereIn('kpi_id', $kpis)->pluck('id')->all()));
    }
}
