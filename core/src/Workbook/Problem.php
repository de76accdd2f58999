<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * Something in a workbook that is wrong, and where.
 */
final readonly class Problem
{
    /**
     * @param  string  $pointer  JSON pointer (RFC 6901); `/` for the whole
     * @param  string|null  $about  code of the other KPI that it is about; null where it is about none
     */
    public function __construct(public string $pointer, public string $code, public string $message, public ?string $about = null) {}

    public function line(): string
    {
        return "{$this->pointer} {$this->code} {$this->message}";
    }
}
