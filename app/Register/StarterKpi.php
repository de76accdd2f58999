<?php

declare(strict_types=1);

namespace App\Register;

/** A common measure that an organisation may begin with. */
final readonly class StarterKpi
{
    /**
     * @param  string  $function  what it is about: money, sales, service
     * @param  string  $measure  `money` stands for the currency of the organisation
     * @param  string  $formula  blank where its figures are entered
     * @param  array<string, string>|null  $rule  limits as a workbook has them; null where it is tracked and not judged
     * @param  bool  $isPractice  whether the limits are common practice; otherwise they are only a beginning
     * @param  string  $publishedBy  where its definition is published; blank where it is the trade's common knowledge
     * @param  list<string>  $needs  codes of those that it is worked out from
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $function,
        public string $purpose,
        public string $measure,
        public int $decimals,
        public string $polarity,
        public string $accumulation,
        public string $formula,
        public ?array $rule,
        public bool $isPractice,
        public string $publishedBy,
        public bool $isScaled,
        public array $needs,
    ) {}

    /**
     * As a definition in a workbook: a draft with its open questions.
     *
     * @param  string  $currency  how money is written
     * @param  string  $from  the first month that its limits judge
     * @return array<string, mixed>
     */
    public function definition(string $unit, string $currency, string $from): array
    {
        return array_filter([
            'code' => $this->code,
            'name' => $this->name,
            'purpose' => implode(' ', array_filter([$this->purpose, $this->publishedBy === '' ? '' : "Defined after: {$this->publishedBy}.", $this->isPractice ? 'Its limits are common practice.' : ''], fn (string $text): bool => $text !== '')),
            'kind' => $this->formula === '' ? 'entered' : 'formula',
            'measure' => $this->measure === 'money' ? $currency : $this->measure,
            'decimals' => $this->decimals,
            'scale' => $this->isScaled ? 'auto' : null,
            'polarity' => $this->polarity,
            'frequency' => 'month',
            'accumulation' => $this->accumulation,
            'formula' => $this->formula === '' ? null : $this->formula,
            'level' => 'departmental',
            'theme' => $this->function,
            'dataAvailable' => false,
            'definitionAgreed' => false,
            'units' => [['unit' => $unit]],
            'rules' => $this->rule === null ? null : [['from' => $from, ...$this->rule]],
        ], fn (mixed $member): bool => $member !== null);
    }
}
