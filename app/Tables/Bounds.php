<?php

declare(strict_types=1);

namespace App\Tables;

/**
 * How large a file may be, told while it is read: a small file can unpack to anything.
 */
final class Bounds
{
    public const MOST_ROWS = 100_000;

    public const MOST_COLUMNS = 400;

    /** As many characters as a spreadsheet's own cell may have, in bytes of the longest kind. */
    public const MOST_CELL_BYTES = 131_072;

    public const MOST_LINE_BYTES = 1_048_576;

    /** Of any part of an archive, unpacked. */
    public const MOST_BYTES = 250_000_000;

    /** Of parts that are held as a whole. */
    public const MOST_SMALL_BYTES = 8_000_000;

    public const MOST_TEXTS = 500_000;

    public const MOST_TEXT_BYTES = 60_000_000;

    private int $rows = 0;

    private int $steps = 0;

    private readonly int $until;

    /**
     * @param  int  $seconds  that reading may take
     * @param  int  $mostRows  below the head
     */
    public function __construct(private readonly int $seconds, private readonly int $mostRows = self::MOST_ROWS)
    {
        $this->until = (int) hrtime(true) + $seconds * 1_000_000_000;
    }

    /** Another step of reading; the clock is looked at now and then. */
    public function step(): void
    {
        if ((++$this->steps & 0xFFF) === 0 && hrtime(true) > $this->until) {
            throw new BadTable("The file takes more than {$this->seconds} seconds to read. Split it and send the parts.");
        }
    }

    public function row(): void
    {
        if (++$this->rows > $this->mostRows + 1) {
            throw new BadTable('The file has more than '.number_format($this->mostRows).' rows. Split it and send the parts.');
        }
        if (($this->rows & 0xFF) === 0 && hrtime(true) > $this->until) {
            throw new BadTable("The file takes more than {$this->seconds} seconds to read. Split it and send the parts.");
        }
    }

    public static function column(int $line, int $column): void
    {
        if ($column > self::MOST_COLUMNS) {
            throw new BadTable("Line {$line} goes on beyond ".self::MOST_COLUMNS.' columns. Take away what is not needed and send it again.');
        }
    }

    public static function cell(int $bytes): void
    {
        if ($bytes > self::MOST_CELL_BYTES) {
            throw new BadTable('A cell holds more text than a cell of a spreadsheet can. Take it out and send the file again.');
        }
    }

    /**
     * A small part of an archive; null where it has none of that name.
     *
     * @throws BadTable when it is larger than any that is honest
     */
    public static function part(\ZipArchive $archive, string $name): ?string
    {
        $stream = $archive->locateName($name) === false ? false : $archive->getStream($name);
        if ($stream === false) {
            return null;
        }
        $text = (string) stream_get_contents($stream, self::MOST_SMALL_BYTES + 1);
        fclose($stream);

        return strlen($text) > self::MOST_SMALL_BYTES ? throw new BadTable('The file unpacks to more than can be read here. Split it and send the parts.') : $text;
    }
}
