<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Figure;

/**
 * One object of a workbook, read member by member. A member of the wrong type reads as if it were not there: the
 * schema has told of it already.
 */
final readonly class Row
{
    /** @param  array<array-key, mixed>  $members */
    public function __construct(private array $members, public string $pointer, private Problems $problems) {}

    public function refuse(string $member, string $code, string $message, ?string $about = null): void
    {
        if ($member === '') {
            $this->problems->add($this->pointer, $code, $message, $about);
        } else {
            $this->problems->addUnlessTold("{$this->pointer}/{$member}", $code, $message, $about);
        }
    }

    public function has(string $member): bool
    {
        return isset($this->members[$member]);
    }

    /** Null when it is missing, null or blank. */
    public function text(string $member): ?string
    {
        $value = $this->members[$member] ?? null;

        return is_string($value) && trim($value) !== '' ? $value : null;
    }

    public function figure(string $member): ?BigDecimal
    {
        try {
            return Figure::parse($this->text($member) ?? '');
        } catch (InvalidArgumentException) {
            return null;
        }
    }

    public function integer(string $member): ?int
    {
        $value = $this->members[$member] ?? null;

        return is_int($value) || (is_float($value) && $value === floor($value) && abs($value) < 1e15) ? (int) $value : null;
    }

    /** A JSON number, exactly as it is written. */
    public function number(string $member): ?BigDecimal
    {
        $value = $this->members[$member] ?? null;

        return is_int($value) || is_float($value) ? BigDecimal::of(json_encode($value, JSON_THROW_ON_ERROR)) : null;
    }

    public function flag(string $member): bool
    {
        return ($this->members[$member] ?? null) === true;
    }

    public function month(string $member): ?Period
    {
        try {
            return Period::parse($this->text($member) ?? '');
        } catch (InvalidArgumentException) {
            if (preg_match('/\A0000-/', $this->text($member) ?? '') === 1) {
                $this->refuse($member, 'period', 'There is no such month.');
            }

            return null;
        }
    }

    /**
     * @template Choice of \BackedEnum
     *
     * @param  class-string<Choice>  $choices
     * @return Choice|null
     */
    public function choice(string $member, string $choices): ?\BackedEnum
    {
        $value = $this->text($member);

        return $value === null ? null : $choices::tryFrom($value);
    }

    public function row(string $member): ?self
    {
        $value = $this->members[$member] ?? null;

        return is_array($value) ? new self($value, "{$this->pointer}/{$member}", $this->problems) : null;
    }

    /** @return array<int, self> */
    public function rows(string $member): array
    {
        $value = $this->members[$member] ?? null;
        $rows = [];
        foreach (is_array($value) && array_is_list($value) ? $value : [] as $index => $item) {
            if (is_array($item)) {
                $rows[$index] = new self($item, "{$this->pointer}/{$member}/{$index}", $this->problems);
            }
        }

        return $rows;
    }

    /** @return array<array-key, mixed> all that it has */
    public function members(): array
    {
        return $this->members;
    }

    /** @return list<mixed> as it is written */
    public function list(string $member): array
    {
        $value = $this->members[$member] ?? null;

        return is_array($value) && array_is_list($value) ? $value : [];
    }

    /** @return array<int, string> */
    public function texts(string $member): array
    {
        $value = $this->members[$member] ?? null;

        return array_filter(is_array($value) && array_is_list($value) ? $value : [], is_string(...));
    }
}
