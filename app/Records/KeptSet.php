<?php

declare(strict_types=1);

namespace App\Records;

use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Workbook\RecordSetEntry;

/**
 * A record set as this installation keeps it. Its records stay in the database.
 */
final readonly class KeptSet
{
    /**
     * @param  string  $noun  what one calls several of its records in a sentence
     * @param  int  $unitId  the part of the organisation whose records they are
     * @param  string|null  $unitField  the field that names the unit of a record
     * @param  int  $records  how many there are
     * @param  int  $version  counts the changes of its definition and records
     */
    public function __construct(
        public int $id,
        public string $code,
        public string $name,
        public string $noun,
        public int $unitId,
        public ?string $unitField,
        public RecordSetEntry $entry,
        public RecordTable $table,
        public int $records,
        public int $version,
        public bool $isRetired,
    ) {}

    public function set(): RecordSet
    {
        return $this->entry->set;
    }

    /** @return list<string> the fields that are marked so */
    public function sensitive(): array
    {
        return $this->entry->sensitive;
    }

    /** Whether it is sensitive, or made of what is. */
    public function isSensitive(Source $source): bool
    {
        return array_intersect([$source->text, ...$source->fields()], $this->entry->sensitive) !== [];
    }
}
