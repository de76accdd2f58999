<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Measure\Gathering;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Operand;
use Kybernet\Core\Measure\OperandOf;
use Kybernet\Core\Measure\TargetFormula;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Status\Polarity;

/**
 * Reads the KPIs of a workbook: each by itself, then what they say of each other.
 */
final class KpisReader
{
    /** Members that a KPI without a number has no use for. */
    private const OF_NUMBERS = [
        'measure' => 'measure', 'polarity' => 'polarity', 'formula' => 'formula', 'min' => 'bounds', 'max' => 'bounds',
        'materiality' => 'materiality', 'gather' => 'way of gathering',
        'targetFormula' => 'target', 'lowFormula' => 'target', 'highFormula' => 'target',
    ];

    /** @var array<string, KpiDraft> */
    private array $kpis = [];

    /** @var array<string, string> by code in small letters */
    private array $codes = [];

    /** @var array<string, string> codes by name */
    private array $names = [];

    public function __construct(private readonly UnitsReader $units, private readonly RecordSetsReader $sets) {}

    public function read(Row $row): void
    {
        $code = $row->text('code');
        $kind = $row->has('kind') ? $row->choice('kind', Kind::class) : Kind::Entered;
        $polarity = $row->choice('polarity', Polarity::class);
        $accumulation = $row->choice('accumulation', Accumulation::class);
        $frequency = $row->has('frequency') ? $row->choice('frequency', Frequency::class) : Frequency::Month;
        $this->checkKind($row, $kind, $accumulation);
        $this->checkNames($row, $code);
        [$min, $max] = [$row->figure('min'), $row->figure('max')];
        if ($min !== null && $max !== null && $max->isLessThan($min)) {
            $row->refuse('max', 'limits', "The upper bound must be {$min} or more.");
        }
        if ($row->figure('materiality')?->isNegative() === true) {
            $row->refuse('materiality', 'out-of-range', 'The materiality cannot be negative.');
        }
        if ($kind === Kind::Judged) {
            $accumulation ??= Accumulation::Latest;
        }
        $set = $kind === Kind::Records ? $this->records($row) : null;
        $counted = $set === null ? null : CountedReader::read($row->row('counted') ?? $row, $set);
        if ($kind === Kind::Records) {
            $accumulation = $counted?->take->accumulation();
        }
        $definition = new Definition(
            $row->text('measure') ?? '',
            max(0, $row->integer('decimals') ?? 0),
            $kind === Kind::Judged ? Polarity::None : $polarity ?? Polarity::None,
            $accumulation ?? Accumulation::Mean,
            $kind === Kind::Judged ? [] : RulesReader::read($row->rows('rules'), $polarity, $accumulation),
            $kind ?? Kind::Entered,
            $frequency ?? Frequency::Month,
            $min,
            $max,
            $row->figure('materiality'),
            $kind === Kind::Formula ? self::formula($row, 'formula', Formula::parse(...)) : null,
            $row->row('gather')?->choice('method', Gathering::class),
            $row->row('gather')?->text('weight'),
            $kind === Kind::Judged ? null : self::targetFormula($row, $polarity),
            $counted,
        );
        if ($code === null || isset($this->kpis[$code])) {
            return;
        }
        $draft = new KpiDraft($code, $row, $definition, $polarity !== null, $set === null ? [] : CountedReader::splits($row, $set), $this->parts($row));
        foreach ($row->rows('units') as $place) {
            $this->readPlace($draft, $place, $kind === Kind::Judged ? null : $polarity, $accumulation);
        }
        $this->kpis[$code] = $draft;
    }

    public function draft(string $kpi): ?KpiDraft
    {
        return $this->kpis[$kpi] ?? null;
    }

    /** @return array<string, KpiDraft> once all are read: checks what they say of each other */
    public function all(): array
    {
        foreach ($this->kpis as $kpi) {
            foreach ($this->formulas($kpi) as $member => $formula) {
                $this->checkOperands($kpi, $member, $formula);
            }
            $this->checkGathering($kpi);
            foreach ($kpi->row->texts('drivers') as $index => $driver) {
                if (! isset($this->kpis[$driver])) {
                    $kpi->row->refuse("drivers/{$index}", 'unknown-kpi', "There is no KPI '{$driver}'.");
                }
            }
            $department = $kpi->row->text('department');
            if ($department !== null && ! $this->units->knows($department)) {
                $kpi->row->refuse('department', 'unknown-unit', "There is no unit '{$department}'.");
            }
        }
        $this->refuseCycles(fn (KpiDraft $kpi): array => array_fill_keys(array_map(fn (Operand $operand): string => $operand->code, array_values($kpi->definition->formula->operands ?? [])), 'formula'), 'A formula cannot lead back to itself');
        $this->refuseCycles($this->aimedBy(...), 'A target cannot lead back to itself');
        $this->refuseCycles(fn (KpiDraft $kpi): array => array_fill_keys($kpi->row->texts('drivers'), 'drivers'), 'A KPI cannot drive itself');

        return $this->kpis;
    }

    private function checkKind(Row $row, ?Kind $kind, ?Accumulation $accumulation): void
    {
        foreach (['counted', 'splits'] as $member) {
            if ($kind !== Kind::Records && ($row->row($member) !== null || $row->list($member) !== [])) {
                $row->refuse($member, 'not-allowed', 'Only what is counted from records has this.');
            }
        }
        if ($kind !== Kind::Entered && $row->list('parts') !== []) {
            $row->refuse('parts', 'not-allowed', 'Only an entered KPI has parts that are entered.');
        }
        if ($kind === Kind::Judged) {
            foreach (self::OF_NUMBERS as $member => $words) {
                if ($row->text($member) !== null || $row->row($member) !== null) {
                    $row->refuse($member, 'not-allowed', "A judged KPI has no {$words}.");
                }
            }
            foreach ($row->rows('rules') as $rule) {
                $rule->refuse('', 'not-allowed', 'A judged KPI has no rule sets: a person gives the colour.');
            }
            if ($accumulation !== null && ! in_array($accumulation, [Accumulation::Latest, Accumulation::Mean], true)) {
                $row->refuse('accumulation', 'not-allowed', "Colours are gathered by 'latest' or 'mean'.");
            }

            return;
        }
        foreach ($kind === Kind::Records ? ['polarity'] : ['polarity', 'accumulation'] as $member) {
            if ($kind !== null && ! $row->has($member)) {
                $row->refuse('', 'missing-member', "The member '{$member}' is missing.");
            }
        }
        if ($kind === Kind::Records && $row->has('accumulation')) {
            $row->refuse('accumulation', 'not-allowed', 'How a counted KPI becomes a longer span follows from what is taken.');
        }
        if (($kind === Kind::Entered || $kind === Kind::Records) && $row->text('formula') !== null) {
            $row->refuse('formula', 'not-allowed', 'Only a formula KPI has a formula.');
        }
        if ($kind === Kind::Entered && $accumulation === Accumulation::Recompute) {
            $row->refuse('accumulation', 'not-allowed', "Only a formula KPI is gathered by 'recompute'.");
        }
        if ($kind === Kind::Formula && $row->text('formula') === null) {
            $row->refuse($row->has('formula') ? 'formula' : '', 'missing-member', 'The formula is missing.');
        }
    }

    /** The set that a KPI is counted from. */
    private function records(Row $row): ?RecordSet
    {
        $counted = $row->row('counted');
        if ($counted === null) {
            $row->refuse($row->has('counted') ? 'counted' : '', 'missing-member', 'How it is counted is missing.');

            return null;
        }
        $code = $counted->text('records');
        $set = $code === null ? null : $this->sets->set($code);
        if ($code !== null && $set === null) {
            $counted->refuse('records', 'unknown-records', "There is no record set '{$code}'.");
        }

        return $set;
    }

    /** @return list<string> the parts that are typed and add up to it */
    private function parts(Row $row): array
    {
        $parts = [];
        foreach ($row->texts('parts') as $at => $part) {
            $part = trim($part);
            if (in_array($part, $parts, true)) {
                $row->refuse("parts/{$at}", 'duplicate', "There is a part '{$part}' already.");
            }
            $parts[] = $part;
        }

        return $parts;
    }

    private function checkNames(Row $row, ?string $code): void
    {
        // People and spreadsheets do not tell codes apart by their case, and a figure must not go to the wrong KPI.
        $same = $code === null ? null : $this->codes[strtolower($code)] ?? null;
        $this->codes[strtolower((string) $code)] ??= (string) $code;
        if ($same !== null) {
            $row->refuse('code', 'duplicate', "The KPI '{$same}' is defined already.");
        }
        $name = $row->text('name');
        if ($name === null || $code === null) {
            return;
        }
        $other = $this->names[mb_strtolower($name)] ?? null;
        if ($other !== null && $other !== $code) {
            $row->refuse('name', 'duplicate', "'{$name}' is the name of the KPI '{$other}' already.");
        }
        $this->names[mb_strtolower($name)] = $code;
    }

    /** @param  \Closure(string): Formula  $parse */
    private static function formula(Row $row, string $member, \Closure $parse): ?Formula
    {
        try {
            return $row->text($member) === null ? null : $parse($row->text($member));
        } catch (FormulaProblem $problem) {
            $row->refuse($member, 'formula', $problem->getMessage());

            return null;
        }
    }

    /** What the targets are worked out by: of a band two formulas, otherwise one. */
    private static function targetFormula(Row $row, ?Polarity $polarity): ?TargetFormula
    {
        $isBand = $polarity === Polarity::Band;
        foreach ($polarity === null ? [] : self::targetMembers(! $isBand) as $member) {
            if ($row->text($member) !== null) {
                $row->refuse($member, 'not-allowed', $isBand ? 'A band has a low and a high target, each with its formula.' : 'Only a band has this.');
            }
        }
        $formulas = [];
        $members = self::targetMembers($isBand);
        foreach ($members as $at => $member) {
            $formulas[] = self::formula($row, $member, Formula::ofTarget(...));
            $other = $members[1 - $at] ?? $member;
            if ($row->text($member) === null && $row->text($other) !== null) {
                $row->refuse($row->has($member) ? $member : '', 'missing-member', 'A band needs the formulas of both its targets.');
            }
        }

        return $formulas[0] === null || ($isBand && ($formulas[1] ?? null) === null) ? null : new TargetFormula($formulas[0], $formulas[1] ?? null);
    }

    /** @return list<string> */
    private static function targetMembers(bool $isBand): array
    {
        return $isBand ? ['lowFormula', 'highFormula'] : ['targetFormula'];
    }

    private function readPlace(KpiDraft $kpi, Row $row, ?Polarity $polarity, ?Accumulation $accumulation): void
    {
        $unit = $row->text('unit');
        [$from, $to] = [$row->month('from'), $row->month('to')];
        if ($unit !== null && ! $this->units->knows($unit)) {
            $row->refuse('unit', 'unknown-unit', "There is no unit '{$unit}'.");
        }
        if ($unit !== null && isset($kpi->units[$unit])) {
            $row->refuse('unit', 'duplicate', "The KPI is measured in '{$unit}' already.");
        }
        if ($from !== null && $to !== null && $to->compareTo($from) < 0) {
            $row->refuse('to', 'limits', "The last month cannot be before {$from->key()}.");
        }
        if ($kpi->definition->kind === Kind::Judged) {
            foreach ($row->rows('rules') as $rule) {
                $rule->refuse('', 'not-allowed', 'A judged KPI has no rule sets: a person gives the colour.');
            }
            if ($row->flag('gathered')) {
                $row->refuse('gathered', 'not-allowed', 'Colours that people give are not gathered over units.');
            }
        } elseif ($row->flag('gathered') && $kpi->definition->gathering === null) {
            $row->refuse('gathered', 'not-allowed', "The KPI does not say how it is gathered over units: 'gather' is missing.");
        }
        $rules = $kpi->definition->kind === Kind::Judged ? [] : RulesReader::read($row->rows('rules'), $polarity, $accumulation);
        if ($unit !== null && ! isset($kpi->units[$unit])) {
            $kpi->units[$unit] = new MeasurementDraft(
                $unit,
                $row->number('weight') ?? BigDecimal::one(),
                $row->integer('position'),
                $row->text('owner'),
                new Tenure($from, $to),
                $row->flag('gathered'),
                $this->baseline($row->row('baseline'), $kpi->definition->frequency),
                $rules,
            );
        }
    }

    /** @return list<Period>|null */
    private function baseline(?Row $row, Frequency $frequency): ?array
    {
        if ($row === null) {
            return null;
        }
        $ends = [];
        foreach (['from', 'to'] as $member) {
            $text = $row->text($member);
            try {
                $ends[] = $text === null ? null : Period::parse($text, $frequency);
            } catch (InvalidArgumentException $problem) {
                $row->refuse($member, 'period', $problem->getMessage());
                $ends[] = null;
            }
        }
        [$from, $to] = $ends;
        if ($from !== null && $to !== null && $to->compareTo($from) <= 0) {
            $row->refuse('to', 'limits', 'A baseline needs at least two periods.');
        }

        return $from === null || $to === null ? null : $from->to($to);
    }

    /** @return array<string, Formula> by the member that holds it */
    private function formulas(KpiDraft $kpi): array
    {
        return ($kpi->definition->formula === null ? [] : ['formula' => $kpi->definition->formula]) + $this->targetFormulas($kpi);
    }

    /** @return array<string, Formula> by the member that holds it */
    private function targetFormulas(KpiDraft $kpi): array
    {
        $aim = $kpi->definition->targetFormula;

        return $aim === null ? [] : array_combine(self::targetMembers($aim->isBand()), $aim->formulas());
    }

    private function checkOperands(KpiDraft $kpi, string $member, Formula $formula): void
    {
        foreach ($formula->operands as $operand) {
            $other = $this->kpis[$operand->code] ?? null;
            $problem = match (true) {
                $other === null => ['unknown-kpi', "There is no KPI '{$operand->code}'."],
                $other->definition->kind === Kind::Judged => ['operand', "'{$operand->code}' is judged and has no number."],
                $other->definition->frequency !== $kpi->definition->frequency => ['operand', "'{$operand->code}' is measured by the {$other->definition->frequency->value}, not by the {$kpi->definition->frequency->value}."],
                $operand->of === OperandOf::Below && $other->definition->gathering === null => ['operand', "'{$operand->code}' does not say how it is gathered over units."],
                $operand->of === OperandOf::Target && $other->definition->polarity === Polarity::Band => ['operand', "'{$operand->code}' aims at a band and has no single target."],
                default => null,
            };
            if ($problem !== null) {
                $kpi->row->refuse($member, $problem[0], $problem[1], $operand->code);
            }
        }
    }

    /**
     * The KPIs whose targets the targets of a KPI are made of.
     *
     * @return array<string, string> the member that names it, by code
     */
    private function aimedBy(KpiDraft $kpi): array
    {
        $codes = [];
        foreach ($this->targetFormulas($kpi) as $member => $formula) {
            foreach ($formula->operands as $operand) {
                if ($operand->of === OperandOf::Target) {
                    $codes[$operand->code] ??= $member;
                }
            }
        }

        return $codes;
    }

    private function checkGathering(KpiDraft $kpi): void
    {
        $method = $kpi->definition->gathering;
        $weight = $kpi->definition->weightedBy;
        $row = $kpi->row->row('gather');
        if ($row === null || $method === null) {
            return;
        }
        $other = $weight === null ? null : $this->kpis[$weight] ?? null;
        match (true) {
            $method !== Gathering::Weighted && $weight !== null => $row->refuse('weight', 'not-allowed', 'Only a weighted mean has a weighting KPI.'),
            $method === Gathering::Weighted && $weight === null => $row->refuse('', 'missing-member', 'The weighting KPI is missing.'),
            $weight !== null && $other === null => $row->refuse('weight', 'unknown-kpi', "There is no KPI '{$weight}'."),
            $other !== null && ($other->definition->kind === Kind::Judged || $other->definition->frequency !== $kpi->definition->frequency) => $row->refuse('weight', 'operand', "'{$weight}' has no number for each {$kpi->definition->frequency->value}."),
            $method === Gathering::Recompute && $kpi->definition->kind !== Kind::Formula => $row->refuse('method', 'not-allowed', 'Only a formula KPI is recomputed.'),
            default => null,
        };
    }

    /** @param  \Closure(KpiDraft): array<string, string>  $next  the member that names it, by code */
    private function refuseCycles(\Closure $next, string $words): void
    {
        $done = [];
        foreach ($this->kpis as $kpi) {
            $this->follow($kpi->code, [], $done, $next, $words);
        }
    }

    /**
     * @param  list<string>  $path
     * @param  array<string, true>  $done
     * @param  \Closure(KpiDraft): array<string, string>  $next
     */
    private function follow(string $code, array $path, array &$done, \Closure $next, string $words): void
    {
        $kpi = $this->kpis[$code] ?? null;
        $start = array_search($code, $path, true);
        if ($kpi === null || ($start === false && isset($done[$code]))) {
            return;
        }
        if ($start !== false) {
            $circle = [...array_slice($path, $start), $code];
            $kpi->row->refuse($next($kpi)[$circle[1]], 'cycle', "{$words}: ".implode(' > ', $circle).'.', $circle[1]);

            return;
        }
        foreach (array_map(strval(...), array_keys($next($kpi))) as $other) {
            $this->follow($other, [...$path, $code], $done, $next, $words);
        }
        $done[$code] = true;
    }
}
