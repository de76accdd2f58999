<?php

declare(strict_types=1);

namespace App\Views;

use Kybernet\Core\Status\Course;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Course', description: "Where figures lie on the KPI's own limits: 0 is that of green, 1 that of amber; below 0 is on course.")]
final readonly class CourseView
{
    public function __construct(
        #[OA\Property] public ?float $now,
        #[OA\Property(description: 'the same span as of the month before')] public ?float $before,
        #[OA\Property(description: "last year's figure")] public ?float $prior,
        #[OA\Property(description: 'the target, where the KPI is held against it')] public ?float $target,
    ) {}

    public static function of(?Course $course): ?self
    {
        return $course === null ? null : new self($course->now, $course->before, $course->prior, $course->target);
    }
}
