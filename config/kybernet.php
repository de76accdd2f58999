<?php

declare(strict_types=1);

return [
    // The version of the rules that judgements are kept with; worked out once, when the settings are cached.
    'maker' => App\Kept\Maker::fingerprint(dirname(__DIR__)),
    // Addresses, with commas between them, that may say who the client is.
    'proxies' => (string) env('KYBERNET_PROXIES', ''),
    // Servers inside the own network that records may be asked of, with commas between them: name, address, or either with a port.
    'asked_hosts' => (string) env('KYBERNET_ASKED_HOSTS', ''),
    // Where records of the demonstration's stand-ins are asked, as JSON; blank outside it.
    'stand_in' => (string) env('KYBERNET_STAND_IN', ''),
    // The browser with which pages are printed as PDF, and the address at which it finds this place.
    'browser' => (string) env('KYBERNET_BROWSER', '/usr/bin/chromium'),
    'inner_url' => (string) env('KYBERNET_INNER_URL', env('APP_URL', 'http://127.0.0.1')),
    // A header by which the organisation's own proxy says who somebody is, and the addresses from which it is believed.
    'sign_in_header' => (string) env('KYBERNET_SIGN_IN_HEADER', ''),
    'sign_in_proxies' => (string) env('KYBERNET_SIGN_IN_PROXIES', ''),
];
