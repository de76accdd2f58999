<?php

declare(strict_types=1);

namespace App\Briefings;

use RuntimeException;

/** Nothing was printed; the message says what to do instead. */
final class PrinterFailed extends RuntimeException {}
