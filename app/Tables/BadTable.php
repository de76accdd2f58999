<?php

declare(strict_types=1);

namespace App\Tables;

use RuntimeException;

/**
 * A file that cannot be read as a table, with a sentence for the person who sent it.
 */
final class BadTable extends RuntimeException {}
