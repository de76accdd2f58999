<?php

declare(strict_types=1);

namespace App\Support;

use InvalidArgumentException;

/** A picture that somebody sends: PNG or JPEG, whole, and not larger than it may be. */
final readonly class PictureCheck
{
    private const TYPES = [IMAGETYPE_PNG => 'png', IMAGETYPE_JPEG => 'jpeg'];

    private function __construct(public string $type, public int $width, public int $height, public string $bytes) {}

    /** @throws InvalidArgumentException with what is wrong, for whoever chose it */
    public static function of(string $bytes, int $mostBytes, int $mostSide): self
    {
        $size = @getimagesizefromstring($bytes);
        $type = $size === false ? null : self::TYPES[$size[2]] ?? null;
        if ($size === false || $type === null) {
            throw new InvalidArgumentException('Choose a PNG or a JPEG.');
        }
        $problem = match (true) {
            strlen($bytes) > $mostBytes => 'Up to '.intdiv($mostBytes, 1024).' kB.',
            max($size[0], $size[1]) > $mostSide => "Up to {$mostSide} pixels wide and high.",
            @imagecreatefromstring($bytes) === false => 'The picture is broken.',
            default => '',
        };
        if ($problem !== '') {
            throw new InvalidArgumentException($problem);
        }

        return new self($type, $size[0], $size[1], $bytes);
    }

    public function digest(): string
    {
        return hash('sha256', $this->bytes);
    }
}
