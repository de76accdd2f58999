<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Records\RecordSet;

/**
 * A record set: what it is called, by which field its records are told apart, and what people know of its fields.
 */
final readonly class RecordSetEntry
{
    /**
     * @param  string  $key  the field that tells records apart
     * @param  array<string, string>  $meanings  what a field is, in words, by its name
     * @param  list<string>  $sensitive  fields that few see
     * @param  (\Closure(): iterable<list<string|bool|null>>)|null  $rows  gives the records one by one, where they are too many to be at hand
     */
    public function __construct(public string $name, public string $key, public RecordSet $set, public array $meanings = [], public array $sensitive = [], public ?\Closure $rows = null) {}
}
