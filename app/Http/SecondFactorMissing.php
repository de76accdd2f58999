<?php

declare(strict_types=1);

namespace App\Http;

use RuntimeException;

/** Everybody has to have a second factor here, and whoever asks has none yet. */
final class SecondFactorMissing extends RuntimeException {}
