<?php

declare(strict_types=1);

namespace App\People;

/** What whoever begins an organisation says of it and of themselves. */
final readonly class Beginning
{
    /**
     * @param  string  $link  the secret of the link that they came with
     * @param  string  $code  of the organisation as a unit
     * @param  int<1, 12>  $yearStartMonth
     * @param  string  $timeZone  IANA name, `Europe/Amsterdam`
     * @param  string  $currency  ISO 4217, `EUR`
     * @param  string  $locale  number setting
     */
    public function __construct(
        public string $link,
        public string $organisation,
        public string $code,
        public int $yearStartMonth,
        public string $timeZone,
        public string $currency,
        public string $locale,
        public string $name,
        public string $email,
        #[\SensitiveParameter] public string $password,
    ) {}
}
