<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\EntryLinkView;

/** A link for somebody: sent by e-mail where that can be done, and handed to the administrator in any case. */
final readonly class SendLink
{
    public function __construct(private LinkMail $mail) {}

    public function __invoke(string $email, string $secret): EntryLinkView
    {
        $view = new EntryLinkView($secret, $this->mail->isOn());
        $user = User::query()->whereRaw('lower(email) = lower(?)', [$email])->first();
        if ($view->sent && $user !== null) {
            LinkMailJob::dispatch($user->id, $view->link);
        }

        return $view;
    }
}
