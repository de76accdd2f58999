<?php

declare(strict_types=1);

namespace App\Register\Views;

use App\Register\StarterKpi;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Polarity;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Starter', description: 'A common measure to begin with.')]
final readonly class StarterView
{
    /**
     * @param  list<string>  $needs
     * @param  array<string, string>|null  $rule
     */
    private function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'what it is about')] public string $function,
        #[OA\Property] public string $purpose,
        #[OA\Property] public string $measure,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(enum: Accumulation::class)] public string $accumulation,
        #[OA\Property(description: 'blank where its figures are entered')] public string $formula,
        #[OA\Property(type: 'object', nullable: true, description: 'limits as a workbook has them; null where it is not judged', additionalProperties: new OA\AdditionalProperties(type: 'string'))] public ?array $rule,
        #[OA\Property(description: 'whether the limits are common practice')] public bool $practice,
        #[OA\Property(description: 'where its definition is published; blank for the trade’s common knowledge')] public string $publishedBy,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'codes of those that come with it')] public array $needs,
        #[OA\Property(description: 'whether the code is in the register already')] public bool $taken,
    ) {}

    public static function of(StarterKpi $starter, string $currency, bool $isTaken): self
    {
        return new self(
            $starter->code, $starter->name, $starter->function, $starter->purpose, $starter->measure === 'money' ? $currency : $starter->measure, $starter->polarity, $starter->accumulation,
            $starter->formula, $starter->rule, $starter->isPractice, $starter->publishedBy, $starter->needs, $isTaken,
        );
    }
}
