<?php

declare(strict_types=1);

namespace App\Console\Commands;

use Database\Ostermere\Records;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** Fills a second database with invoices: the ledger that the demonstration asks. */
final class LoadLedger extends Command
{
    protected $signature = 'demo:ledger';

    protected $description = 'Fill the ledger that stands in for somebody else\'s database';

    public function handle(): int
    {
        $set = Records::sets()['INVOICES'];
        $types = ['text' => 'text', 'number' => 'numeric', 'date' => 'date'];
        $columns = [];
        foreach ($set['fields'] as $field) {
            if (isset($field['type'])) {
                $columns[] = "{$field['name']} {$types[$field['type']]}";
            }
        }
        DB::statement('CREATE TABLE invoices ('.implode(', ', $columns).')');
        $lines = [];
        foreach ($set['rows']() as $row) {
            $lines[] = implode("\t", array_map(fn (string $value): string => $value === '' ? '\N' : $value, $row));
        }
        DB::connection()->getPdo()->pgsqlCopyFromArray('invoices', $lines, "\t", '\\\\N');
        $this->line(count($lines).' invoices.');

        return self::SUCCESS;
    }
}
