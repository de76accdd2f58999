<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\ActionView;
use App\Views\CourseView;
use App\Views\ExceptionReason;
use App\Views\NoteView;
use App\Views\Shown;
use App\Views\StatusSchema;
use App\Views\TrackView;
use App\Views\WakePoint;
use App\Views\ZonesView;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI that deserves attention, and why.')]
final readonly class ExceptionItem
{
    /**
     * @param  list<ExceptionReason>  $reasons
     * @param  list<WakePoint>  $wake
     * @param  list<ActionView>  $actions
     */
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property] public ?string $owner,
        #[OA\Property] public ?string $ownerEmail,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the chosen month alone')] public string $monthStatus,
        #[OA\Property] public bool $called,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property] public ?Shown $target,
        #[OA\Property] public ?Shown $prior,
        #[OA\Property] public ?ZonesView $zones,
        #[OA\Property(description: 'null where nothing is judged')] public ?CourseView $course,
        #[OA\Property(description: 'of what is only counted')] public ?TrackView $track,
        #[OA\Property(description: 'the sum × the weight, without trailing zeros')] public string $points,
        #[OA\Property] public string $weight,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ExceptionReason'))] public array $reasons,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
        #[OA\Property(description: 'the latest period, of which notes and actions are')] public string $latest,
        #[OA\Property(description: 'the day by which its reading was due, where it is missing')] public ?string $dueDay,
        #[OA\Property] public ?NoteView $note,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Action'), description: 'those still open')] public array $actions,
        #[OA\Property(description: 'this user has seen it, and nothing was added since')] public bool $seen,
        #[OA\Property(description: 'whether this user may write notes and agree actions here')] public bool $mine,
        #[OA\Property(description: 'it is counted from records')] public bool $counted,
    ) {}

    /** The same for a page that others read: whose address it is, and what its writer has seen or may do, is not theirs. */
    public function forReaders(): self
    {
        return new self(
            $this->id, $this->code, $this->name, $this->measure, $this->unit, $this->owner, null, $this->status, $this->monthStatus, $this->called, $this->actual, $this->target, $this->prior, $this->zones, $this->course,
            $this->track, $this->points, $this->weight, $this->reasons, $this->wake, $this->latest, $this->dueDay, $this->note, $this->actions, false, false, $this->counted,
        );
    }
}
