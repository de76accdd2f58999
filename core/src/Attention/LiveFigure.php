<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

/**
 * A figure inside of a text that follows the page it stands on: `{LEAK}` is the figure of the KPI with its needle,
 * `{LEAK to target}` how far it lies from its target, `{LEAK year end}` what it is projected to. `{LEAK in NET}` is that of
 * another unit than the page's. `{{` is a brace.
 */
final readonly class LiveFigure
{
    /** What of a KPI can stand in a text, blank for its figure. */
    public const WHAT = ['', 'to target', 'to last year', 'year end'];

    private const CODE = '[A-Za-z0-9][A-Za-z0-9_.-]*';

    /** @param  string  $unit  code; blank for the page's */
    public function __construct(public string $kpi, public string $unit = '', public string $what = '') {}

    /**
     * A text as what it is made of; braces that hold no figure stay as they are typed.
     *
     * @return list<string|self>
     */
    public static function in(string $text): array
    {
        $parts = [];
        $what = implode('|', array_filter(self::WHAT));
        $pattern = '/\{\{|\{('.self::CODE.')(?: in ('.self::CODE.'))?(?: ('.$what.'))?\}/';
        $from = 0;
        preg_match_all($pattern, $text, $found, PREG_SET_ORDER | PREG_OFFSET_CAPTURE);
        $plain = '';
        foreach ($found as $each) {
            $plain .= substr($text, $from, $each[0][1] - $from);
            $from = $each[0][1] + strlen($each[0][0]);
            if ($each[0][0] === '{{') {
                $plain .= '{';

                continue;
            }
            array_push($parts, ...($plain === '' ? [] : [$plain]), ...[new self($each[1][0] ?? '', $each[2][0] ?? '', $each[3][0] ?? '')]);
            $plain = '';
        }
        $plain .= substr($text, $from);

        return $plain === '' ? $parts : [...$parts, $plain];
    }

    /** Words of people, in which a brace is a brace. */
    public static function plain(string $words): string
    {
        return str_replace('{', '{{', $words);
    }

    public function __toString(): string
    {
        return '{'.$this->kpi.($this->unit === '' ? '' : " in {$this->unit}").($this->what === '' ? '' : " {$this->what}").'}';
    }
}
