<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * Where the figures of a KPI come from, and whether it can be measured today.
 */
final readonly class Sourcing
{
    /**
     * @param  string|null  $source  the system, the register or the person that they are taken from
     * @param  int|null  $dueDay  day of the month after a period by which its reading is due, 1 to 31
     * @param  bool  $isAvailable  whether the data is available today
     * @param  bool  $isAgreed  whether those concerned agree on the definition
     * @param  bool  $needsNote  whether a bad colour must be explained before the month is handed in
     */
    public function __construct(
        public ?string $source = null,
        public ?int $dueDay = null,
        public bool $isAvailable = false,
        public bool $isAgreed = false,
        public bool $needsNote = false,
    ) {}

    /**
     * What must be asked before the KPI can be relied on (common practice).
     *
     * @param  bool  $hasOwner  whether somebody is named who enters its figures in every unit
     * @param  bool  $isTyped  a figure that is worked out has neither a source nor an owner of its own
     * @return list<string> the questions that are still open
     */
    public function openQuestions(bool $hasOwner, bool $isTyped): array
    {
        return array_keys(array_filter([
            'Where do its figures come from?' => $isTyped && $this->source === null,
            'Can it be measured today?' => ! $this->isAvailable,
            'Who enters it?' => $isTyped && ! $hasOwner,
            'Is its definition agreed?' => ! $this->isAgreed,
        ]));
    }
}
