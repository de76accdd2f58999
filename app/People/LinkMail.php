<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\Support\MailServer;
use Illuminate\Mail\Message;

/** Writes to people by e-mail, where the installation has a server for it. */
final readonly class LinkMail
{
    public function __construct(private MailServer $server) {}

    public function isOn(): bool
    {
        return $this->server->isOn();
    }

    public function send(User $user, string $link): void
    {
        $invited = $user->joined_at === null;
        $text = ($invited ? "You are invited to Kybernet. Choose a password here, within seven days:\n\n" : "Choose a new password for Kybernet here, within thirty minutes:\n\n")
            ."{$link}\n\n".($invited ? 'The link works once.' : 'The link works once. If you did not ask for it, nothing has changed.')."\n";
        $this->server->mailer()->raw($text, function (Message $message) use ($user, $invited): void {
            $message->to($user->email, $user->name)->subject($invited ? 'Your invitation to Kybernet' : 'A new password for Kybernet');
        });
    }
}
