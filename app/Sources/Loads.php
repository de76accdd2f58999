<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Support\FileStep;
use App\Support\FileSteps;
use App\Support\NotAtThatPoint;
use Illuminate\Database\Connection;

/**
 * Begins loads, whatever way records come in.
 */
final readonly class Loads
{
    public function __construct(private FileSteps $steps, private Connection $database) {}

    /**
     * A file that a person brings: it is read, shown, and brought in when they say so.
     *
     * @param  array<string, array{field: string, form: string}>  $mapping
     */
    public function file(RecordSet $set, string $path, string $name, string $mode, array $mapping, ?string $coversTo, ?int $user): RecordLoad
    {
        return $this->begin($set, 'file', $path, $name, $mode, $mapping, $coversTo, $user, false, null);
    }

    /**
     * What comes in by itself is brought in as soon as it has been read.
     *
     * @param  array<string, array{field: string, form: string}>  $mapping
     */
    public function unattended(RecordSet $set, string $way, string $path, string $name, array $mapping, ?string $coversTo, ?int $user = null, ?string $mark = null): RecordLoad
    {
        return $this->begin($set, $way, $path, $name, $set->mode, $mapping, $coversTo, $user, true, $mark);
    }

    /** @return array<string, array{field: string, form: string}> which column holds what, as the set remembers */
    public function mapping(int $set): array
    {
        $kept = $this->database->table('record_sets')->where('id', $set)->value('mapping');
        /** @var array<string, array{field: string, form: string}> $mapping */
        $mapping = json_decode(is_string($kept) ? $kept : '{}', true, flags: JSON_THROW_ON_ERROR);

        return $mapping;
    }

    /** What was read unattended, and whose worker died before it went on. */
    public function goOnLeft(): void
    {
        foreach ($this->database->table('record_loads')->where('is_unattended', true)->where('state', 'ready')->where('problem', '')->where('updated_at', '<', now()->subMinute())->pluck('id') as $load) {
            $this->goOn((int) $load);
        }
    }

    /** Brings in what was read unattended: unless nothing of it can be taken, which somebody should look at. */
    public function goOn(int $load): void
    {
        $read = $this->database->table('record_loads')->where('id', $load)->where('state', 'ready')->first(['brought', 'refused']);
        if ($read === null) {
            return;
        }
        if ($read->brought > 0 && $read->refused === $read->brought) {
            $this->database->table('record_loads')->where('id', $load)->where('state', 'ready')->update(['state' => 'failed', 'problem' => 'Every record of it was refused, so nothing was brought in.']);

            return;
        }
        try {
            $this->steps->begin($load, FileStep::Apply);
        } catch (NotAtThatPoint) {
            // Somebody was quicker.
        }
    }

    /** @param  array<string, array{field: string, form: string}>  $mapping */
    private function begin(RecordSet $set, string $way, string $path, string $name, string $mode, array $mapping, ?string $coversTo, ?int $user, bool $isUnattended, ?string $mark): RecordLoad
    {
        return $this->database->transaction(function () use ($set, $way, $path, $name, $mode, $mapping, $coversTo, $user, $isUnattended, $mark): RecordLoad {
            $load = RecordLoad::query()->create([
                'record_set_id' => $set->id, 'user_id' => $user, 'way' => $way, 'file' => mb_substr($name, 0, 200), 'path' => $path, 'sheet' => '', 'mode' => $mode,
                'mapping' => $mapping, 'state' => 'mapping', 'is_unattended' => $isUnattended, 'covers_to' => $coversTo, 'mark' => $mark,
            ]);
            $this->steps->begin($load->id, FileStep::Read);

            return $load->refresh();
        });
    }
}
