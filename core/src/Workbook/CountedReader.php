<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Measure\Figure;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Records\BadCondition;
use Kybernet\Core\Records\Band;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Records\TypedParts;

/**
 * Reads how a KPI is counted from records, and how it is split.
 */
final class CountedReader
{
    /** Null where it cannot be counted so; what is wrong has been told. */
    public static function read(Row $row, RecordSet $set): ?Counted
    {
        $take = $row->choice('take', Take::class);
        if ($take === null) {
            return null;
        }
        $of = self::source($row, 'of', $set);
        self::asks($row, 'of', $take->isOfValues(), "'{$take->value}' takes the values of a field or an expression.", "'{$take->value}' takes no values.");
        if ($take->isOfNumbers() && $of !== null && $of->type !== FieldType::Number) {
            $row->refuse('of', 'not-allowed', "'{$take->value}' is taken of numbers.");
        }
        $percentile = $row->number('percentile') ?? $row->figure('percentile');
        self::asks($row, 'percentile', $take === Take::Percentile, 'Which percentile is it?', "'{$take->value}' has no percentile.");
        if ($percentile !== null && ($percentile->isNegative() || $percentile->isGreaterThan(100))) {
            $row->refuse('percentile', 'out-of-range', 'A percentile is from 0 to 100.');
        }
        $met = self::conditions($row, 'met', $set);
        if (($row->list('met') !== []) !== ($take === Take::Share)) {
            $row->refuse($row->has('met') ? 'met' : '', $take === Take::Share ? 'missing-member' : 'not-allowed', $take === Take::Share ? 'A share is of those that meet something: what?' : "'{$take->value}' is of no share.");
        }
        $datedBy = self::field($row, 'datedBy', $set, [FieldType::Date, FieldType::Time]);
        self::asks($row, 'datedBy', true, 'By which date do records count?', '');
        self::asks($row, 'until', $take === Take::Open, 'Until when is a record open?', "'{$take->value}' has one date.");

        return new Counted(
            $set->code,
            $take,
            $of,
            $percentile,
            $met,
            $datedBy ?? '',
            self::field($row, 'until', $set, [FieldType::Date, FieldType::Time]),
            self::field($row, 'unit', $set, [FieldType::Text]),
            self::conditions($row, 'where', $set),
            $row->month('from'),
        );
    }

    /** @return list<Split> */
    public static function splits(Row $kpi, RecordSet $set): array
    {
        $splits = [];
        foreach ($kpi->rows('splits') as $row) {
            $code = $row->text('code') ?? '';
            if (isset($splits[$code]) || $code === TypedParts::CODE) {
                $row->refuse('code', 'duplicate', "There is a split '{$code}' already.");
            }
            $of = self::source($row, 'of', $set);
            $bands = self::bands($row, $of);
            $shares = self::shares($row, $bands);
            [$green, $amber] = [$row->figure('green'), $row->figure('amber')];
            foreach (['green', 'amber'] as $member) {
                self::asks($row, $member, $shares !== [], 'Parts with a share to have need limits, in points.', 'Without shares to have there is nothing to judge.');
            }
            if ($green?->isNegative() === true || ($green !== null && $amber !== null && $amber->isLessThan($green))) {
                $row->refuse($green->isNegative() ? 'green' : 'amber', 'limits', $green->isNegative() ? 'A distance is not negative.' : "The limit must be {$green} or more.");
            }
            if ($of !== null) {
                $splits[$code] = new Split($code, $row->text('name') ?? $code, $of, $bands, $shares, $green, $amber);
            }
        }

        return array_values($splits);
    }

    /** @return list<Band> */
    private static function bands(Row $row, ?Source $of): array
    {
        $bands = [];
        $before = null;
        $names = [];
        $rows = $row->rows('bands');
        foreach ($rows as $at => $band) {
            $upTo = $band->figure('upTo');
            $name = $band->text('name') ?? '';
            if (($upTo === null && $at !== array_key_last($rows)) || ($upTo !== null && $before !== null && $upTo->isLessThanOrEqualTo($before))) {
                $band->refuse('upTo', 'limits', 'Bands follow each other upwards; only the last has no end.');
            }
            if (isset($names[$name])) {
                $band->refuse('name', 'duplicate', "There is a band '{$name}' already.");
            }
            $names[$name] = true;
            $before = $upTo ?? $before;
            $bands[] = new Band($upTo, $name);
        }
        if ($bands !== [] && $of !== null && $of->type !== FieldType::Number) {
            $row->refuse('bands', 'not-allowed', 'Bands are of a number.');
        }

        return $bands;
    }

    /**
     * @param  list<Band>  $bands
     * @return array<string, BigDecimal> in %
     */
    private static function shares(Row $row, array $bands): array
    {
        $shares = [];
        $known = array_column($bands, 'name');
        foreach ($row->row('shares')?->members() ?? [] as $part => $given) {
            $part = (string) $part;
            try {
                $share = Figure::parse(is_string($given) ? $given : '');
            } catch (InvalidArgumentException) {
                $row->refuse("shares/{$part}", 'malformed', 'A share is a figure such as 12.5, in %.');

                continue;
            }
            if ($share->isNegative() || $share->isGreaterThan(100)) {
                $row->refuse("shares/{$part}", 'out-of-range', 'A share is from 0 to 100 %.');
            }
            if ($known !== [] && ! in_array($part, $known, true)) {
                $row->refuse("shares/{$part}", 'not-allowed', "There is no band '{$part}'.");
            }
            $shares[$part] = $share;
        }

        return $shares;
    }

    private static function source(Row $row, string $member, RecordSet $set): ?Source
    {
        try {
            return $row->text($member) === null ? null : $set->source(trim($row->text($member)));
        } catch (FormulaProblem $problem) {
            $row->refuse($member, 'formula', $problem->getMessage());

            return null;
        }
    }

    /** @param  list<FieldType>  $types */
    private static function field(Row $row, string $member, RecordSet $set, array $types): ?string
    {
        $name = $row->text($member);
        $type = $name === null ? null : $set->fields[$name] ?? null;
        if ($name !== null && ($type === null || ! in_array($type, $types, true))) {
            $row->refuse($member, $type === null ? 'unknown-field' : 'not-allowed', $type === null ? "There is no field '{$name}' that records bring with them." : "'{$name}' is {$type->value}; this wants ".implode(' or ', array_column($types, 'value')).'.');

            return null;
        }

        return $name;
    }

    /** @return list<Condition> */
    private static function conditions(Row $row, string $member, RecordSet $set): array
    {
        $conditions = [];
        foreach ($row->list($member) as $at => $given) {
            try {
                $conditions[] = Condition::read(is_array($given) ? $given : [], $set);
            } catch (BadCondition $bad) {
                $row->refuse(rtrim("{$member}/{$at}/{$bad->member}", '/'), $bad->kind, $bad->getMessage());
            }
        }

        return $conditions;
    }

    private static function asks(Row $row, string $member, bool $isNeeded, string $why, string $whyNot): void
    {
        if ($row->has($member) !== $isNeeded) {
            $row->refuse($isNeeded ? '' : $member, $isNeeded ? 'missing-member' : 'not-allowed', $isNeeded ? "The member '{$member}' is missing. {$why}" : $whyNot);
        }
    }
}
