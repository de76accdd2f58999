<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\User;
use Closure;
use Illuminate\Config\Repository;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\IpUtils;
use Symfony\Component\HttpFoundation\Response;

/**
 * Behind an organisation's own proxy that knows who somebody is: it says so in a header, and only requests that come from
 * its own addresses are believed. Off until both are set (KYBERNET_SIGN_IN_HEADER, KYBERNET_SIGN_IN_PROXIES).
 */
final readonly class SignsInByHeader
{
    public function __construct(private Repository $config) {}

    public function handle(Request $request, Closure $next): Response
    {
        $email = $this->said($request);
        // Somebody's address may be kept with capitals; they are not signed in again with every request.
        if ($email !== null && mb_strtolower($request->user()->email ?? '') !== $email) {
            $user = User::query()->whereRaw('lower(email) = ?', [$email])->whereNull('blocked_at')->where('is_program', false)->first();
            if ($user === null) {
                Auth::logout();
            } else {
                Auth::login($user);
                $request->session()->regenerate();
            }
        }
        /** @var Response $response */
        $response = $next($request);

        return $response;
    }

    /** Whether a request may begin a session by its header. */
    public function said(Request $request): ?string
    {
        $header = $this->config->string('kybernet.sign_in_header');
        $proxies = array_filter(explode(',', $this->config->string('kybernet.sign_in_proxies')), fn (string $each): bool => $each !== '');
        $said = $header === '' ? null : $request->headers->get($header);
        // The address of the connection itself, whatever a header says of it.
        $from = $request->server->get('REMOTE_ADDR');

        return is_string($said) && $said !== '' && is_string($from) && $proxies !== [] && IpUtils::checkIp($from, $proxies) ? mb_strtolower(trim($said)) : null;
    }
}
