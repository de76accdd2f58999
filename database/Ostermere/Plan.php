<?php

declare(strict_types=1);

namespace Database\Ostermere;

/**
 * How one KPI of the demonstration is defined, and how its figures come about.
 *
 * A figure is the base, moved by a yearly trend, a season and chance; events then bend single months.
 */
final readonly class Plan
{
    /**
     * @param  string  $at  code of the unit that measures it, or `zones`, `works` or `meters` for each of these
     * @param  array{string, string, string}  $rule  `percent` or `level`, the green limit, the amber limit; all blank when tracked
     * @param  float  $base  the figure of an ordinary month in April 2024
     * @param  float  $trend  change a year, as a share of the base
     * @param  float  $season  swing to either side of the base, as a share of it
     * @param  int  $peak  the month (1–12) in which the season is highest
     * @param  float  $noise  standard deviation of chance, as a share of the base
     * @param  float  $aim  target of an ordinary month in 2026/27, as a share of the base
     * @param  float  $stretch  how much easier the target was in each earlier year, as a share of the base
     * @param  bool  $shaped  whether the target follows the season
     * @param  array{float, float}|null  $within  what a figure cannot pass
     * @param  string  $from  its first month
     * @param  float  $quality  how far the figure of the worst family of meters lies from the base, as a share of it
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $at,
        public string $theme,
        public string $measure,
        public int $decimals,
        public string $polarity,
        public string $accumulation,
        public array $rule,
        public float $base,
        public string $purpose,
        public float $trend = 0.0,
        public float $season = 0.0,
        public int $peak = 1,
        public float $noise = 0.02,
        public float $aim = 1.0,
        public float $stretch = 0.0,
        public bool $shaped = false,
        public ?array $within = null,
        public string $from = '2024-04',
        public bool $scaled = false,
        public float $weight = 1.0,
        public float $quality = 0.0,
    ) {}

    public function level(): string
    {
        return match ($this->at) {
            'OST' => 'organisational',
            'zones', 'works', 'meters' => 'operational',
            default => 'departmental',
        };
    }

    /** The department whose data owner enters the figures: headline figures come from those who work with them. */
    public function answers(): string
    {
        return $this->department() !== 'OST' ? $this->department() : match ($this->theme) {
            'Customers' => 'CUS',
            'Supply' => 'NET',
            'Water quality' => 'TRT',
            'Environment' => 'WST',
            'People' => 'PPL',
            'Projects' => 'CAP',
            default => 'FIN',
        };
    }

    public function department(): string
    {
        return match ($this->at) {
            'zones' => 'NET',
            'works' => 'TRT',
            'meters' => 'MTR',
            default => $this->at,
        };
    }
}
