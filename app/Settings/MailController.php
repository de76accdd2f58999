<?php

declare(strict_types=1);

namespace App\Settings;

use App\Models\User;
use App\Support\MailServer;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Mail\Message;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;
use Symfony\Component\Mailer\Exception\ExceptionInterface;

final readonly class MailController
{
    #[OA\Put(path: '/api/settings/mail', operationId: 'changeMailServer', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/MailServerInput')), responses: [
        new OA\Response(response: 204, description: 'It is set'),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(MailRequest $request, SaveMailServer $save): JsonResponse
    {
        $save($request->wanted(), $request->password(), $request->version());

        return new JsonResponse(null, 204);
    }

    #[OA\Post(path: '/api/settings/mail/trial', operationId: 'tryMailServer', responses: [
        new OA\Response(response: 204, description: 'The server took a mail to whoever asks'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function try(MailServer $server, #[CurrentUser] User $user): JsonResponse
    {
        if (! $server->isOn()) {
            throw ValidationException::withMessages(['host' => 'No server is set.']);
        }
        try {
            $server->mailer()->raw("This is a trial from Kybernet. If you read it, people can be written to.\n", fn (Message $message) => $message->to($user->email, $user->name)->subject('A trial from Kybernet'));
        } catch (ExceptionInterface $failure) {
            throw ValidationException::withMessages(['host' => 'It did not go through. The server, or the way to it, says: '.mb_substr($failure->getMessage(), 0, 300)]);
        }

        return new JsonResponse(null, 204);
    }
}
