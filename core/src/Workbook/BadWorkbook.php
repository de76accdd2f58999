<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use InvalidArgumentException;

/**
 * A workbook that cannot be used, with everything that is wrong with it.
 */
final class BadWorkbook extends InvalidArgumentException
{
    /** @param  non-empty-list<Problem>  $problems */
    public function __construct(public readonly array $problems)
    {
        parent::__construct('The workbook has '.count($problems).(count($problems) === 1 ? ' problem.' : ' problems.'));
    }
}
