<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Status\Reach;

it('reaches as far back as any rule looks', function (Frequency $frequency, ?int $periods, int $months) {
    expect(Reach::of($frequency, $periods))->toBe($months);
})->with([
    'no recent periods' => [Frequency::Month, null, 36],
    'three months' => [Frequency::Month, 3, 39],
    'five weeks end in two months' => [Frequency::Week, 5, 38],
    'four weeks' => [Frequency::Week, 4, 37],
    'four quarters' => [Frequency::Quarter, 4, 48],
    'two years' => [Frequency::Year, 2, 60],
]);
