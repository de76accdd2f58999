<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Secret', description: 'A second factor that a device is to know.')]
final readonly class SecretView
{
    #[OA\Property(description: 'base32, to be typed')]
    public string $secret;

    #[OA\Property(description: 'the same for a device that reads it from the screen')]
    public string $address;

    public function __construct(string $secret, string $email)
    {
        $this->secret = $secret;
        $this->address = 'otpauth://totp/'.rawurlencode("Kybernet:{$email}").'?'.http_build_query(['secret' => $secret, 'issuer' => 'Kybernet', 'algorithm' => 'SHA1', 'digits' => 6, 'period' => 30], '', '&', PHP_QUERY_RFC3986);
    }
}
