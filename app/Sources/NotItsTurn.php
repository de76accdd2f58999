<?php

declare(strict_types=1);

namespace App\Sources;

use RuntimeException;

/** Another worker has been set to a load: this one leaves everything as it is. */
final class NotItsTurn extends RuntimeException {}
