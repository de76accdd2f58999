<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use Illuminate\Contracts\Queue\ShouldBeEncrypted;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** A link on its way by e-mail: a mail server that is slow or away keeps nobody waiting. */
final class LinkMailJob implements ShouldBeEncrypted, ShouldQueue
{
    use Queueable;

    public int $tries = 5;

    /** @var list<int> seconds between the attempts */
    public array $backoff = [10, 60, 300, 600];

    public function __construct(private readonly int $user, private readonly string $link) {}

    public function handle(LinkMail $mail): void
    {
        $user = User::query()->whereNull('blocked_at')->find($this->user);
        if ($user !== null) {
            $mail->send($user, $this->link);
        }
    }
}
