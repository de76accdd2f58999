<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\AccountView;
use App\People\Views\RecoveryCodes;
use App\People\Views\SecretView;
use App\Support\Installation;
use App\Views\PersonView;
use Carbon\CarbonImmutable;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;

/** What people keep of their own: their name, their second factor, where they are signed in, who stands in. */
final readonly class AccountController
{
    public function __construct(private SecondFactor $factor, private OpenSessions $sessions, private StandIns $standIns, private Installation $installation, private Hasher $hasher) {}

    #[OA\Get(path: '/api/account', operationId: 'account', responses: [
        new OA\Response(response: 200, description: 'What is the person’s own', content: new OA\JsonContent(ref: '#/components/schemas/Account')),
    ])]
    public function show(Request $request, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse(new AccountView(
            $user->id,
            $user->name,
            $user->email,
            $user->second_factor_since === null ? null : CarbonImmutable::parse($user->second_factor_since)->utc()->toIso8601ZuluString(),
            $this->factor->remaining($user),
            $this->installation->needsSecondFactor(),
            $this->sessions->of($user, $request->session()->getId()),
            $this->standIns->of($user),
            array_values(User::query()->whereNull('blocked_at')->where('is_program', false)->whereKeyNot($user->id)->orderBy('name')->get()->map(fn (User $other): PersonView => new PersonView($other->id, $other->name))->all()),
        ));
    }

    #[OA\Patch(path: '/api/account', operationId: 'changeName', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['name'], properties: [new OA\Property(property: 'name', type: 'string', maxLength: 120)])), responses: [
        new OA\Response(response: 204, description: 'They are called so from now on'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function rename(Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(['name' => ['required', 'string', 'max:120']], ['name.required' => 'What are you called?', 'name.max' => 'A name has up to 120 characters.']);
        $name = Str::squish($request->string('name')->toString());
        if ($name === '') {
            throw ValidationException::withMessages(['name' => 'What are you called?']);
        }
        $user->update(['name' => $name]);

        return new JsonResponse(null, 204);
    }

    #[OA\Post(path: '/api/account/second-factor', operationId: 'beginSecondFactor', responses: [
        new OA\Response(response: 201, description: 'A secret for the device; nothing is asked for yet', content: new OA\JsonContent(ref: '#/components/schemas/Secret')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function beginFactor(#[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse(new SecretView($this->factor->begin($user), $user->email), 201);
    }

    #[OA\Put(path: '/api/account/second-factor', operationId: 'confirmSecondFactor', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['code'], properties: [new OA\Property(property: 'code', type: 'string')])), responses: [
        new OA\Response(response: 200, description: 'A code is asked for from now on; recovery codes, shown this once', content: new OA\JsonContent(ref: '#/components/schemas/RecoveryCodes')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function confirmFactor(Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(['code' => ['required', 'string', 'max:40']], ['code.*' => 'Give the code that the device shows.']);

        return new JsonResponse(new RecoveryCodes($this->factor->confirm($user, $request->string('code')->toString())));
    }

    #[OA\Delete(path: '/api/account/second-factor', operationId: 'takeSecondFactorOff', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['password'], properties: [new OA\Property(property: 'password', type: 'string')])), responses: [
        new OA\Response(response: 204, description: 'No code is asked for any longer'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function takeFactorOff(Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(['password' => ['required', 'string', 'max:1000']], ['password.*' => 'Give your password.']);
        if (! $this->hasher->check($request->string('password')->toString(), $user->password)) {
            throw ValidationException::withMessages(['password' => 'This is not your password.']);
        }
        $this->factor->takeOff($user);

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/account/sessions', operationId: 'endOtherSessions', responses: [
        new OA\Response(response: 204, description: 'They are signed in here alone'),
    ])]
    public function endOthers(Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $this->sessions->endAll($user, $request->session()->getId());

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/account/sessions/{session}', operationId: 'endSession', parameters: [
        new OA\Parameter(name: 'session', in: 'path', required: true, schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 204, description: 'It is over'),
    ])]
    public function end(string $session, #[CurrentUser] User $user): JsonResponse
    {
        $this->sessions->end($user, $session);

        return new JsonResponse(null, 204);
    }
}
