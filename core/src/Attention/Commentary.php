<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Kybernet\Core\Status\Status;

/**
 * Drafts the text of a month for a person to correct: what is off course and why, in the words of the notes; what got
 * worse; what recovered; what is heading off; what is late. The same facts always give the same text, and its figures are
 * live.
 */
final class Commentary
{
    /** So many are told one by one; of the others it is said how many they are. */
    private const MOST = 5;

    /** From so many periods in a row on it is said. */
    private const RUN_FROM = 3;

    /**
     * @param  list<Told>  $ranked  in the order of the exceptions, then of the good news
     * @return list<string> paragraphs; one that says so where nothing deserves a word
     */
    public static function draft(array $ranked): array
    {
        $off = self::those($ranked, fn (Told $told): bool => $told->status === Status::Red || $told->status === Status::Amber);
        $paragraphs = [
            ...array_map(self::offCourse(...), array_slice($off, 0, self::MOST)),
            self::rest(count($off) - self::MOST),
            self::listed('Worse than before, and still on course', self::those($ranked, fn (Told $told): bool => $told->has(ReasonCode::Worsened) && $told->status === Status::Green)),
            self::listed('On course again', self::those($ranked, fn (Told $told): bool => $told->isRecovered)),
            self::listed('Heading off course by the year end', self::those($ranked, fn (Told $told): bool => $told->has(ReasonCode::ProjectedMiss)), 'year end', 'expected'),
            self::late($ranked),
        ];
        $said = array_values(array_filter($paragraphs, fn (string $paragraph): bool => $paragraph !== ''));

        return $said === [] ? ['Everything that is judged is on course, and everything is in.'] : $said;
    }

    private static function offCourse(Told $told): string
    {
        $run = $told->run >= self::RUN_FROM ? ", for {$told->run} periods in a row" : '';

        return implode(' ', array_filter([
            "{$told->place()} is {$told->status->inPassing()} at {$told->figure()} ({$told->figure('to target')}){$run}".($told->why === '' ? '; no reason is given yet.' : ': '.self::sentence($told->why, false)),
            self::sentence($told->outlook),
            ...array_map(fn (Agreed $agreed): string => self::sentence($agreed->what)." {$agreed->who}, ".($agreed->isLate ? "was due on {$agreed->due}." : "by {$agreed->due}."), self::plainly($told->actions)),
        ], fn (string $part): bool => $part !== ''));
    }

    private static function rest(int $more): string
    {
        return match (true) {
            $more <= 0 => '',
            $more === 1 => 'One more is off course or drifting.',
            default => "{$more} more are off course or drifting.",
        };
    }

    /** @param  list<Told>  $those */
    private static function listed(string $title, array $those, string $what = '', string $words = ''): string
    {
        return $those === [] ? '' : $title.': '.self::together(array_map(
            fn (Told $told): string => "{$told->place()} ({$told->figure($what)}".($words === '' ? '' : " {$words}").')',
            array_slice($those, 0, self::MOST),
        ), count($those) - self::MOST).'.';
    }

    /** @param  list<Told>  $ranked */
    private static function late(array $ranked): string
    {
        $missing = self::those($ranked, fn (Told $told): bool => $told->has(ReasonCode::Missing));

        return $missing === [] ? '' : 'Not reported yet: '.self::together(array_map(fn (Told $told): string => $told->place(), array_slice($missing, 0, self::MOST)), count($missing) - self::MOST).'.';
    }

    /** @param  non-empty-list<string>  $names */
    private static function together(array $names, int $more): string
    {
        if ($more > 0) {
            return implode(', ', $names)." and {$more} more";
        }
        $last = array_pop($names);

        return $names === [] ? $last : implode(', ', $names)." and {$last}";
    }

    /** Words of people as a sentence that ends. */
    private static function sentence(string $words, bool $isOwn = true): string
    {
        $words = trim($words);
        if ($words === '') {
            return '';
        }
        $first = mb_substr($words, 0, 1);
        $text = ($isOwn ? mb_strtoupper($first) : $first).mb_substr($words, 1);

        return LiveFigure::plain(preg_match('/[.!?…]\z/u', $text) === 1 ? $text : "{$text}.");
    }

    /**
     * @param  list<Agreed>  $actions
     * @return list<Agreed> with what people typed as plain words
     */
    private static function plainly(array $actions): array
    {
        return array_map(fn (Agreed $agreed): Agreed => new Agreed($agreed->what, LiveFigure::plain($agreed->who), $agreed->due, $agreed->isLate), $actions);
    }

    /**
     * @param  list<Told>  $ranked
     * @param  \Closure(Told): bool  $pass
     * @return list<Told>
     */
    private static function those(array $ranked, \Closure $pass): array
    {
        return array_values(array_filter($ranked, $pass));
    }
}
