<?php

declare(strict_types=1);

return [
    // The month in which the organisation's financial year starts, 1 to 12.
    'year_start_month' => (int) env('KYBERNET_YEAR_START_MONTH', 4),
    // The demonstration accounts are offered on the sign-in page, password and all.
    'demo' => (bool) env('KYBERNET_DEMO', false),
];
