<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Reading;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Organisation\Views\UnitView;
use App\People\Views\DemoAccount;
use App\People\Views\SessionView;
use App\People\Views\UserView;
use App\Support\Installation;
use App\Support\Logo;
use App\Support\Month;
use App\Support\NumberSetting;
use Carbon\CarbonImmutable;
use Database\Ostermere\Accounts;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Query\Expression;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\FinancialYear;
use OpenApi\Attributes as OA;

final readonly class SessionController
{
    /** The hash of a password that nobody has, made as those of accounts are. */
    private const NOBODYS = '$2y$12$1ZSHT9rYD.wK/6j93ox6ZuV1uCo9qQKonqfghix7/q0y4T1dLmus6';

    public function __construct(
        private Organisation $organisation,
        private Rights $rights,
        private FinancialYear $year,
        private Installation $installation,
        private Hasher $hasher,
        private SecondFactor $factor,
        private OpenSessions $sessions,
        private Logo $logo,
    ) {}

    #[OA\Get(path: '/api/session', operationId: 'session', responses: [
        new OA\Response(response: 200, description: 'Who is signed in', content: new OA\JsonContent(ref: '#/components/schemas/Session')),
    ])]
    public function show(Request $request): JsonResponse
    {
        return new JsonResponse($this->session($request->user()));
    }

    #[OA\Post(path: '/api/session', operationId: 'signIn', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(
        required: ['email', 'password'],
        properties: [
            new OA\Property(property: 'email', type: 'string'),
            new OA\Property(property: 'password', type: 'string'),
            new OA\Property(property: 'code', description: 'of the second factor, or a recovery code: asked for where the person has one', type: 'string'),
        ],
    )), responses: [
        new OA\Response(response: 200, description: 'Signed in', content: new OA\JsonContent(ref: '#/components/schemas/Session')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(Request $request): JsonResponse
    {
        $credentials = $request->validate(
            ['email' => ['required', 'string', 'max:190'], 'password' => ['required', 'string', 'max:1000'], 'code' => ['nullable', 'string', 'max:40']],
            ['email.required' => 'Please give your e-mail address.', 'password.required' => 'Please give your password.'],
        );
        $user = User::query()->where(new Expression('lower(email)'), mb_strtolower($credentials['email']))->firstWhere('blocked_at', null);
        // An address that is not known costs as much work, and so as much time, as a wrong password.
        $isRight = $this->hasher->check($credentials['password'], $user->password ?? self::NOBODYS);
        if ($user === null || ! $isRight) {
            throw ValidationException::withMessages(['password' => 'This address and password do not belong together.']);
        }
        if ($this->factor->isAsked($user)) {
            $code = $request->string('code')->toString();
            if ($code === '' || ! $this->factor->take($user, $code)) {
                throw ValidationException::withMessages(['code' => $code === '' ? 'Give the code that your device shows, or one of your recovery codes.' : 'This code is not right, or was used before.']);
            }
        }
        Auth::login($user);
        $request->session()->regenerate();
        KnownDevice::remember($request, $user->email);

        return new JsonResponse($this->session($request->user()));
    }

    #[OA\Patch(path: '/api/session', operationId: 'saveSettings', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(
        properties: [
            new OA\Property(property: 'locale', description: 'how numbers are written', type: 'string', enum: NumberSetting::LOCALES),
            new OA\Property(property: 'dateLanguage', description: 'in which months and days are written', type: 'string', enum: NumberSetting::DATE_LANGUAGES),
        ],
    )), responses: [
        new OA\Response(response: 200, description: 'The setting was changed', content: new OA\JsonContent(ref: '#/components/schemas/Session')),
    ])]
    public function update(Request $request): JsonResponse
    {
        $request->validate(['locale' => ['required_without:dateLanguage', Rule::in(NumberSetting::LOCALES)], 'dateLanguage' => [Rule::in(NumberSetting::DATE_LANGUAGES)]]);
        /** @var User $user */
        $user = $request->user();
        $user->update(array_filter(['locale' => $request->string('locale')->toString(), 'date_language' => $request->string('dateLanguage')->toString()], fn (string $setting): bool => $setting !== ''));

        return new JsonResponse($this->session($user));
    }

    #[OA\Put(path: '/api/session/password', operationId: 'changePassword', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(
        required: ['current', 'password'],
        properties: [new OA\Property(property: 'current', type: 'string'), new OA\Property(property: 'password', type: 'string')],
    )), responses: [
        new OA\Response(response: 204, description: 'The password is changed; sessions on other devices have ended'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function password(Request $request): JsonResponse
    {
        $request->validate(
            ['current' => ['required', 'string', 'max:1000'], 'password' => ['required', 'string', 'max:1000']],
            ['current.required' => 'Give the password that you have now.', 'password.required' => 'Choose a password.'],
        );
        /** @var User $user */
        $user = $request->user();
        $password = $request->string('password')->toString();
        $problem = PasswordRules::problem($password, [$user->name, $user->email]);
        if (! $this->hasher->check($request->string('current')->toString(), $user->password)) {
            throw ValidationException::withMessages(['current' => 'This is not the password that you have now.']);
        }
        if ($problem !== '') {
            throw ValidationException::withMessages(['password' => $problem]);
        }
        $user->update(['password' => $password]);
        Auth::login($user);
        $request->session()->regenerate();
        $this->sessions->endAll($user, $request->session()->getId());

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/session', operationId: 'signOut', responses: [new OA\Response(response: 204, description: 'Signed out')])]
    public function destroy(Request $request): JsonResponse
    {
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return new JsonResponse(null, 204);
    }

    private function session(?User $user): SessionView
    {
        if ($user === null) {
            return new SessionView(null, [], '', '', $this->year->startMonth, false, $this->organisation->units() === [], null, null, $this->installation->isDemonstration() ? $this->demo() : []);
        }
        $this->see($user);
        $newest = Reading::query()->whereNotNull('actual')->max('period');
        $running = Month::running();

        return new SessionView(
            UserView::of($user, $this->rights, $user->second_factor_since === null && $this->installation->needsSecondFactor(), $user->recordSets()->exists()),
            $this->units($user),
            is_string($newest) ? Month::ofDate($newest)->key() : $running->key(),
            $running->key(),
            $this->year->startMonth,
            $this->rights->administers($user) && ! $this->installation->isSettled(),
            false,
            $this->installation->accent(),
            $this->logo->address(),
            [],
        );
    }

    #[OA\Post(path: '/api/forgotten', operationId: 'forgotten', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['email'], properties: [new OA\Property(property: 'email', type: 'string')])), responses: [
        new OA\Response(response: 204, description: 'Whoever has the address is let in again by a link: the answer is the same for everybody'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function forgotten(Request $request): JsonResponse
    {
        $request->validate(['email' => ['required', 'string', 'email', 'max:190']], ['email.*' => 'Give your e-mail address.']);
        ForgottenJob::dispatch($request->string('email')->lower()->toString());

        return new JsonResponse(null, 204);
    }

    /** When somebody was here last is told to the minute or so: not every request writes it. */
    private function see(User $user): void
    {
        if ($user->seen_at === null || CarbonImmutable::parse($user->seen_at)->lt(CarbonImmutable::now()->subMinutes(5))) {
            User::query()->whereKey($user->id)->toBase()->update(['seen_at' => now()]);
        }
        if ($user->asked_at !== null) {
            // They came in by themselves.
            User::query()->whereKey($user->id)->toBase()->update(['asked_at' => null]);
        }
    }

    /** @return list<UnitView> those that the person may open; the topmost of them stands for the whole */
    private function units(User $user): array
    {
        $seen = $this->rights->units($user);
        $letters = $this->organisation->letters();

        return array_map(function (int $id) use ($seen, $letters): UnitView {
            $unit = $this->organisation->unit($id);

            return new UnitView(
                $unit->code,
                $unit->name,
                $unit->kind,
                $unit->parent_id === null || ! in_array($unit->parent_id, $seen, true) ? null : $this->organisation->unit($unit->parent_id)->code,
                $letters[$id],
            );
        }, $seen);
    }

    /** @return list<DemoAccount> */
    private function demo(): array
    {
        return array_map(
            fn (array $account): DemoAccount => new DemoAccount($account['email'], Accounts::PASSWORD, $account['name'], $account['role']->words()),
            Accounts::all(),
        );
    }
}
