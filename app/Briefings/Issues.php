<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\ChangedFigure;
use App\Briefings\Views\IssueLine;
use App\Figures\MeasurementStore;
use App\Kept\AssessmentStore;
use App\Models\Briefing;
use App\Organisation\Organisation;
use App\Support\Month;
use App\Views\Shown;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use stdClass;

/**
 * What was published of a briefing, and which of its figures are others now.
 */
final readonly class Issues
{
    public function __construct(private Connection $database, private MeasurementStore $kpis, private AssessmentStore $assessments, private Organisation $organisation) {}

    /** @return list<IssueLine> the newest first */
    public function all(Briefing $briefing): array
    {
        return array_values(array_map(Issue::line(...), $this->lines($briefing)->get()->all()));
    }

    /**
     * The latest issue of each briefing.
     *
     * @return array<int, stdClass> by briefing, with what its content is
     */
    public function latest(): array
    {
        $rows = $this->database->select('SELECT DISTINCT ON (briefing_id) briefing_id, number, period, span, published_at, users.name AS by, content, briefing_issues.name AS title
            FROM briefing_issues LEFT JOIN users ON users.id = published_by ORDER BY briefing_id, number DESC');
        $latest = [];
        foreach ($rows as $row) {
            $latest[$row->briefing_id] = $row;
        }

        return $latest;
    }

    /** That of the number; without one the latest of the month; null where there is none. */
    public function find(Briefing $briefing, ?int $number, ?Period $month): ?Issue
    {
        $row = $this->lines($briefing)->addSelect(['briefing_issues.name', 'content', 'answer', 'figures'])
            ->when($number !== null, fn (Builder $query): Builder => $query->where('number', $number))
            ->when($number === null && $month !== null, fn (Builder $query): Builder => $query->where('period', Month::date($month ?? throw new \LogicException('A month was asked for.'))))
            ->first();

        return $row === null ? null : Issue::of($row);
    }

    /**
     * What has to be kept of an issue, so that a later change is found.
     *
     * @param  array<string, list<array{string, string}>>  $shown  of {@see ShownFigures}
     * @param  array<string, Span>  $spans  by piece
     * @return list<array{code: string, name: string, unit: string, span: string, measure: string, actual: Shown|null, target: string|null, status: string}>
     */
    public function figures(array $shown, array $spans, Period $month): array
    {
        $wanted = [];
        foreach ($shown as $piece => $pairs) {
            foreach ($pairs as [$code, $unit]) {
                if ($code !== '') {
                    $wanted[$spans[$piece]->value]["{$code} {$unit}"] = true;
                }
            }
        }
        $codes = array_values(array_unique(array_map(fn (string $pair): string => explode(' ', $pair)[0], array_merge(...array_map(array_keys(...), array_values($wanted)), ...[[]]))));
        $lines = [];
        foreach ($codes === [] ? [] : $this->kpis->linesOf($codes) as $line) {
            $lines["{$line->code} {$this->organisation->unit($line->unitId)->code}"] = $line;
        }
        $figures = [];
        foreach ($wanted as $span => $pairs) {
            $those = array_intersect_key($lines, $pairs);
            $assessed = $this->assessments->spans(array_values(array_map(fn ($line): int => $line->id, $those)), [$month], Span::from($span));
            foreach ($those as $line) {
                $found = $assessed[$line->id][$month->key()];
                $figures[] = ['code' => $line->code, 'name' => $line->name, 'unit' => $this->organisation->unit($line->unitId)->code, 'span' => $span, 'measure' => $line->measure, 'actual' => $found->actual, 'target' => $found->target?->exact, 'status' => $found->status];
            }
        }

        return $figures;
    }

    /**
     * @param  list<string>  $hidden  pieces that are not for this reader
     * @return list<ChangedFigure> the figures of the issue that are others now, or judged otherwise
     */
    public function changed(Issue $issue, array $hidden): array
    {
        $month = Period::parse($issue->line->period);
        $pairs = array_fill_keys(array_map(fn (array $pair): string => "{$pair[0]} {$pair[1]}", array_merge(...array_values(array_diff_key($issue->shown, array_flip($hidden))), ...[[]])), true);
        $then = array_filter($issue->figures, fn (array $figure): bool => isset($pairs["{$figure['code']} {$figure['unit']}"]));
        $spans = [];
        $shown = [];
        foreach ($then as $figure) {
            $spans[$figure['span']] = Span::from($figure['span']);
            $shown[$figure['span']][] = [$figure['code'], $figure['unit']];
        }
        $now = [];
        foreach ($this->figures($shown, $spans, $month) as $figure) {
            $now["{$figure['code']} {$figure['unit']} {$figure['span']}"] = $figure;
        }
        $changed = [];
        foreach ($then as $figure) {
            $found = $now["{$figure['code']} {$figure['unit']} {$figure['span']}"] ?? null;
            $actual = $found['actual'] ?? null;
            $isOtherTarget = $found !== null && $found['target'] !== $figure['target'];
            if ($found === null || $actual?->exact !== ($figure['actual']['exact'] ?? null) || $isOtherTarget || $found['status'] !== $figure['status']) {
                $changed[] = new ChangedFigure($figure['code'], $figure['name'], $figure['unit'], $this->organisation->byCode($figure['unit'])->name ?? $figure['unit'], $figure['span'], $figure['measure'], $figure['actual'] === null ? null : new Shown(...$figure['actual']), $actual, $figure['status'], $found['status'] ?? 'no-data', $isOtherTarget);
            }
        }

        return $changed;
    }

    private function lines(Briefing $briefing): Builder
    {
        return $this->database->table('briefing_issues')->leftJoin('users', 'users.id', '=', 'published_by')->where('briefing_id', $briefing->id)
            ->orderByDesc('number')->select(['number', 'period', 'span', 'published_at', 'users.name AS by']);
    }
}
