<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\StatusSchema;
use Kybernet\Core\Status\RollUp;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A row or a column of a matrix: a unit, a KPI or a month, with its roll-up.')]
final readonly class MatrixLine
{
    public function __construct(
        #[OA\Property(description: 'code of the unit or KPI, or the month')] public string $key,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(ref: StatusSchema::REF, description: 'over the cells of the line; null where a sum of them says nothing')]
        public ?string $status,
        #[OA\Property(description: 'over the cells of the line, 0 (all red) to 2 (all green): rows can be ordered by it')]
        public ?float $score,
    ) {}

    public static function of(string $key, string $name, string $measure, RollUp $over): self
    {
        return new self($key, $name, $measure, $over->status->value, $over->score);
    }
}
