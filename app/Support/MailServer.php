<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Config\Repository;
use Illuminate\Contracts\Encryption\Encrypter;
use Illuminate\Contracts\Mail\Mailer;
use Illuminate\Mail\MailManager;

/**
 * Through whom people are written to: the server that the settings of the place name (MAIL_HOST and those beside it), or
 * else the one that was set on the screen. Without either nobody is written to, and links are handed over.
 */
final readonly class MailServer
{
    public function __construct(private Repository $config, private MailManager $mail, private Installation $installation, private Encrypter $encrypter) {}

    public function isOn(): bool
    {
        return $this->isOfPlace() || $this->installation->mail()['host'] !== '';
    }

    /** Whether the settings of the place name it: what is set on the screen then waits. */
    public function isOfPlace(): bool
    {
        return $this->config->string('mail.mailers.smtp.host') !== '';
    }

    public function mailer(): Mailer
    {
        if ($this->isOfPlace()) {
            return $this->mail->mailer();
        }
        ['host' => $host, 'port' => $port, 'user' => $user, 'from' => $from, 'secret' => $secret] = $this->installation->mail();

        $mailer = $this->mail->build([
            'transport' => 'smtp', 'host' => $host, 'port' => $port, 'timeout' => $this->config->integer('mail.mailers.smtp.timeout'),
            ...($user === '' ? [] : ['username' => $user, 'password' => $secret === null ? '' : $this->encrypter->decrypt($secret, false)]),
        ]);
        $mailer->alwaysFrom($from, $this->config->string('mail.from.name'));

        return $mailer;
    }
}
