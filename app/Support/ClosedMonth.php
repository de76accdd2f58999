<?php

declare(strict_types=1);

namespace App\Support;

use RuntimeException;

/** Something belongs to a month that is closed, and all of it was left as it was. */
final class ClosedMonth extends RuntimeException {}
