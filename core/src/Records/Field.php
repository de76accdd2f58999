<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

/**
 * A field that records bring with them.
 */
final readonly class Field
{
    public function __construct(public string $name, public FieldType $type) {}
}
