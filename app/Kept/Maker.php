<?php

declare(strict_types=1);

namespace App\Kept;

/**
 * Which version of the rules, and of the layout of what is kept, is at work: a number made of the code of both.
 */
final readonly class Maker
{
    /** What a kept judgement follows from, beside the figures. */
    private const CODE = ['core/src', 'app/Figures', 'app/Kept', 'app/Organisation', 'app/Views'];

    public function __construct(public int $version) {}

    public static function fingerprint(string $root): int
    {
        $hash = hash_init('xxh32');
        foreach (self::CODE as $folder) {
            $files = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator("{$root}/{$folder}", \FilesystemIterator::SKIP_DOTS | \FilesystemIterator::CURRENT_AS_PATHNAME));
            $paths = iterator_to_array($files, false);
            sort($paths);
            foreach ($paths as $path) {
                hash_update_file($hash, (string) $path);
            }
        }

        // As the database's integer, which has a sign.
        return (int) hexdec(hash_final($hash)) - 2 ** 31;
    }
}
