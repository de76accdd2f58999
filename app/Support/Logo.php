<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Database\Connection;
use InvalidArgumentException;

/**
 * The picture that stands for the organisation on paper: PNG or JPEG, kept with the data, so that every node has it.
 */
final readonly class Logo
{
    public const MOST_BYTES = 512 * 1024;

    private const MOST_SIDE = 2400;

    public function __construct(private Connection $database) {}

    /** @return string|null where it is had; another picture has another address */
    public function address(): ?string
    {
        $digest = $this->database->table('logos')->value('digest');

        return is_string($digest) ? '/api/logo?v='.substr($digest, 0, 16) : null;
    }

    /** @return array{type: string, bytes: string, digest: string}|null its media type, what is in it, and a digest of that */
    public function read(): ?array
    {
        $row = $this->database->table('logos')->first();
        if ($row === null || ! is_string($row->type ?? null) || ! is_string($row->bytes ?? null) || ! is_string($row->digest ?? null)) {
            return null;
        }

        return ['type' => "image/{$row->type}", 'bytes' => (string) base64_decode($row->bytes, true), 'digest' => $row->digest];
    }

    /** @throws InvalidArgumentException with what is wrong, for whoever chose it */
    public function take(string $bytes): void
    {
        $picture = PictureCheck::of($bytes, self::MOST_BYTES, self::MOST_SIDE);
        $this->database->table('logos')->upsert(['one' => true, 'type' => $picture->type, 'width' => $picture->width, 'height' => $picture->height, 'bytes' => base64_encode($bytes), 'digest' => $picture->digest()], 'one');
    }

    public function remove(): void
    {
        $this->database->table('logos')->delete();
    }
}
