<?php

declare(strict_types=1);

namespace App\Register;

/**
 * Which field of the editor a member of the workbook's KPI was typed in.
 */
final readonly class TypedFields
{
    /**
     * @param  int|null  $rule  place of the typed rule set among all of them
     * @param  array<int, int|null>  $unitRules  likewise, by unit
     */
    public function __construct(private ?int $rule, private array $unitRules) {}

    /** @param  string  $pointer  inside the KPI, `/rules/2/amber` */
    public function field(string $pointer): string
    {
        $field = match (true) {
            preg_match('#\A/rules/(\d+)(.*)\z#', $pointer, $match) === 1 => (int) $match[1] === $this->rule ? 'rule'.$match[2] : 'rule/older',
            preg_match('#\A/units/(\d+)/rules/(\d+)(.*)\z#', $pointer, $match) === 1 => "units/{$match[1]}/rule".((int) $match[2] === ($this->unitRules[(int) $match[1]] ?? null) ? $match[3] : '/older'),
            $pointer === '/gather' => 'weightedBy',
            default => match (ltrim($pointer, '/')) {
                'gather/method' => 'gather',
                'gather/weight' => 'weightedBy',
                '' => 'code',
                default => ltrim($pointer, '/'),
            },
        };

        return str_replace('/', '.', $field === 'rule' ? 'rule/green' : $field);
    }
}
