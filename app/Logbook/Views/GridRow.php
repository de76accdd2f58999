<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use App\Views\LockSchema;
use App\Views\Shown;
use Kybernet\Core\Measure\Kind;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI in a unit across the year. The lists have an item a column.')]
final readonly class GridRow
{
    /** Colours as a grid of thousands of cells sends them. */
    public const LETTERS = ['green' => 'g', 'amber' => 'a', 'red' => 'r'];

    /**
     * @param  list<string>|null  $periods
     * @param  list<string>  $typed
     * @param  list<string>|null  $following
     * @param  list<string>  $statuses
     * @param  list<string>  $locks
     * @param  list<string>  $marks
     */
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property] public string $unit,
        #[OA\Property] public string $theme,
        #[OA\Property(enum: Kind::class)] public string $kind,
        #[OA\Property(description: 'that works it out; blank where there is none')] public string $formula,
        #[OA\Property(description: 'a colour is typed, with its reason')] public bool $asksReason,
        #[OA\Property(description: 'whether any cell of it can be typed in by this user')] public bool $mine,
        #[OA\Property(items: new OA\Items(type: 'string'), nullable: true, description: 'the period of each cell, blank where there is none; null when they are those of the columns')]
        public ?array $periods,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'as this user would type it')] public array $typed,
        #[OA\Property(items: new OA\Items(type: 'string'), nullable: true, description: 'of targets: what holds where none is set, worked out or from the figure of the year')]
        public ?array $following,
        #[OA\Property(description: 'what its targets are worked out by; blank where they are set')] public string $targetFormula,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'g, a, r, or blank')] public array $statuses,
        #[OA\Property(items: new OA\Items(ref: LockSchema::REF))] public array $locks,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'n where there is a note; p where the figure is provisional')] public array $marks,
        #[OA\Property(description: 'the year to date, or of the targets the year')] public ?Shown $total,
    ) {}
}
