<?php

declare(strict_types=1);

namespace App\Sources;

use App\Records\KeptSet;

/**
 * The queries of a load: what it brings is held against what is there, by the key of the records.
 */
final readonly class LoadSql
{
    private string $key;

    private string $there;

    private string $was;

    private string $staged;

    /** @param  list<string>  $columns  that the load brings */
    public function __construct(KeptSet $set, private int $load, private array $columns)
    {
        $this->key = $set->table->columns[$set->entry->key];
        $this->there = $set->table->name;
        $this->was = "records.w{$set->id}";
        $this->staged = "records.s{$load}";
    }

    /** How many are new, changed, the same; and how many that are there it does not bring. */
    public function counts(): string
    {
        return "SELECT count(*) FILTER (WHERE there.{$this->key} IS NULL) AS added, count(*) FILTER (WHERE there.{$this->key} IS NOT NULL AND {$this->differs()}) AS changed,
            count(*) FILTER (WHERE there.{$this->key} IS NOT NULL AND NOT ({$this->differs()})) AS same,
            (SELECT count(*) FROM {$this->there}) - count(there.{$this->key}) AS gone
            FROM {$this->staged} AS staged LEFT JOIN {$this->there} AS there USING ({$this->key})";
    }

    /** Keeps what changes, so that it can be taken back. */
    public function keepChanged(): string
    {
        return "INSERT INTO {$this->was} SELECT {$this->load}, true, there.* FROM {$this->there} AS there JOIN {$this->staged} AS staged USING ({$this->key}) WHERE {$this->differs()}";
    }

    public function keepGone(): string
    {
        return "INSERT INTO {$this->was} SELECT {$this->load}, true, there.* FROM {$this->there} AS there WHERE NOT EXISTS (SELECT FROM {$this->staged} AS staged WHERE staged.{$this->key} = there.{$this->key})";
    }

    public function change(): string
    {
        $set = implode(', ', array_map(fn (string $column): string => "{$column} = staged.{$column}", $this->columns));

        return "UPDATE {$this->there} AS there SET load = {$this->load}, {$set} FROM {$this->staged} AS staged WHERE staged.{$this->key} = there.{$this->key} AND {$this->differs()}";
    }

    public function remove(): string
    {
        return "DELETE FROM {$this->there} AS there WHERE NOT EXISTS (SELECT FROM {$this->staged} AS staged WHERE staged.{$this->key} = there.{$this->key})";
    }

    public function add(): string
    {
        $columns = implode(', ', $this->columns);

        return "INSERT INTO {$this->there} (load, {$columns}) SELECT {$this->load}, {$columns} FROM {$this->staged} AS staged WHERE NOT EXISTS (SELECT FROM {$this->there} AS there WHERE there.{$this->key} = staged.{$this->key})";
    }

    /** Takes away what the load added: what it wrote and did not change. */
    public function takeBackAdded(): string
    {
        return "DELETE FROM {$this->there} AS there WHERE load = {$this->load} AND NOT EXISTS (SELECT FROM {$this->was} AS was WHERE was.by_load = {$this->load} AND was.{$this->key} = there.{$this->key})";
    }

    /** @param  list<string>  $all  every column of the set */
    public function putBack(array $all): string
    {
        $columns = implode(', ', $all);
        $set = implode(', ', array_map(fn (string $column): string => "{$column} = excluded.{$column}", ['load', ...$all]));

        return "INSERT INTO {$this->there} (load, {$columns}) SELECT load, {$columns} FROM {$this->was} WHERE by_load = {$this->load} ON CONFLICT ({$this->key}) DO UPDATE SET {$set}";
    }

    /** The first and the last local day of what the load touches, as it was and as it is. */
    public function touched(string $day): string
    {
        return "SELECT min(day)::text AS first, max(day)::text AS last FROM (SELECT {$day} AS day FROM {$this->there} WHERE load = {$this->load} UNION ALL SELECT {$day} FROM {$this->was} WHERE by_load = {$this->load}) AS touched";
    }

    private function differs(): string
    {
        $columns = array_values(array_diff($this->columns, [$this->key]));
        $row = fn (string $of): string => '('.implode(', ', array_map(fn (string $column): string => "{$of}.{$column}", $columns)).')';

        return $columns === [] ? 'false' : "{$row('there')} IS DISTINCT FROM {$row('staged')}";
    }
}
