<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\EntryLinkView;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Somebody asked to be let in again. It is looked at in the background, for known and unknown addresses alike, so that
 * neither the answer nor the time that it takes says who has an account.
 */
final class ForgottenJob implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public function __construct(private readonly string $email) {}

    public function handle(EntryLinks $links, LinkMail $mail): void
    {
        $user = User::query()->whereRaw('lower(email) = ?', [$this->email])->whereNull('blocked_at')->first();
        if ($user === null) {
            return;
        }
        if ($mail->isOn()) {
            $mail->send($user, (new EntryLinkView($links->make($user)))->link);
        } else {
            // Nobody can be written to, so an administrator is shown who asked, and hands over a link.
            $user->forceFill(['asked_at' => now()])->save();
        }
    }
}
