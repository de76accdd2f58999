<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Figures\CountedText;
use App\Figures\MeasurementStore;
use App\Models\Measurement as Place;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Rights;
use App\Records\KeptSet;
use App\Records\RecordQuery;
use App\Records\RecordSets;
use App\Sources\Views\CountPreview;
use App\Sources\Views\PreviewMonth;
use App\Sources\Views\PreviewPart;
use App\Sources\Views\PreviewSplit;
use App\Support\NumberSetting;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Workbook\CountedReader;
use Kybernet\Core\Workbook\Problems;
use Kybernet\Core\Workbook\Row;

/**
 * What a KPI would be, while somebody says how it is counted: the last thirteen periods, which records that leaves out, and
 * the records themselves.
 */
final readonly class CountPreviewer
{
    private const PERIODS = 13;

    private const ROWS = 6;

    private const MOST_FIELDS = 6;

    private const PARTS = 8;

    public function __construct(
        private Connection $database,
        private RecordSets $sets,
        private CountedRows $rows,
        private MeasurementStore $kpis,
        private Scorecard $scorecard,
        private Rights $rights,
    ) {}

    /**
     * @param  array<array-key, mixed>  $typed  as the editor sends it
     * @param  array<array-key, mixed>  $splits  likewise
     *
     * @throws ValidationException with what is not said yet, or said wrongly, by place
     */
    public function read(array $typed, array $splits, string $kpi, Unit $unit, Period $month, Frequency $frequency, int $decimals, User $user): CountPreview
    {
        $set = is_string($typed['records'] ?? null) ? $this->sets->byCode($typed['records']) : null;
        if ($set === null || ! $this->rights->analyses($user, $set->unitId)) {
            throw ValidationException::withMessages(['counted.records' => 'Choose the records that are counted.']);
        }
        $counted = $this->counted($typed, $set, new NumberSetting($user->locale));
        $year = $this->scorecard->year;
        $periods = $this->scorecard->timeline->upTo($this->scorecard->timeline->latest($frequency, $month), self::PERIODS);
        $latest = $periods[count($periods) - 1];
        $names = $counted->unit === null ? null : $this->rows->names($set->set(), [$unit->id])[$unit->id];
        $members = $names === null ? null : [0 => $names];
        $figures = $this->rows->tried($counted, $set, $frequency, $periods, $names);
        [$fields, $records] = $this->records($counted, $set, $year->days($latest), $members);
        [$leftOut, $empty] = $this->leftOut($counted, $set, $year->days($latest), $members);
        [$unknown, $known, $all] = $this->names($counted, $set);

        return new CountPreview($this->months($periods, $figures, $kpi, $unit, $month, $decimals), $leftOut, $empty, $fields, $records, $this->splits($splits, $counted, $set, $year->days($latest), $names, new NumberSetting($user->locale)), $unknown, $known, $all);
    }

    /**
     * @param  array<array-key, mixed>  $typed
     * @param  array{int, int}  $days
     * @param  list<string>|null  $names
     * @return list<PreviewSplit>
     */
    private function splits(array $typed, Counted $counted, KeptSet $set, array $days, ?array $names, NumberSetting $setting): array
    {
        // What is said wrongly is told where it is saved; here it only shows no parts yet.
        $wrong = [];
        $text = $this->text($set, $setting, $wrong);
        $isSaid = fn (mixed $member): bool => $member !== null && $member !== '' && $member !== [];
        $members = $text->splits(array_map(fn (array $split): array => array_filter($split, $isSaid), array_values(array_filter($typed, is_array(...)))));
        $previews = [];
        foreach (CountedReader::splits(new Row(['splits' => $members], '', new Problems), $set->set()) as $split) {
            $parts = array_map(fn (array $part): PreviewPart => new PreviewPart($part[0], $part[1]->records), $this->rows->tally($set)->parts($counted, $split, [$days], $names, $this->rows->codes($set->set())));
            usort($parts, fn (PreviewPart $one, PreviewPart $other): int => [$other->records, $one->part === null, $one->part] <=> [$one->records, $other->part === null, $other->part]);
            $previews[] = new PreviewSplit($split->code, array_slice($parts, 0, self::PARTS));
        }

        return $previews;
    }

    /** @param  array<string, string>  $wrong  what is no figure, by place */
    private function text(KeptSet $set, NumberSetting $setting, array &$wrong): CountedText
    {
        return new CountedText($set->set(), function (string $place, string $figure) use ($setting, &$wrong): string {
            try {
                return (string) $setting->read($figure)?->stripTrailingZeros();
            } catch (InvalidArgumentException $problem) {
                $wrong[$place] = $problem->getMessage();

                return $figure;
            }
        });
    }

    /** @param  array<array-key, mixed>  $typed */
    private function counted(array $typed, KeptSet $set, NumberSetting $setting): Counted
    {
        $wrong = [];
        $text = $this->text($set, $setting, $wrong);
        $members = $text->counted(array_filter($typed, fn (mixed $member): bool => $member !== null && $member !== '' && $member !== []));
        $problems = new Problems;
        $counted = CountedReader::read(new Row($members, '/counted', $problems), $set->set());
        foreach ($problems->all() as $problem) {
            $wrong[str_replace('/', '.', ltrim($problem->pointer, '/'))] ??= $problem->message;
        }
        if ($wrong !== [] || $counted === null) {
            throw ValidationException::withMessages($wrong === [] ? ['counted.take' => 'What is taken of the records?'] : $wrong);
        }

        return $counted;
    }

    /**
     * @param  list<Period>  $periods
     * @return list<PreviewMonth>
     */
    private function months(array $periods, RecordFigures $figures, string $kpi, Unit $unit, Period $month, int $decimals): array
    {
        $place = Place::query()->whereRelation('kpi', 'code', $kpi)->where('unit_id', $unit->id)->first();
        $standing = $place === null ? null : $this->kpis->one($place->id, $month->plus(-self::PERIODS - 12), $this->scorecard->year->months($month)[11])?->measurement;
        $standing = $standing?->definition->frequency === $figures->frequency ? $standing : null;
        $measured = $standing?->with($figures, $standing->targets);
        $shown = fn (?Exact $figure): ?string => $figure === null ? null : (string) $figure->rounded(max(0, $decimals));
        $before = $standing?->actuals;

        return array_map(fn (Period $period): PreviewMonth => new PreviewMonth(
            $period->key(),
            $shown($figures->figure($period)),
            $figures->counts->in($period)->records,
            $figures->counts->in($period)->met,
            $measured === null ? 'not-judged' : $this->scorecard->periodStatus($measured, $period)->value,
            $shown($before instanceof RecordFigures ? $before->byHand->figure($period) : $before?->figure($period)),
            $shown($measured?->targets->goal($period)?->target),
        ), $periods);
    }

    /**
     * @param  array{int, int}  $days
     * @param  array<int, list<string>>|null  $members
     * @return array{list<string>, list<list<string|null>>}
     */
    private function records(Counted $counted, KeptSet $set, array $days, ?array $members): array
    {
        $query = new RecordQuery($set->set(), $counted, $set->table, $this->rows->zone(), [[$days]], $members);
        $fields = array_values(array_filter(array_keys($set->set()->fields), fn (string $field): bool => ! in_array($field, $set->sensitive(), true)));
        // The key, then what the sentence speaks of, then the rest.
        $spoken = array_merge([$set->entry->key], array_map(fn ($condition): string => $condition->comparisons[0]->source->text, [...$counted->where, ...$counted->met]), array_filter([$counted->unit, $counted->datedBy, $counted->until], is_string(...)), ...array_map(fn (Source $source): array => $source->expression?->names() ?? [], self::sources($counted)));
        $fields = array_slice(array_values(array_unique([...array_intersect($spoken, $fields), ...$fields])), 0, self::MOST_FIELDS);
        $value = self::sources($counted)[0] ?? null;
        $columns = [...array_map(fn (string $field): string => $query->shown($set->set()->source($field)).'::text', $fields), $value === null ? 'NULL' : $query->shown($value).'::text'];
        $order = $value === null ? $query->shown($set->set()->source($counted->datedBy)) : $query->shown($value);
        $found = $this->database->select('SELECT '.implode(', ', array_map(fn (string $column, int $at): string => "{$column} AS v{$at}", $columns, array_keys($columns)))." FROM {$query->counting()} ORDER BY {$order} DESC NULLS LAST LIMIT ".self::ROWS, $query->bindings());
        $rows = [];
        foreach ($found as $row) {
            $rows[] = array_map(fn (mixed $text, int $at): ?string => match (true) {
                ! is_string($text) => null,
                ($set->set()->fields[$fields[$at] ?? ''] ?? null) === FieldType::YesNo => Source::text($text === 'true'),
                default => $text,
            }, array_values(is_object($row) ? get_object_vars($row) : []), array_keys($columns));
        }

        return [[...$fields, $value->text ?? ''], $rows];
    }

    /** @return list<Source> whose values stand beside the records: what is taken, or what a share is of */
    private static function sources(Counted $counted): array
    {
        return match (true) {
            $counted->of !== null => [$counted->of],
            $counted->take === Take::Share => array_map(fn ($condition): Source => $condition->comparisons[0]->source, $counted->met),
            default => [],
        };
    }

    /**
     * @param  array{int, int}  $days
     * @param  array<int, list<string>>|null  $members
     * @return array{list<int>, int} by condition, and how many have no value
     */
    private function leftOut(Counted $counted, KeptSet $set, array $days, ?array $members): array
    {
        [$sql, $bindings] = (new RecordQuery($set->set(), $counted, $set->table, $this->rows->zone(), [[$days]], $members))->failures();
        $leftOut = array_fill(0, count($counted->where), 0);
        $empty = 0;
        foreach ($this->database->select($sql, $bindings) as $row) {
            if (is_object($row) && is_int($row->failed ?? null) && is_int($row->records ?? null)) {
                if ($row->failed > 0) {
                    $leftOut[$row->failed - 1] = $row->records;
                } elseif ($row->failed < 0) {
                    $empty = $row->records;
                }
            }
        }

        return [array_values($leftOut), $empty];
    }

    /** @return array{string|null, int, int} the most frequent name that is no unit, how many are units, and how many there are */
    private function names(Counted $counted, KeptSet $set): array
    {
        if ($counted->unit === null) {
            return [null, 0, 0];
        }
        $column = $set->table->columns[$counted->unit];
        $codes = $this->rows->codes($set->set());
        $unknown = null;
        $known = $all = 0;
        foreach ($this->database->select("SELECT {$column} AS name FROM {$set->table->name} WHERE {$column} IS NOT NULL GROUP BY 1 ORDER BY count(*) DESC, 1 LIMIT 1000") as $row) {
            $name = is_object($row) && is_string($row->name ?? null) ? $row->name : '';
            $all++;
            if (isset($codes[$name])) {
                $known++;
            } else {
                $unknown ??= $name;
            }
        }

        return [$unknown, $known, $all];
    }
}
