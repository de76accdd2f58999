<?php

declare(strict_types=1);

namespace App\Records;

use Illuminate\Database\Connection;
use Kybernet\Core\Records\Coverage;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Workbook\RecordSetEntry;
use stdClass;

/**
 * The record sets that there are, read once a request.
 */
final class RecordSets
{
    /** @var array<int, KeptSet>|null */
    private ?array $sets = null;

    public function __construct(private readonly Connection $database) {}

    /** @return array<int, KeptSet> by identity, in the order in which they were made */
    public function all(): array
    {
        if ($this->sets === null) {
            $this->sets = [];
            foreach ($this->database->table('record_sets')->orderBy('id')->get() as $row) {
                $this->sets[$row->id] = self::read($row);
            }
        }

        return $this->sets;
    }

    public function byCode(string $code): ?KeptSet
    {
        foreach ($this->all() as $set) {
            if ($set->code === $code) {
                return $set;
            }
        }

        return null;
    }

    public function of(int $id): KeptSet
    {
        return $this->all()[$id];
    }

    public function forget(): void
    {
        $this->sets = null;
    }

    private static function read(stdClass $row): KeptSet
    {
        /** @var list<array{name: string, type?: string, column?: string, expression?: string, meaning?: string, sensitive?: bool}> $members */
        $members = json_decode($row->fields, true, flags: JSON_THROW_ON_ERROR);
        $fields = $calculated = $columns = $meanings = $sensitive = [];
        foreach ($members as $member) {
            if (isset($member['type'], $member['column'])) {
                $fields[$member['name']] = FieldType::from($member['type']);
                $columns[$member['name']] = $member['column'];
            }
        }
        foreach ($members as $member) {
            if (isset($member['expression'])) {
                $calculated[$member['name']] = Expression::parse($member['expression'], $fields, $calculated);
            }
            if (($member['meaning'] ?? '') !== '') {
                $meanings[$member['name']] = $member['meaning'];
            }
            if ($member['sensitive'] ?? false) {
                $sensitive[] = $member['name'];
            }
        }
        /** @var array<string, string> $names */
        $names = json_decode($row->unit_names, true, flags: JSON_THROW_ON_ERROR);
        $day = fn (?string $date): ?Day => $date === null ? null : Day::parse($date);
        $set = new RecordSet($row->code, $fields, $calculated, new Coverage($day($row->covers_from), $day($row->covers_to)), $names);

        return new KeptSet(
            $row->id,
            $row->code,
            $row->name,
            $row->noun,
            $row->unit_id,
            $row->unit_field,
            new RecordSetEntry($row->name, $row->key_field, $set, $meanings, $sensitive),
            new RecordTable("records.r{$row->id}", $columns),
            $row->records,
            $row->version,
            $row->retired_at !== null,
        );
    }
}
