<?php

declare(strict_types=1);

return [
    // The version of the rules that judgements are kept with; worked out once, when the settings are cached.
    'maker' => App\Kept\Maker::fingerprint(dirname(__DIR__)),
];
