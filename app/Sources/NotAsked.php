<?php

declare(strict_types=1);

namespace App\Sources;

use RuntimeException;

/** Records could not be fetched, with the reason as a sentence. */
final class NotAsked extends RuntimeException {}
