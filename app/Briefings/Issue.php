<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Views\IssueLine;
use App\Support\Month;
use Carbon\CarbonImmutable;
use stdClass;

/**
 * An issue as it was published.
 *
 * @phpstan-type Kept array{code: string, name: string, unit: string, span: string, measure: string, actual: array{exact: string, digits: string, suffix: string}|null, target: string|null, status: string}
 */
final readonly class Issue
{
    /**
     * @param  list<array<string, mixed>>  $answers  what its pieces showed, as they were answered
     * @param  array<string, list<array{string, string}>>  $shown  of {@see ShownFigures}
     * @param  list<Kept>  $figures  by which a later change is found
     */
    private function __construct(public IssueLine $line, public string $name, public Content $content, public array $answers, public array $shown, public array $figures) {}

    public static function of(stdClass $row): self
    {
        /** @var array{shown: array<string, list<array{string, string}>>, figures: list<Kept>} $kept as they were written */
        $kept = json_decode($row->figures, true, flags: JSON_THROW_ON_ERROR);
        /** @var list<array<string, mixed>> $answers */
        $answers = json_decode($row->answer, true, flags: JSON_THROW_ON_ERROR);

        return new self(self::line($row), $row->name, Content::ofJson($row->content), $answers, $kept['shown'], $kept['figures']);
    }

    public static function line(stdClass $row): IssueLine
    {
        return new IssueLine($row->number, Month::ofDate($row->period)->key(), $row->span, CarbonImmutable::parse($row->published_at)->utc()->toIso8601ZuluString(), $row->by);
    }
}
