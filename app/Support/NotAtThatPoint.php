<?php

declare(strict_types=1);

namespace App\Support;

use RuntimeException;

/** The import is in a state that the step does not begin in. */
final class NotAtThatPoint extends RuntimeException {}
