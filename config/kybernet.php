<?php

declare(strict_types=1);

return [
    // The version of the rules that judgements are kept with; worked out once, when the settings are cached.
    'maker' => App\Kept\Maker::fingerprint(dirname(__DIR__)),
    // The month in which the organisation's financial year starts, 1 to 12.
    'year_start_month' => (int) env('KYBERNET_YEAR_START_MONTH', 4),
    // The demonstration accounts are offered on the sign-in page, password and all.
    'demo' => (bool) env('KYBERNET_DEMO', false),
];
