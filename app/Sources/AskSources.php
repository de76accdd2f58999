<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordSet;
use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Contracts\Filesystem\Factory;
use Illuminate\Database\Connection;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Str;

/**
 * Asks for records where it is time, and takes what lies in watched folders. What fails is tried again after growing
 * pauses, and told on the screen of the set.
 */
final readonly class AskSources
{
    /** As long as one may take; after it somebody else may ask. */
    private const LEASE_MINUTES = 20;

    private const MOST_PAUSE_MINUTES = 360;

    /** A file in a folder is whole when it has not changed for so long. */
    private const STILL_SECONDS = 10;

    /** Before the name of a file that somebody is taking; who does not come back from it within so long, another takes its place. */
    private const TAKEN = '.taken-';

    private const TAKING_SECONDS = 60;

    private const LONGEST_NAME = 100;

    public function __construct(
        private Connection $database,
        private Dispatcher $jobs,
        private WaySettings $settings,
        private AddressFetcher $addresses,
        private QueryFetcher $queries,
        private Loads $loads,
        private Factory $disks,
    ) {}

    /** Sets a worker to each set that is to be asked; asked by two at once, one of them does it. */
    public function due(): void
    {
        /** @var list<object{id: int}> $due */
        $due = $this->database->select(
            "UPDATE record_sets SET asked_next = now() + make_interval(mins => ?) WHERE id IN (SELECT id FROM record_sets WHERE way IN ('address', 'query') AND retired_at IS NULL AND asked_next <= now() ORDER BY asked_next LIMIT 20 FOR UPDATE SKIP LOCKED) RETURNING id",
            [self::LEASE_MINUTES],
        );
        foreach ($due as $set) {
            $this->jobs->dispatch(new AskJob($set->id));
        }
    }

    public function ask(int $id): void
    {
        $set = RecordSet::query()->whereKey($id)->whereNull('retired_at')->first();
        if ($set === null || ! in_array($set->way, ['address', 'query'], true) || $this->isBusy($id)) {
            return;
        }
        $state = $this->state($id);
        $settings = $this->settings->of($id);
        $path = $this->path();
        try {
            $etag = $state['etag'];
            if ($set->way === 'address') {
                [$isNew, $etag] = $this->addresses->fetch($settings['url'], $path, $settings['header'], $this->settings->secret($id), $settings['pageField'], $etag);
                $name = parse_url($settings['url'], PHP_URL_HOST);
            } else {
                $isNew = $this->queries->fetch($settings, $this->settings->secret($id), $path) > 0;
                $name = "{$settings['database']} on {$settings['host']}";
            }
            if ($isNew && is_file($path)) {
                $this->loads->unattended($set, $set->way, $path, (string) $name, $this->loads->mapping($id), now()->subDay()->toDateString());
            }
            $this->keep($id, ['etag' => $etag, 'failures' => 0, 'problem' => '', 'asked' => now()->toIso8601ZuluString()], $settings['minutes']);
        } catch (NotAsked $problem) {
            @unlink($path);
            @unlink("{$path}.part");
            $failures = $state['failures'] + 1;
            $this->keep($id, [...$state, 'failures' => $failures, 'problem' => $problem->getMessage(), 'asked' => now()->toIso8601ZuluString()], min($settings['minutes'], self::MOST_PAUSE_MINUTES, 2 ** min($failures, 9)));
        }
    }

    /** Files that were put into the folder of a set: each is taken once, by whoever moves it first. */
    public function folders(): void
    {
        $disk = $this->disks->disk('local');
        foreach (RecordSet::query()->where('way', 'folder')->whereNull('retired_at')->get() as $set) {
            $disk->makeDirectory("inbox/{$set->code}");
            foreach ($disk->files("inbox/{$set->code}") as $file) {
                $this->take($set, $disk->path($file));
            }
        }
    }

    /**
     * Its name says first that it is being taken, so that one alone takes it; and the load knows it by that name, so that a
     * file whose taker died is taken by the next, once.
     */
    private function take(RecordSet $set, string $from): void
    {
        clearstatcache(true, $from);
        $name = basename($from);
        if (str_starts_with($name, self::TAKEN)) {
            if (time() - (int) @filemtime($from) >= self::TAKING_SECONDS && ! $this->database->table('record_loads')->where('path', $from)->exists()) {
                $this->bring($set, $from, substr($name, strlen(self::TAKEN) + 37));
            }

            return;
        }
        $path = dirname($from).'/'.self::TAKEN.Str::uuid().'-'.substr($name, -self::LONGEST_NAME);
        if (! str_starts_with($name, '.') && time() - (int) @filemtime($from) >= self::STILL_SECONDS && @rename($from, $path)) {
            touch($path);
            $this->bring($set, $path, $name);
        }
    }

    private function bring(RecordSet $set, string $path, string $name): void
    {
        try {
            $this->loads->unattended($set, 'folder', $path, $name, $this->loads->mapping($set->id), now()->subDay()->toDateString(), null, basename($path));
        } catch (UniqueConstraintViolationException) {
            // Another was quicker.
        }
    }

    /** @return array{etag: string|null, failures: int, problem: string, asked: string|null} */
    public function state(int $set): array
    {
        $kept = $this->database->table('record_sets')->where('id', $set)->value('asked_state');
        /** @var array<string, mixed> $state */
        $state = json_decode(is_string($kept) ? $kept : '{}', true, flags: JSON_THROW_ON_ERROR);

        return [
            'etag' => is_string($state['etag'] ?? null) ? $state['etag'] : null, 'failures' => is_int($state['failures'] ?? null) ? $state['failures'] : 0,
            'problem' => is_string($state['problem'] ?? null) ? $state['problem'] : '', 'asked' => is_string($state['asked'] ?? null) ? $state['asked'] : null,
        ];
    }

    /** Whether an earlier load of it is still on its way. */
    private function isBusy(int $set): bool
    {
        return $this->database->table('record_loads')->where('record_set_id', $set)->where('is_unattended', true)->whereIn('state', ['reading', 'applying'])->exists();
    }

    /** @param  array{etag: string|null, failures: int, problem: string, asked: string|null}  $state */
    private function keep(int $set, array $state, int $minutes): void
    {
        $this->database->table('record_sets')->where('id', $set)->update(['asked_state' => json_encode($state, JSON_THROW_ON_ERROR), 'asked_next' => now()->addMinutes($minutes)]);
    }

    private function path(): string
    {
        $disk = $this->disks->disk('local');
        $disk->makeDirectory('records');

        return $disk->path('records/'.Str::uuid());
    }
}
