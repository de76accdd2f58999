<?php

declare(strict_types=1);

namespace App\Providers;

use App\Briefings\BriefingPolicy;
use App\Figures\Closures;
use App\Http\KeptSessions;
use App\Import\ImportController;
use App\Import\ImportJob;
use App\Import\ImportPolicy;
use App\Kept\Maker;
use App\Logbook\FigureSheet;
use App\Logbook\TargetSheet;
use App\Models\Action;
use App\Models\Briefing;
use App\Models\Import;
use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\MeasurementPolicy;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Organisation\UnitPolicy;
use App\Organisation\UnitSheet;
use App\People\KnownDevice;
use App\People\PeopleSheet;
use App\People\UserPolicy;
use App\Records\RecordSets;
use App\Register\DefinitionSheet;
use App\Register\KpiPolicy;
use App\Review\ActionPolicy;
use App\Settings\Tokens;
use App\Sources\LoadController;
use App\Sources\LoadJob;
use App\Sources\LoadPolicy;
use App\Sources\Loads;
use App\Sources\SourcePolicy;
use App\Support\FileSteps;
use App\Support\Installation;
use App\Support\PeriodDate;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Middleware\TrustProxies;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\Facades\Session;
use Illuminate\Support\ServiceProvider;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Scorecard;
use Symfony\Component\HttpFoundation\Response;

final class AppServiceProvider extends ServiceProvider
{
    /** Each stands with its capability, where the framework would not look for it. */
    private const POLICIES = [
        Action::class => ActionPolicy::class,
        Briefing::class => BriefingPolicy::class,
        Import::class => ImportPolicy::class,
        RecordLoad::class => LoadPolicy::class,
        RecordSet::class => SourcePolicy::class,
        Kpi::class => KpiPolicy::class,
        Measurement::class => MeasurementPolicy::class,
        Unit::class => UnitPolicy::class,
        User::class => UserPolicy::class,
    ];

    public function register(): void
    {
        $this->app->scoped(FinancialYear::class, fn (): FinancialYear => new FinancialYear($this->app->make(Installation::class)->yearStartMonth()));
        $this->app->scoped(Scorecard::class, fn (): Scorecard => new Scorecard($this->app->make(FinancialYear::class)));
        $this->app->bind(Connection::class, fn (): Connection => $this->app->make('db')->connection());
        $steps = fn (string $table, \Closure $job): \Closure => fn (): FileSteps => new FileSteps($this->app->make(Connection::class), $this->app->make(Dispatcher::class), $table, $job);
        $this->app->bind('steps-of-imports', $steps('imports', fn (int $file, int $turn): ImportJob => new ImportJob($file, $turn)));
        $this->app->bind('steps-of-loads', $steps('record_loads', fn (int $file, int $turn): LoadJob => new LoadJob($file, $turn)));
        $this->app->when(ImportController::class)->needs(FileSteps::class)->give('steps-of-imports');
        $this->app->when([LoadController::class, Loads::class])->needs(FileSteps::class)->give('steps-of-loads');
        $this->app->singleton(Maker::class, fn (): Maker => new Maker(config()->integer('kybernet.maker')));
        // In the order in which one needs the other.
        $this->app->tag([UnitSheet::class, PeopleSheet::class, DefinitionSheet::class, TargetSheet::class, FigureSheet::class], 'book-sheets');
        $this->app->scoped(Installation::class);
        $this->app->scoped(PeriodDate::class);
        $this->app->scoped(Organisation::class);
        $this->app->scoped(Rights::class);
        $this->app->scoped(Closures::class);
        $this->app->scoped(RecordSets::class);
    }

    public function boot(): void
    {
        Model::shouldBeStrict();
        Session::extend('kept', fn (): KeptSessions => new KeptSessions($this->app->make('db')->connection(), config()->string('session.table'), config()->integer('session.lifetime'), $this->app));
        TrustProxies::at(array_values(array_filter(explode(',', config()->string('kybernet.proxies')), fn (string $address): bool => $address !== '')));
        Auth::viaRequest('token-of-program', fn (Request $request): ?User => $request->bearerToken() === null ? null : $this->app->make(Tokens::class)->account($request->bearerToken()));
        foreach (self::POLICIES as $model => $policy) {
            Gate::policy($model, $policy);
        }
        RateLimiter::for('sign-in', function (Request $request): array {
            $account = $request->string('email')->lower()->toString();
            // Only wrong passwords are guesses: who knows it is not guessing, and what breaks here is nobody's guess.
            $wrong = fn (Response $response): bool => $response->getStatusCode() === 422;
            if (KnownDevice::is($request, $account)) {
                // Strangers who guess at an account do not lock out whoever has signed in to it from this device.
                return [Limit::perMinute(10)->by("device|{$account}|{$request->ip()}")->after($wrong)];
            }

            return [
                Limit::perMinute(10)->by("{$account}|{$request->ip()}")->after($wrong),
                Limit::perMinutes(15, 50)->by("account|{$account}")->after($wrong),
                Limit::perMinute(60)->by("address|{$request->ip()}")->after($wrong),
            ];
        });
        RateLimiter::for('program', fn (Request $request): array => [Limit::perMinute(300)->by('program|'.hash('sha256', $request->bearerToken() ?? '')."|{$request->ip()}")]);
        RateLimiter::for('reading', fn (Request $request): array => [Limit::perMinute(60)->by("reading|{$request->ip()}")]);
        RateLimiter::for('password', fn (Request $request): array => [Limit::perMinute(10)->by("password|{$request->ip()}")]);
        RateLimiter::for('forgotten', fn (Request $request): array => [Limit::perMinute(5)->by("forgotten|{$request->ip()}"), Limit::perHour(5)->by('forgotten|'.(is_string($request->input('email')) ? mb_strtolower($request->input('email')) : ''))]);
        RateLimiter::for('beginning', fn (Request $request): array => [Limit::perMinute(20)->by("beginning|{$request->ip()}")]);
        // What does not look like an identity is none, before the database is asked.
        Route::pattern('session', '[a-f0-9]{32}');
        foreach (['measurement', 'import', 'action', 'person', 'standIn', 'token', 'recordLoad', 'link'] as $identity) {
            Route::pattern($identity, '[0-9]{1,18}');
        }
        Route::pattern('briefing', '[a-z0-9][a-z0-9-]{0,59}');
        foreach (['unit', 'kpi', 'recordSet'] as $code) {
            Route::pattern($code, '[A-Za-z][A-Za-z0-9_.-]{0,63}');
        }
    }
}
