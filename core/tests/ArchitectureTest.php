<?php

declare(strict_types=1);

arch('the core knows nothing of framework, database or interface')
    ->expect('Kybernet\Core')
    ->toOnlyUse(['Kybernet\Core', 'Brick\Math', 'Symfony\Component\ExpressionLanguage', 'Opis\JsonSchema', 'InvalidArgumentException', 'Closure', 'BackedEnum', 'stdClass'])
    ->ignoring('Kybernet\Core\Tests');

arch('the core reads no clock, no chance and no files, and prints nothing')
    ->expect(['time', 'date', 'microtime', 'rand', 'mt_rand', 'random_int', 'fopen', 'file_get_contents', 'file_put_contents', 'echo', 'print', 'setlocale', 'getenv'])
    ->not->toBeUsedIn('Kybernet\Core');

arch('what the core hands out cannot be changed')
    ->expect(['Kybernet\Core\Calendar\Period', 'Kybernet\Core\Calendar\FinancialYear', 'Kybernet\Core\Measure\Exact', 'Kybernet\Core\Measure\Definition', 'Kybernet\Core\Measure\Measurement', 'Kybernet\Core\Status\RuleSet', 'Kybernet\Core\Assessment'])
    ->toBeReadonly();
