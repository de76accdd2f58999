<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

/**
 * What a field of a record holds.
 */
enum FieldType: string
{
    case Text = 'text';
    /** exact */
    case Number = 'number';
    case Date = 'date';
    /** an instant, given with its zone */
    case Time = 'time';
    case YesNo = 'yesno';
}
