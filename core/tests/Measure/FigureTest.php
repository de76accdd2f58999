<?php

declare(strict_types=1);

use Kybernet\Core\Measure\Display;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Figure;

it('understands what people type and paste', function (string $text, string $separator, ?string $figure) {
    $read = Figure::typed($text, $separator);

    expect($read === null ? null : (string) $read)->toBe($figure);
})->with([
    'blank is no reading' => ['  ', '.', null],
    'zero is a reading' => ['0', '.', '0'],
    'plain' => ['61.8', '.', '61.8'],
    'thousands' => ['1,234,567.5', '.', '1234567.5'],
    'continental' => ['1.234.567,5', ',', '1234567.5'],
    'narrow no-break blanks' => ["1\u{202F}234,5", ',', '1234.5'],
    'apostrophes' => ["1'234.5", '.', '1234.5'],
    'currency' => ['£ 1,250', '.', '1250'],
    'currency close by' => ['£1,250', '.', '1250'],
    'hard blanks around' => ["\u{00A0}€5\u{202F}", '.', '5'],
    'negative currency' => ['-£3.20', '.', '-3.20'],
    'percent' => ['94.96 %', '.', '94.96'],
    'trailing minus' => ['12.5-', '.', '-12.5'],
    'printed minus sign' => ["\u{2212}7", '.', '-7'],
    'accounting parentheses' => ['(1,200)', '.', '-1200'],
    'no digit before the point' => ['.5', '.', '0.5'],
]);

it('refuses anything else and says the text', function (string $text, string $separator) {
    expect(fn () => Figure::typed($text, $separator))->toThrow(InvalidArgumentException::class, $text);
})->with([
    ['2,3 l', '.'],
    ['1,23', '.'],
    ['1.234,5', '.'],
    ['12.34.56', ','],
    ['(5', '.'],
    ['-(5)', '.'],
    ['-5-', '.'],
    ['1e5', '.'],
    ['n/a', '.'],
    ['-', '.'],
    ['%', '.'],
]);

it('stores up to 20 digits before and 8 after the point, in one form', function (string $text, bool $accepted) {
    $parse = fn () => Figure::parse($text);
    $accepted ? expect((string) $parse())->toBe($text) : expect($parse)->toThrow(InvalidArgumentException::class);
})->with([
    ['-12345678901234567890.12345678', true],
    ['123456789012345678901', false],
    ['1.123456789', false],
    ['+1', false],
    ['1.', false],
    ['1,000', false],
    ['', false],
]);

it('keeps a mean of thirds exact until it is given out', function () {
    $third = Exact::mean(Exact::of(10), 3);

    expect((string) $third)->toBe('3.333333333333')
        ->and($third->plus($third)->plus($third)->compareTo(Exact::of(10)))->toBe(0)
        ->and((string) $third->dividedBy(Exact::of(-2)))->toBe('-1.666666666667')
        ->and($third->compareTo(Exact::of('3.333333333333')))->toBe(1);
});

// 1,499 shown as 1.5k is common practice.
it('shows figures rounded half away from zero, scaled after rounding', function (string $figure, int $decimals, bool $scaled, string $shown) {
    $display = Display::of(Exact::of($figure), $decimals, $scaled);

    expect($display->digits.$display->suffix)->toBe($shown);
})->with([
    ['1499', 1, true, '1.5k'],
    ['1499', 1, false, '1499.0'],
    ['999', 0, true, '999'],
    ['999.96', 1, true, '1.0k'],
    ['999950', 1, true, '1.0m'],
    ['950000', 0, true, '950k'],
    ['-2500000', 1, true, '-2.5m'],
    ['3200000000', 1, true, '3.2bn'],
    ['94.96', 1, false, '95.0'],
    ['-0.25', 1, false, '-0.3'],
]);

it('says what is wrong with a figure', function (string $text, string $message) {
    expect(fn () => Figure::parse($text))->toThrow(InvalidArgumentException::class, $message);
})->with([
    ['x', "'x' is not a figure."],
    ['123456789012345678901', "'123456789012345678901' has more than 20 digits before the point."],
    ['1.123456789', "'1.123456789' has more than 8 decimals."],
]);

it('counts no leading zeros', fn () => expect((string) Figure::parse('000012345678901234567890'))->toBe('12345678901234567890'));
