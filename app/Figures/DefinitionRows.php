<?php

declare(strict_types=1);

namespace App\Figures;

use App\Records\RecordSets;
use App\Support\Month;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\Gathering;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Operand;
use Kybernet\Core\Measure\TargetFormula;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Pace;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\CountedReader;
use Kybernet\Core\Workbook\Problems;
use Kybernet\Core\Workbook\Row;
use stdClass;

/**
 * From rows of KPIs and rule sets to what the core judges by.
 */
final readonly class DefinitionRows
{
    public function __construct(private Connection $database, private RecordSets $sets) {}

    /**
     * @param  list<int>  $kpis
     * @return array{kpi: array<int, list<stdClass>>, unit: array<int, list<stdClass>>} by KPI, and by measurement those of one unit
     */
    public function rules(array $kpis): array
    {
        $rules = ['kpi' => [], 'unit' => []];
        foreach ($this->database->table('rule_sets')->whereIn('kpi_id', $kpis)->orderBy('valid_from')->get() as $rule) {
            if ($rule->kpi_unit_id === null) {
                $rules['kpi'][$rule->kpi_id][] = $rule;
            } else {
                $rules['unit'][$rule->kpi_unit_id][] = $rule;
            }
        }

        return $rules;
    }

    /**
     * The KPIs that a KPI's figures or targets are worked out from.
     *
     * @return list<Operand>
     */
    public static function operands(stdClass $row): array
    {
        $formulas = array_filter([self::formula($row->formula, Formula::parse(...)), ...self::targetFormula($row)?->formulas() ?? []]);

        return array_merge(...array_map(fn (Formula $formula): array => array_values($formula->operands), array_values($formulas)));
    }

    /** @param  list<stdClass>  $rules */
    public function definition(stdClass $row, array $rules): Definition
    {
        $plain = new Definition(
            $row->measure,
            max(0, $row->decimals),
            Polarity::from($row->polarity),
            Accumulation::from($row->accumulation),
            [],
            Kind::from($row->kind),
            Frequency::from($row->frequency),
            self::figure($row->min),
            self::figure($row->max),
            self::figure($row->materiality),
            self::formula($row->formula, Formula::parse(...)),
            $row->gathering === null ? null : Gathering::from($row->gathering),
            $row->weighted_by,
            self::targetFormula($row),
            $this->counted($row),
        );

        return $plain->withRules($this->ruleSets($plain, $rules));
    }

    /** @return list<string> parts that are typed and add up to it */
    public static function parts(stdClass $row): array
    {
        $parts = $row->parts === null ? [] : json_decode($row->parts, true, flags: JSON_THROW_ON_ERROR);

        return is_array($parts) ? array_values(array_filter($parts, is_string(...))) : [];
    }

    /** @return list<Split> */
    public function splits(stdClass $row): array
    {
        $set = $this->set($row);

        return $set === null || $row->splits === null ? [] : CountedReader::splits(new Row(['splits' => json_decode($row->splits, true, flags: JSON_THROW_ON_ERROR)], '', new Problems), $set);
    }

    private function counted(stdClass $row): ?Counted
    {
        $set = $this->set($row);

        return $set === null ? null : CountedReader::read(new Row(json_decode($row->counted, true, flags: JSON_THROW_ON_ERROR), '', new Problems), $set);
    }

    private function set(stdClass $row): ?RecordSet
    {
        return $row->kind === Kind::Records->value ? $this->sets->of($row->record_set_id)->set() : null;
    }

    /**
     * @param  list<stdClass>  $rules
     * @return list<RuleSet>
     */
    public function ruleSets(Definition $definition, array $rules): array
    {
        // A KPI that was judged once and is only tracked now keeps its rule sets, unused.
        return $definition->polarity === Polarity::None ? [] : array_map(fn (stdClass $rule): RuleSet => $rule->margin_low === null
            ? RuleSet::define(
                $definition->polarity,
                $definition->accumulation,
                Month::ofDate($rule->valid_from),
                Reference::from($rule->reference),
                Deviation::from($rule->measure),
                self::exactly($rule->green),
                self::exactly($rule->amber),
                $rule->periods,
                self::figure($rule->stretch),
                $rule->pace === null ? null : Pace::from($rule->pace),
            )
            : RuleSet::defineBand(
                Month::ofDate($rule->valid_from),
                self::exactly($rule->green),
                self::exactly($rule->amber),
                self::exactly($rule->margin_low),
                self::exactly($rule->margin_high),
            ), $rules);
    }

    /** @param  \Closure(string): Formula  $parse */
    private static function formula(mixed $text, \Closure $parse): ?Formula
    {
        return is_string($text) ? $parse($text) : null;
    }

    private static function targetFormula(stdClass $row): ?TargetFormula
    {
        $line = self::formula($row->target_formula, Formula::ofTarget(...));

        return $line === null ? null : new TargetFormula($line, self::formula($row->high_target_formula, Formula::ofTarget(...)));
    }

    private static function figure(?string $figure): ?BigDecimal
    {
        return $figure === null ? null : self::exactly($figure);
    }

    private static function exactly(string $figure): BigDecimal
    {
        return BigDecimal::of($figure)->stripTrailingZeros();
    }
}
