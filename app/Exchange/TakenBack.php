<?php

declare(strict_types=1);

namespace App\Exchange;

use RuntimeException;

/** What was tried is taken back, all of it. */
final class TakenBack extends RuntimeException {}
