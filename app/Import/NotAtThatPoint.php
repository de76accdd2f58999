<?php

declare(strict_types=1);

namespace App\Import;

use RuntimeException;

/** The import is in a state that the step does not begin in. */
final class NotAtThatPoint extends RuntimeException {}
