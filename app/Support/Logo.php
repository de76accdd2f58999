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

    private const TYPES = [IMAGETYPE_PNG => 'png', IMAGETYPE_JPEG => 'jpeg'];

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
        $size = @getimagesizefromstring($bytes);
        $type = $size === false ? null : self::TYPES[$size[2]] ?? null;
        if ($size === false || $type === null) {
            throw new InvalidArgumentException('Choose a PNG or a JPEG.');
        }
        $problem = match (true) {
            strlen($bytes) > self::MOST_BYTES => 'Up to 512 kB.',
            max($size[0], $size[1]) > self::MOST_SIDE => 'Up to '.self::MOST_SIDE.' pixels wide and high.',
            @imagecreatefromstring($bytes) === false => 'The picture is broken.',
            default => '',
        };
        if ($problem !== '') {
            throw new InvalidArgumentException($problem);
        }
        $this->database->table('logos')->upsert(['one' => true, 'type' => $type, 'width' => $size[0], 'height' => $size[1], 'bytes' => base64_encode($bytes), 'digest' => hash('sha256', $bytes)], 'one');
    }

    public function remove(): void
    {
        $this->database->table('logos')->delete();
    }
}
