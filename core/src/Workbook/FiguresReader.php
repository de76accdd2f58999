<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Status;

/**
 * Reads the readings, targets, calls and actions of a workbook into the KPIs that they belong to.
 */
final class FiguresReader
{
    /** @var array<string, array<string, Period|string>> what a text stands for, by frequency: a period, or why it is none */
    private array $periods = [];

    public function __construct(private readonly KpisReader $kpis, private readonly FinancialYear $year) {}

    public function reading(Row $row): void
    {
        [$kpi, $place] = $this->place($row);
        if ($kpi === null || $place === null) {
            return;
        }
        $period = $this->period($row, $kpi->definition->frequency);
        $actual = $row->figure('actual');
        $status = $row->text('status');
        $note = $row->text('note');
        $kind = $kpi->definition->kind;
        if ($kind === Kind::Judged) {
            if ($row->has('actual')) {
                $row->refuse('actual', 'not-allowed', 'A judged KPI has a status instead of a figure.');
            }
            if ($row->has('status') && $note === null) {
                $row->refuse($row->has('note') ? 'note' : '', 'missing-member', 'A colour that a person gives needs its reason as the note.');
            }
        } else {
            if ($row->has('status')) {
                $row->refuse('status', 'not-allowed', 'Only a judged KPI is given a status.');
            }
            if ($row->has('actual') && ($kind === Kind::Formula || $place->isGathered)) {
                $row->refuse('actual', 'not-allowed', $kind === Kind::Formula ? 'A formula KPI is worked out, not entered.' : 'This figure is gathered from the units below, not entered.');
            }
        }
        $sum = $period === null ? null : $this->parts($row, $kpi, $place, $period, $actual);
        $isNoted = $note !== null || $row->text('outlook') !== null || $row->text('doing') !== null;
        if (! $row->has('actual') && ! $row->has('status') && $sum === null && ! $isNoted) {
            $row->refuse('', 'empty', 'A reading without a figure, a status or a note says nothing.');
        }
        if ($period === null) {
            return;
        }
        if (! $place->tenure->holds($period, $this->year)) {
            $row->refuse('period', 'outside', "The KPI is not measured in '{$place->unit}' in {$period->key()}.");
        }
        if ($actual !== null || $sum !== null) {
            $this->checkBounds($row, $kpi, $actual ?? $sum);
        }
        $this->enter($row, $place, $period, $kind === Kind::Judged ? self::score($status) : $row->text('actual') ?? $sum?->__toString(), $isNoted);
    }

    /** What the parts that are given add up to; null where none is. */
    private function parts(Row $row, KpiDraft $kpi, MeasurementDraft $place, Period $period, ?BigDecimal $actual): ?BigDecimal
    {
        $sum = null;
        $given = $row->row('parts');
        foreach ($given?->members() ?? [] as $part => $text) {
            $part = (string) $part;
            $figure = $given?->figure($part);
            if (! in_array($part, $kpi->parts, true)) {
                $row->refuse("parts/{$part}", 'not-allowed', "The KPI has no part '{$part}'.");
            } elseif ($figure !== null) {
                $place->parts[$part][$period->key()] = (string) $figure;
                $sum = $sum === null ? $figure : $sum->plus($figure);
            }
        }
        if ($sum !== null && $actual !== null && ! $sum->isEqualTo($actual)) {
            $row->refuse('actual', 'sum', "The parts add up to {$sum}.");
        }

        return $sum;
    }

    /**
     * Takes a reading that is plainly in order, which almost all are, without the detour of a row.
     *
     * @param  array<array-key, mixed>  $item
     * @return bool false when it must be read closely
     */
    public function takePlainReading(array $item): bool
    {
        $code = $item['kpi'] ?? null;
        $unit = $item['unit'] ?? null;
        $text = $item['period'] ?? null;
        $actual = $item['actual'] ?? null;
        if (! is_string($code) || ! is_string($unit) || ! is_string($text) || ! is_string($actual) || ($item['note'] ?? null) !== null
            || count($item) !== (array_key_exists('note', $item) ? 5 : 4) || preg_match('/\A-?[0-9]{1,20}(?:\.[0-9]{1,8})?\z/', $actual) !== 1) {
            return false;
        }
        $kpi = $this->kpis->draft($code);
        $place = $kpi?->units[$unit] ?? null;
        if ($kpi === null || $place === null || $kpi->definition->kind !== Kind::Entered || $place->isGathered
            || ! $place->tenure->isOpen() || $kpi->definition->min !== null || $kpi->definition->max !== null) {
            return false;
        }
        $period = $this->parsed($text, $kpi->definition->frequency);
        if (! $period instanceof Period || isset($place->readings[$period->key()]) || isset($place->notes[$period->key()])) {
            return false;
        }
        $place->readings[$period->key()] = $actual;

        return true;
    }

    public function target(Row $row): void
    {
        [$kpi, $place] = $this->place($row);
        if ($kpi === null || $place === null) {
            return;
        }
        $frequency = $kpi->definition->frequency;
        $isYear = preg_match('/\AFY\d{4}\z/', $row->text('period') ?? '') === 1;
        $period = $this->period($row, $isYear ? Frequency::Year : $frequency);
        if ($kpi->definition->kind === Kind::Judged) {
            $row->refuse('', 'not-allowed', 'A judged KPI has no target.');

            return;
        }
        if ($place->isGathered) {
            $row->refuse('', 'not-allowed', 'The targets of a gathered figure are those of the units below.');

            return;
        }
        if (! $kpi->hasPolarity) {
            return;
        }
        $isBand = $kpi->definition->polarity === Polarity::Band;
        foreach ($isBand ? ['target'] : ['low', 'high'] as $member) {
            if ($row->has($member)) {
                $row->refuse($member, 'not-allowed', $isBand ? 'A band has a low and a high target.' : 'Only a band has this.');
            }
        }
        foreach ($isBand ? ['low', 'high'] : ['target'] as $member) {
            if (! $row->has($member)) {
                $row->refuse('', 'missing-member', "The member '{$member}' is missing.");
            }
        }
        [$low, $high] = [$row->figure('low'), $row->figure('high')];
        if ($isBand && $low !== null && $high !== null && $high->isLessThan($low)) {
            $row->refuse('high', 'limits', "The upper target must be {$low} or more.");
        }
        if ($period === null) {
            return;
        }
        if (isset($place->targets[$period->key()])) {
            $row->refuse('period', 'duplicate', "There is a target for {$period->key()} already.");
        }
        $place->targets[$period->key()] = $row->text($isBand ? 'low' : 'target') ?? '0';
        if ($isBand) {
            $place->upperTargets[$period->key()] = $row->text('high') ?? '0';
        }
    }

    /**
     * Takes a target that is plainly in order, as {@see takePlainReading()} does.
     *
     * @param  array<array-key, mixed>  $item
     */
    public function takePlainTarget(array $item): bool
    {
        $code = $item['kpi'] ?? null;
        $unit = $item['unit'] ?? null;
        $text = $item['period'] ?? null;
        $target = $item['target'] ?? null;
        if (! is_string($code) || ! is_string($unit) || ! is_string($text) || ! is_string($target) || count($item) !== 4
            || preg_match('/\A-?[0-9]{1,20}(?:\.[0-9]{1,8})?\z/', $target) !== 1) {
            return false;
        }
        $kpi = $this->kpis->draft($code);
        $place = $kpi?->units[$unit] ?? null;
        if ($kpi === null || $place === null || $kpi->definition->kind === Kind::Judged || $place->isGathered
            || ! $kpi->hasPolarity || $kpi->definition->polarity === Polarity::Band) {
            return false;
        }
        $period = $this->parsed($text, $kpi->definition->frequency);
        if (! $period instanceof Period || isset($place->targets[$period->key()])) {
            return false;
        }
        $place->targets[$period->key()] = $target;

        return true;
    }

    public function call(Row $row): void
    {
        [$kpi, $place] = $this->place($row);
        if ($kpi === null || $place === null) {
            return;
        }
        $period = $this->period($row, $kpi->definition->frequency);
        $span = $row->has('span') ? $row->choice('span', Span::class) : Span::Month;
        $status = $row->choice('status', Status::class);
        $actual = $row->text('actual');
        if ($kpi->definition->kind === Kind::Judged) {
            $row->refuse('', 'not-allowed', 'A judged KPI has no computed status to call otherwise.');
        }
        if ($period === null || $span === null || $status === null || $actual === null || preg_match('/\A-?\d{1,40}(\.\d{1,12})?\z/', $actual) !== 1) {
            return;
        }
        foreach ($place->calls as $other) {
            if ($other->span === $span && $other->period->compareTo($period) === 0) {
                $row->refuse('period', 'duplicate', "There is a call on {$period->key()} already.");
            }
        }
        $place->calls[] = new Call($span, $period, $status, $row->text('reason') ?? '', Exact::of(BigDecimal::of($actual)), $row->text('by'));
    }

    public function action(Row $row): void
    {
        [$kpi, $place] = $this->place($row);
        $period = $kpi === null ? null : $this->period($row, $kpi->definition->frequency);
        $state = $row->text('state') ?? 'open';
        if ($row->has('ended') !== ($state !== 'open')) {
            $row->refuse($row->has('ended') ? 'ended' : '', $row->has('ended') ? 'not-allowed' : 'missing-member', $row->has('ended') ? 'An open action has not ended.' : 'An action that is done or dropped has ended on a day.');
        }
        foreach (['due', 'ended'] as $member) {
            $day = $row->text($member);
            if ($day !== null && preg_match('/\A(\d{4})-(\d{2})-(\d{2})\z/', $day, $parts) === 1 && ! checkdate((int) $parts[2], (int) $parts[3], (int) $parts[1])) {
                $row->refuse($member, 'malformed', "'{$day}' is no day.");
            }
        }
        if ($place !== null && $period !== null) {
            $place->actions[] = new ActionEntry($period, $row->text('what') ?? '', $row->text('who') ?? '', $row->text('due') ?? '', $state, $row->text('outcome') ?? '', $row->text('ended'), $row->text('by'));
        }
    }

    /** @return array{KpiDraft|null, MeasurementDraft|null} */
    private function place(Row $row): array
    {
        $code = $row->text('kpi');
        $unit = $row->text('unit');
        $kpi = $code === null ? null : $this->kpis->draft($code);
        if ($code !== null && $kpi === null) {
            $row->refuse('kpi', 'unknown-kpi', "There is no KPI '{$code}'.");
        }
        $place = $kpi === null || $unit === null ? null : $kpi->units[$unit] ?? null;
        if ($kpi !== null && $unit !== null && $place === null) {
            $row->refuse('unit', 'not-measured', "The KPI '{$code}' is not measured in '{$unit}'.");
        }

        return [$kpi, $place];
    }

    private function period(Row $row, Frequency $frequency): ?Period
    {
        $text = $row->text('period');
        if ($text === null) {
            return null;
        }
        $period = $this->parsed($text, $frequency);
        if ($period instanceof Period) {
            return $period;
        }
        $row->refuse('period', 'period', $period);

        return null;
    }

    /** The same period object for the same text, so that thousands of series share their keys. */
    private function parsed(string $text, Frequency $frequency): Period|string
    {
        if (! isset($this->periods[$frequency->value][$text])) {
            try {
                $this->periods[$frequency->value][$text] = Period::parse($text, $frequency);
            } catch (InvalidArgumentException $problem) {
                $this->periods[$frequency->value][$text] = $problem->getMessage();
            }
        }

        return $this->periods[$frequency->value][$text];
    }

    private function checkBounds(Row $row, KpiDraft $kpi, BigDecimal $actual): void
    {
        if ($kpi->definition->min !== null && $actual->isLessThan($kpi->definition->min)) {
            $row->refuse('actual', 'bounds', "The figure cannot be below {$kpi->definition->min}.");
        }
        if ($kpi->definition->max !== null && $actual->isGreaterThan($kpi->definition->max)) {
            $row->refuse('actual', 'bounds', "The figure cannot be above {$kpi->definition->max}.");
        }
    }

    private function enter(Row $row, MeasurementDraft $place, Period $period, ?string $figure, bool $isNoted): void
    {
        $key = $period->key();
        if (isset($place->readings[$key]) || isset($place->notes[$key])) {
            $row->refuse('period', 'duplicate', "There is a reading for {$key} already.");
        }
        if ($figure !== null) {
            $place->readings[$key] = $figure;
            if ($row->flag('submitted')) {
                $place->submitted[$key] = true;
            }
            if ($row->text('asOf') !== null) {
                $place->asOf[$key] = $row->text('asOf');
            }
        }
        if ($isNoted) {
            $place->notes[$key] = new NoteEntry($row->text('note') ?? '', $row->text('by'), $row->text('outlook') ?? '', $row->text('doing') ?? '');
        }
    }

    private static function score(?string $status): ?string
    {
        $score = $status === null ? null : Status::tryFrom($status)?->score();

        return $score === null ? null : (string) $score;
    }
}
