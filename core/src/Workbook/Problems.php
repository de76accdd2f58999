<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * Collects what is wrong, so that a workbook that is wrong in twenty places is told all twenty.
 */
final class Problems
{
    /** @var array<string, Problem> */
    private array $found = [];

    /** @var array<string, true> by pointer */
    private array $told = [];

    public function add(string $pointer, string $code, string $message, ?string $about = null): void
    {
        $problem = new Problem($pointer === '' ? '/' : $pointer, $code, $message, $about);
        $this->found[$problem->line()] = $problem;
        $this->told[$pointer] = true;
    }

    /** Says it of a place of which nothing was said before: what is malformed need not be called unknown as well. */
    public function addUnlessTold(string $pointer, string $code, string $message, ?string $about = null): void
    {
        if (! isset($this->told[$pointer])) {
            $this->add($pointer, $code, $message, $about);
        }
    }

    /** @return list<Problem> in the order of their places */
    public function all(): array
    {
        $problems = array_values($this->found);
        usort($problems, fn (Problem $one, Problem $other): int => strnatcmp($one->pointer, $other->pointer));

        return $problems;
    }
}
