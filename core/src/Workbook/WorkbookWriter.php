<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\TargetFormula;
use Kybernet\Core\Records\Band;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Status\BandLimits;
use Kybernet\Core\Status\Pace;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RollUpMethod;
use Kybernet\Core\Status\RollUpRule;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Status\Status;

/**
 * Writes a workbook as JSON, an item a line, leaving out what is empty or has the default. The same workbook gives the
 * same bytes.
 *
 * @phpstan-type Members array<string, mixed>
 */
final class WorkbookWriter
{
    /** @return iterable<string> the JSON text in pieces */
    public static function json(Workbook $workbook): iterable
    {
        $zone = $workbook->timeZone === 'UTC' ? '' : ',"timeZone":'.json_encode($workbook->timeZone, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);
        yield '{"format":"kybernet-workbook","version":1,"calendar":{"yearStartMonth":'.$workbook->year->startMonth.$zone.'}';
        $parts = [
            'people' => array_map(self::person(...), $workbook->people),
            'units' => array_map(self::unit(...), $workbook->units),
            'objectives' => array_map(fn (string $code, string $name): array => ['code' => $code, 'name' => $name], array_keys($workbook->objectives), $workbook->objectives),
            'themes' => $workbook->themes,
            'recordSets' => $workbook->recordSets,
            'kpis' => array_map(self::kpi(...), $workbook->kpis),
            'readings' => self::readings($workbook),
            'targets' => self::targets($workbook),
            'calls' => self::calls($workbook),
            'actions' => self::actions($workbook),
            'closings' => self::closings($workbook),
        ];
        foreach ($parts as $name => $items) {
            $isEmpty = true;
            foreach ($items as $item) {
                yield $isEmpty ? ",\n\"{$name}\":[\n" : ",\n";
                if ($item instanceof RecordSetEntry) {
                    yield from self::recordSet($item);
                } else {
                    yield self::encoded($item);
                }
                $isEmpty = false;
            }
            yield $isEmpty ? '' : "\n]";
        }
        yield "}\n";
    }

    /** @return Members */
    private static function person(PersonEntry $person): array
    {
        return self::compact(['email' => $person->email, 'name' => $person->name, 'role' => $person->role, 'unit' => $person->unit, 'locale' => $person->locale, 'blocked' => $person->isBlocked ? true : null, 'further' => $person->further === [] ? null : array_map(self::compact(...), $person->further)]);
    }

    /** @return Members */
    private static function unit(UnitEntry $unit): array
    {
        return self::compact([
            'code' => $unit->code,
            'name' => $unit->name,
            'kind' => $unit->kind,
            'parent' => $unit->parent,
            'weight' => self::weight($unit->weight),
            'rollUp' => self::rollUp($unit->rollUp),
        ]);
    }

    /** @return Members|null null for the default */
    private static function rollUp(RollUpMethod $method): ?array
    {
        $default = RollUpMethod::weighted();

        return match (true) {
            $method->rule === RollUpRule::Worst => ['method' => 'worst'],
            $method->rule === RollUpRule::Share => ['method' => 'share', 'red' => self::text($method->amberOrRed), 'green' => self::text($method->green)],
            $method->green->isEqualTo($default->green) && $method->amberOrRed->isEqualTo($default->amberOrRed) => null,
            default => ['method' => 'weighted', 'green' => self::text($method->green), 'amber' => self::text($method->amberOrRed)],
        };
    }

    /** @return Members */
    public static function kpi(KpiEntry $kpi): array
    {
        $definition = $kpi->definition;
        $isJudged = $definition->kind === Kind::Judged;

        return self::compact([
            'code' => $kpi->code,
            'name' => $kpi->name,
            'purpose' => $kpi->purpose,
            'kind' => $definition->kind->value,
            'measure' => $isJudged ? null : $definition->measure,
            'decimals' => $definition->decimals === 0 ? null : $definition->decimals,
            'scale' => $kpi->isScaled ? 'auto' : null,
            'polarity' => $isJudged ? null : $definition->polarity->value,
            'frequency' => $definition->frequency->value,
            'accumulation' => $definition->kind === Kind::Records ? null : $definition->accumulation->value,
            'formula' => $definition->formula?->text,
            'counted' => $definition->counted === null ? null : self::counted($definition->counted),
            'splits' => array_map(self::split(...), $kpi->splits),
            'parts' => $kpi->parts,
            ...self::targetFormula($definition->targetFormula),
            'level' => $kpi->level,
            'department' => $kpi->department,
            'theme' => $kpi->theme,
            'objective' => $kpi->objective,
            'source' => $kpi->sourcing->source,
            'dueDay' => $kpi->sourcing->dueDay,
            'dataAvailable' => $kpi->sourcing->isAvailable ? true : null,
            'definitionAgreed' => $kpi->sourcing->isAgreed ? true : null,
            'noteRequired' => $kpi->sourcing->needsNote ? true : null,
            'drivers' => $kpi->drivers,
            'texts' => $kpi->texts,
            'min' => self::text($definition->min),
            'max' => self::text($definition->max),
            'materiality' => $definition->materiality?->isZero() === false ? self::text($definition->materiality) : null,
            'gather' => $definition->gathering === null ? null : self::compact(['method' => $definition->gathering->value, 'weight' => $definition->weightedBy]),
            'units' => array_map(self::kpiUnit(...), $kpi->units),
            'rules' => array_map(self::rule(...), $definition->rules),
        ]);
    }

    /** @return iterable<string> in pieces: records may be many */
    private static function recordSet(RecordSetEntry $entry): iterable
    {
        $set = $entry->set;
        $field = fn (string $name, string $kind, string $value): array => self::compact(['name' => $name, $kind => $value, 'meaning' => $entry->meanings[$name] ?? null, 'sensitive' => in_array($name, $entry->sensitive, true) ? true : null]);
        $fields = array_keys($set->fields);

        $head = self::encoded(self::compact([
            'code' => $set->code,
            'name' => $entry->name,
            'key' => $entry->key,
            'covers' => self::compact(['from' => $set->coverage->from?->key(), 'to' => $set->coverage->to?->key()]),
            'fields' => [
                ...array_map(fn (string $name, FieldType $type): array => $field($name, 'type', $type->value), $fields, $set->fields),
                ...array_map(fn (string $name, Expression $expression): array => $field($name, 'expression', $expression->text), array_keys($set->calculated), $set->calculated),
            ],
            'unitNames' => $set->unitNames === [] ? null : (object) $set->unitNames,
        ]));
        $plain = function () use ($set, $fields): iterable {
            foreach ($set->records as $record) {
                yield array_map(function (string $name) use ($record): string|bool|null {
                    $value = $record[$name] ?? null;

                    return $value instanceof Day || $value instanceof Instant ? $value->key() : $value;
                }, $fields);
            }
        };
        $isEmpty = true;
        foreach ($entry->rows === null ? $plain() : ($entry->rows)() as $row) {
            yield ($isEmpty ? substr($head, 0, -1).",\"rows\":[\n" : ",\n").self::encoded($row);
            $isEmpty = false;
        }
        yield $isEmpty ? $head : "\n]}";
    }

    private static function encoded(mixed $item): string
    {
        return json_encode($item, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }

    /**
     * How a KPI is counted, as a workbook has it.
     *
     * @return Members
     */
    public static function counted(Counted $counted): array
    {
        return self::compact([
            'records' => $counted->records,
            'take' => $counted->take->value,
            'of' => $counted->of?->text,
            'percentile' => self::text($counted->percentile),
            'met' => array_map(fn (Condition $condition): array => $condition->members, $counted->met),
            'datedBy' => $counted->datedBy,
            'until' => $counted->until,
            'unit' => $counted->unit,
            'where' => array_map(fn (Condition $condition): array => $condition->members, $counted->where),
            'from' => $counted->from?->key(),
        ]);
    }

    /**
     * A split as a workbook has it.
     *
     * @return Members
     */
    public static function split(Split $split): array
    {
        return self::compact([
            'code' => $split->code,
            'name' => $split->name,
            'of' => $split->of->text,
            'bands' => array_map(fn (Band $band): array => ['upTo' => self::text($band->upTo), 'name' => $band->name], $split->bands),
            // An object, also where its parts are called by numbers.
            'shares' => $split->shares === [] ? null : (object) array_map(self::text(...), $split->shares),
            'green' => self::text($split->green),
            'amber' => self::text($split->amber),
        ]);
    }

    /** @return Members */
    private static function kpiUnit(MeasurementEntry $entry): array
    {
        $placed = $entry->placed;

        return self::compact([
            'unit' => $placed->unit,
            'weight' => self::weight($entry->weight),
            'position' => $entry->position,
            'owner' => $entry->owner,
            'from' => $placed->tenure->from?->key(),
            'to' => $placed->tenure->to?->key(),
            'gathered' => $placed->isGathered ? true : null,
            'baseline' => $placed->baseline === null || $placed->baseline === []
                ? null
                : ['from' => $placed->baseline[0]->key(), 'to' => $placed->baseline[count($placed->baseline) - 1]->key()],
            'rules' => array_map(self::rule(...), $placed->ownRules),
        ]);
    }

    /** @return Members */
    public static function rule(RuleSet $rule): array
    {
        return self::compact([
            'from' => $rule->from->key(),
            'reference' => $rule->reference->value,
            'measure' => $rule->measure->value,
            ...($rule->limits instanceof BandLimits
                ? [
                    'low' => self::text($rule->limits->low),
                    'high' => self::text($rule->limits->high),
                    'marginLow' => self::text($rule->limits->marginLow),
                    'marginHigh' => self::text($rule->limits->marginHigh),
                ]
                : ['green' => self::text($rule->limits->green), 'amber' => self::text($rule->limits->amber)]),
            'stretch' => self::text($rule->stretch),
            'periods' => $rule->periods,
            'pace' => $rule->pace === Pace::Whole ? null : $rule->pace->value,
        ]);
    }

    /** @return iterable<Members> */
    private static function readings(Workbook $workbook): iterable
    {
        foreach ($workbook->entries() as $entry) {
            $placed = $entry->placed;
            $figures = $placed->readings->all();
            foreach (self::sorted([...array_keys($figures), ...array_keys($entry->notes)]) as $period) {
                $figure = $figures[$period] ?? null;
                $note = $entry->notes[$period] ?? null;
                yield self::compact([
                    'kpi' => $placed->kpi,
                    'unit' => $placed->unit,
                    'period' => $period,
                    ($placed->definition->kind === Kind::Judged ? 'status' : 'actual') => $placed->definition->kind === Kind::Judged && $figure !== null
                        ? Status::ofScore((int) $figure)->value
                        : $figure,
                    'parts' => self::parts($entry, $period),
                    'note' => $note?->text,
                    'outlook' => $note?->outlook,
                    'doing' => $note?->doing,
                    'by' => $note?->by,
                    'submitted' => $entry->submitted[$period] ?? null,
                    'asOf' => $entry->asOf[$period] ?? null,
                ]);
            }
        }
    }

    /** Those of typed parts; an object, also where parts are called by numbers. */
    private static function parts(MeasurementEntry $entry, string $period): ?object
    {
        $parts = array_filter(array_map(fn (Series $part): ?string => $part->all()[$period] ?? null, $entry->parts), is_string(...));

        return $parts === [] ? null : (object) $parts;
    }

    /** @return iterable<Members> */
    private static function targets(Workbook $workbook): iterable
    {
        foreach ($workbook->entries() as $entry) {
            $placed = $entry->placed;
            $lower = $placed->yearTargets + $placed->targets->all();
            $upper = $placed->upperYearTargets + $placed->upperTargets->all();
            foreach (self::sorted(array_keys($lower)) as $period) {
                yield [
                    'kpi' => $placed->kpi,
                    'unit' => $placed->unit,
                    'period' => $period,
                    ...($placed->definition->polarity === Polarity::Band ? ['low' => $lower[$period], 'high' => $upper[$period] ?? $lower[$period]] : ['target' => $lower[$period]]),
                ];
            }
        }
    }

    /** @return iterable<Members> */
    private static function calls(Workbook $workbook): iterable
    {
        foreach ($workbook->entries() as $entry) {
            foreach ($entry->placed->calls as $call) {
                yield self::compact([
                    'kpi' => $entry->placed->kpi,
                    'unit' => $entry->placed->unit,
                    'period' => $call->period->key(),
                    'span' => $call->span === Span::Month ? null : $call->span->value,
                    'status' => $call->status->value,
                    'reason' => $call->reason,
                    'actual' => (string) $call->over,
                    'by' => $call->by,
                ]);
            }
        }
    }

    /** @return iterable<Members> */
    private static function actions(Workbook $workbook): iterable
    {
        foreach ($workbook->entries() as $entry) {
            foreach ($entry->actions as $action) {
                yield self::compact([
                    'kpi' => $entry->placed->kpi,
                    'unit' => $entry->placed->unit,
                    'period' => $action->period->key(),
                    'what' => $action->what,
                    'who' => $action->who,
                    'due' => $action->due,
                    'state' => $action->state === 'open' ? null : $action->state,
                    'outcome' => $action->outcome,
                    'ended' => $action->ended,
                    'by' => $action->by,
                ]);
            }
        }
    }

    /** @return iterable<Members> */
    private static function closings(Workbook $workbook): iterable
    {
        foreach ($workbook->closings as $unit => $months) {
            foreach (self::sorted($months) as $month) {
                yield ['unit' => $unit, 'period' => $month];
            }
        }
    }

    /** @return Members */
    private static function targetFormula(?TargetFormula $formula): array
    {
        return $formula?->upper === null
            ? ['targetFormula' => $formula?->line->text]
            : ['lowFormula' => $formula->line->text, 'highFormula' => $formula->upper->text];
    }

    /**
     * @param  array<string, mixed>  $members
     * @return Members without those that are null or empty
     */
    private static function compact(array $members): array
    {
        return array_filter($members, fn (mixed $member): bool => $member !== null && $member !== [] && $member !== '');
    }

    /** @return int|float|null null for the default */
    private static function weight(BigDecimal $weight): int|float|null
    {
        return match (true) {
            $weight->isEqualTo(1) => null,
            $weight->hasNonZeroFractionalPart() => $weight->toFloat(),
            default => $weight->toBigInteger()->toInt(),
        };
    }

    private static function text(?BigDecimal $figure): ?string
    {
        return $figure === null ? null : (string) $figure;
    }

    /**
     * @param  list<string>  $periods
     * @return list<string> each once, by time within a frequency
     */
    private static function sorted(array $periods): array
    {
        $periods = array_values(array_unique($periods));
        sort($periods, SORT_STRING);

        return $periods;
    }
}
