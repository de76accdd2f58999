<?php

declare(strict_types=1);

namespace App\Sources;

use Illuminate\Contracts\Filesystem\Factory;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Database\Connection;

/**
 * Takes away files of records that nobody needs any more: of what has come in, or could not, after a day, of what nobody went
 * on with after a week. What a load replaced is kept beside the set, so taking it back needs no file.
 */
final readonly class ForgetFiles
{
    private const DAYS = 7;

    private Filesystem $disk;

    public function __construct(private Connection $database, Factory $disks)
    {
        $this->disk = $disks->disk('local');
    }

    public function __invoke(): void
    {
        $this->forget(['applied', 'undone', 'failed'], 1, []);
        $this->forget(['mapping', 'ready'], self::DAYS, ['state' => 'failed', 'problem' => 'It was not gone on with for a week, so the file is gone. Send it again.']);
        $known = array_fill_keys(array_filter($this->database->table('record_loads')->whereNotNull('path')->pluck('path')->all(), is_string(...)), true);
        foreach ($this->disk->files('records') as $file) {
            if (! isset($known[$this->disk->path($file)]) && $this->disk->lastModified($file) < now()->subDay()->getTimestamp()) {
                $this->disk->delete($file);
            }
        }
    }

    /**
     * @param  list<string>  $states
     * @param  array<string, string>  $columns  that change with it
     */
    private function forget(array $states, int $days, array $columns): void
    {
        $gone = $this->database->table('record_loads')->whereNotNull('path')->whereIn('state', $states)->where('updated_at', '<', now()->subDays($days))->pluck('path', 'id')->all();
        foreach ($gone as $load => $path) {
            $kept = $this->database->table('record_loads')->where('id', $load)->whereIn('state', $states)->update([...$columns, 'path' => null]);
            if ($kept === 1 && is_string($path) && is_file($path)) {
                unlink($path);
            }
        }
    }
}
