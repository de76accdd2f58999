<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\PieceKind;
use App\Briefings\Views\TextPart;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementLine;
use App\Kept\AssessedSpan;
use App\Kept\AssessmentStore;
use App\Models\User;
use App\Organisation\Organisation;
use App\Review\CourseReader;
use App\Review\Views\ProjectionView;
use Kybernet\Core\Attention\LiveFigure;

/**
 * Reads texts in which figures follow the page.
 */
final readonly class TextReader
{
    public function __construct(private Places $places, private AssessmentStore $assessments, private CourseReader $courses, private Organisation $organisation) {}

    /**
     * @param  list<Place>  $places  of pieces that are texts
     * @return array<string, list<TextPart>> by piece
     */
    public function of(array $places, PageView $page, User $user): array
    {
        $texts = $spans = [];
        foreach ($places as $place) {
            $texts[$place->piece->id] = $place->piece->kind === PieceKind::Commentary ? LiveFigure::in($place->piece->text) : ($place->piece->text === '' ? [] : [$place->piece->text]);
            $spans[$place->span->value] = $place->span;
        }
        $live = array_values(array_filter(array_merge(...array_values($texts), ...[[]]), fn (string|LiveFigure $part): bool => $part instanceof LiveFigure));
        $lines = $live === [] ? [] : $this->places->figures($live, $page, $user);
        $ids = array_values(array_unique(array_map(fn (MeasurementLine $line): int => $line->id, $lines)));
        $assessed = array_map(fn ($span): array => $this->assessments->spans($ids, [$page->month], $span), $spans);
        $ends = array_values(array_unique(array_map(fn (LiveFigure $figure): int => $lines[(string) $figure]->id, array_filter($live, fn (LiveFigure $figure): bool => $figure->what === 'year end' && isset($lines[(string) $figure])))));
        $yearEnds = array_map(fn (MeasurementFacts $kpi): ?ProjectionView => in_array($kpi->id, $ends, true) ? $this->courses->projection($kpi, $page->month) : null, $this->courses->facts($ends, $page->month));
        $found = [];
        foreach ($places as $place) {
            $found[$place->piece->id] = array_map(function (string|LiveFigure $part) use ($lines, $assessed, $yearEnds, $place, $page): TextPart {
                $line = is_string($part) ? null : $lines[(string) $part] ?? null;

                return match (true) {
                    is_string($part) => new TextPart($part),
                    $line === null => new TextPart((string) $part, true, $part->what),
                    default => $this->figure($part, $line, $assessed[$place->span->value][$line->id][$page->month->key()], $yearEnds[$line->id] ?? null),
                };
            }, $texts[$place->piece->id]);
        }

        return $found;
    }

    private function figure(LiveFigure $figure, MeasurementLine $line, AssessedSpan $assessed, ?ProjectionView $yearEnd): TextPart
    {
        $ofYear = $figure->what === 'year end';

        return new TextPart(
            (string) $figure,
            true,
            $figure->what,
            $line->code,
            $this->organisation->unit($line->unitId)->code,
            $line->measure,
            $ofYear ? $yearEnd?->status : $assessed->status,
            match ($figure->what) {
                '' => $assessed->actual,
                'year end' => $yearEnd?->value,
                default => null,
            },
            match ($figure->what) {
                'to target' => $assessed->variance,
                'to last year' => $assessed->change,
                default => null,
            },
        );
    }
}
