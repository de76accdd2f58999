<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use InvalidArgumentException;

/**
 * A formula that gives no value on the figures it was given; the message says why.
 */
final class NoValue extends InvalidArgumentException {}
