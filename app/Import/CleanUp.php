<?php

declare(strict_types=1);

namespace App\Import;

use Illuminate\Contracts\Filesystem\Factory;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Database\Connection;
use stdClass;

/**
 * Takes away uploads and previews that nobody needs any more: files of what is applied after a day, and of what nobody
 * went on with after a week; previews after a week. What an import has changed stays in the trail, and can be undone.
 */
final readonly class CleanUp
{
    private const DAYS = 7;

    private Filesystem $disk;

    public function __construct(private Connection $database, Factory $disks)
    {
        $this->disk = $disks->disk('local');
    }

    public function __invoke(): void
    {
        $over = $this->database->table('imports')->whereNotNull('path')->where(fn ($query) => $query
            ->where(fn ($done) => $done->whereIn('state', ['applied', 'undone'])->where('updated_at', '<', now()->subDay()))
            ->orWhere(fn ($left) => $left->whereIn('state', ['mapping', 'ready', 'failed'])->where('updated_at', '<', now()->subDays(self::DAYS))))->get(['id', 'path', 'state']);
        foreach ($over as $import) {
            $this->forget($import);
        }
        $this->database->table('import_cells')->whereIn('import_id', $this->database->table('imports')->whereIn('state', ['applied', 'undone', 'failed'])->where('updated_at', '<', now()->subDays(self::DAYS))->select('id'))->delete();
        // A preview of definitions, or of a workbook, is for the person who looks at it; a file that belongs to no import was left by a request that broke.
        $known = array_fill_keys($this->database->table('imports')->whereNotNull('path')->pluck('path')->map(fn (mixed $path): string => basename((string) $path))->all(), true);
        foreach ([...$this->disk->files('definitions'), ...$this->disk->files('books'), ...array_filter($this->disk->files('imports'), fn (string $file): bool => ! isset($known[basename($file)]))] as $file) {
            if ($this->disk->lastModified($file) < now()->subDay()->getTimestamp()) {
                $this->disk->delete($file);
            }
        }
    }

    private function forget(stdClass $import): void
    {
        $isDone = in_array($import->state, ['applied', 'undone'], true);
        $kept = $this->database->table('imports')->where('id', $import->id)->where('state', $import->state)
            ->update($isDone ? ['path' => null] : ['path' => null, 'state' => 'failed', 'problem' => 'It was not gone on with for a week, so the file is gone. Send it again.']);
        if ($kept === 1) {
            $this->disk->delete('imports/'.basename((string) $import->path));
        }
    }
}
