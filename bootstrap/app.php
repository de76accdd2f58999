<?php

declare(strict_types=1);

use App\Http\Middleware\AsksSecondFactor;
use App\Http\Middleware\ContentSecurity;
use App\Http\Middleware\FewSessions;
use App\Http\Middleware\ForgeryProtection;
use App\Http\Middleware\NamesActor;
use App\Http\Middleware\NamesRequest;
use App\Http\Middleware\SignsInByHeader;
use App\Http\Middleware\SoundRequest;
use App\Http\Problem;
use App\Http\SecondFactorMissing;
use App\Support\Conflict;
use Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse;
use Illuminate\Cookie\Middleware\EncryptCookies;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use Illuminate\Routing\Middleware\SubstituteBindings;
use Illuminate\Session\Middleware\AuthenticateSession;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\Support\Facades\Route;
use Illuminate\View\Middleware\ShareErrorsFromSession;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__.'/../routes/web.php',
        api: __DIR__.'/../routes/api.php',
        commands: __DIR__.'/../routes/console.php',
        // Without sessions and their cookies, so a request cannot be forged in anybody's name.
        then: function (): void {
            Route::prefix('api/programs')->middleware([SoundRequest::class, 'throttle:program', SubstituteBindings::class])->group(__DIR__.'/../routes/programs.php');
            Route::prefix('api')->middleware([SoundRequest::class, 'throttle:reading'])->group(__DIR__.'/../routes/reading.php');
            Route::prefix('api/record-sets')->middleware(['throttle:program'])->group(__DIR__.'/../routes/senders.php');
        },
    )
    ->withMiddleware(function (Middleware $middleware): void {
        // The application is same-origin, and the package behind this middleware is not installed: see compat/.
        $middleware->remove(HandleCors::class);
        $middleware->prepend(NamesRequest::class);
        $middleware->append(ContentSecurity::class);
        // The API is for this application's own pages: a cookie session, with protection against forged requests.
        $middleware->api(prepend: [
            SoundRequest::class,
            FewSessions::class,
            EncryptCookies::class,
            AddQueuedCookiesToResponse::class,
            StartSession::class,
            ForgeryProtection::class,
            // A changed password ends the sessions that were begun with the former one.
            AuthenticateSession::class,
        ], append: [SignsInByHeader::class, NamesActor::class, AsksSecondFactor::class]);
        // The page itself is the same for everybody; who is signed in, it asks the API.
        $middleware->web(remove: [StartSession::class, ShareErrorsFromSession::class, ValidateCsrfToken::class]);
        // How far in a line of a list stands says where its unit belongs, on the first line too.
        $middleware->trimStrings(except: ['list', 'password', 'current']);
        $middleware->encryptCookies(except: ['theme']);
        $middleware->redirectGuestsTo('/');
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->dontReport([Conflict::class, SecondFactorMissing::class]);
        // Requests that wait for the database say so, and would fill the log with the same line.
        $exceptions->dontReportWhen(fn (Throwable $error): bool => Problem::isAway($error));
        $exceptions->shouldRenderJsonWhen(fn (Request $request): bool => str_starts_with($request->getPathInfo(), '/api/'));
        $exceptions->render(fn (Throwable $error, Request $request) => str_starts_with($request->getPathInfo(), '/api/') || Problem::isAway($error) ? Problem::from($error) : null);
    })
    ->create();

// Each instance (the application, its tests) keeps its settings, caches and logs in a folder of its own.
$home = getenv('KYBERNET_HOME') ?: dirname(__DIR__).'/var/app';
$app->useEnvironmentPath($home);
$app->useStoragePath($home.'/storage');

return $app;
