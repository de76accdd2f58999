<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\NumberSetting;
use InvalidArgumentException;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Status;

/**
 * Between what a cell holds and how a person types it: figures in their number setting, bands as `2.1 – 3.4`, colours
 * in words.
 */
final readonly class CellText
{
    private const COLOURS = [
        'green' => Status::Green, 'g' => Status::Green, 'on course' => Status::Green,
        'amber' => Status::Amber, 'a' => Status::Amber, 'drifting' => Status::Amber,
        'red' => Status::Red, 'r' => Status::Red, 'off course' => Status::Red,
    ];

    public function __construct(private NumberSetting $setting) {}

    /**
     * @param  bool  $isTarget  whether the cell is one of the targets, of which a band has two
     *
     * @throws InvalidArgumentException with a message for the person who typed it
     */
    public function read(Definition $definition, string $text, bool $isTarget): CellValue
    {
        // Trimmed as characters: byte by byte, a hard blank would take the first half of a currency sign with it.
        $plain = trim(preg_replace('/\A[\s\x{00A0}]+|[\s\x{00A0}]+\z/u', '', $text) ?? $text);
        if ($plain === '') {
            return new CellValue;
        }
        if ($definition->kind === Kind::Judged) {
            return new CellValue(colour: self::COLOURS[mb_strtolower($plain)]
                ?? throw new InvalidArgumentException("'{$plain}' is not green, amber or red."));
        }
        if (! $isTarget || $definition->polarity !== Polarity::Band) {
            return new CellValue($this->setting->read($plain));
        }
        if (preg_match('/\A(.+?)(?:\s+to\s+|\s*\.\.+\s*|\s*…\s*|\s+[-\x{2013}\x{2212}]\s+|(?<=\d)\x{2013}|(?<=\d)-(?=[\d.,]))(.+)\z/u', $plain, $ends) !== 1) {
            throw new InvalidArgumentException("'{$plain}' is not a band such as 2 to 3.");
        }
        [$low, $high] = [$this->setting->read($ends[1]), $this->setting->read($ends[2])];
        if ($low === null || $high === null || $high->isLessThan($low)) {
            throw new InvalidArgumentException("'{$plain}' is not a band from a lower to an upper figure.");
        }

        return new CellValue($low, $high);
    }

    /** @param  bool  $scaled  a figure that is shown in k, m or bn is typed without the decimals of that */
    public function write(Definition $definition, bool $scaled, CellValue $value): string
    {
        $decimals = $scaled ? 0 : $definition->decimals;

        return match (true) {
            $value->colour !== null => $value->colour->value,
            $value->upper !== null => $this->setting->write($value->figure, $decimals)." \u{2013} ".$this->setting->write($value->upper, $decimals),
            default => $this->setting->write($value->figure, $decimals),
        };
    }
}
