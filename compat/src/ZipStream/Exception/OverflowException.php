<?php

declare(strict_types=1);

namespace ZipStream\Exception;

use RuntimeException;

final class OverflowException extends RuntimeException {}
