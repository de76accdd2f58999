<?php

declare(strict_types=1);

namespace App\Providers;

use App\Figures\Closures;
use App\Figures\Organisation;
use App\Kept\Maker;
use App\Policies\Rights;
use App\Support\PeriodDate;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\ServiceProvider;
use Illuminate\Support\Str;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Scorecard;
use Symfony\Component\HttpFoundation\Response;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->singleton(FinancialYear::class, fn (): FinancialYear => new FinancialYear(config()->integer('kybernet.year_start_month')));
        $this->app->singleton(Scorecard::class, fn (): Scorecard => new Scorecard($this->app->make(FinancialYear::class)));
        $this->app->bind(Connection::class, fn (): Connection => $this->app->make('db')->connection());
        $this->app->singleton(Maker::class, fn (): Maker => new Maker(config()->integer('kybernet.maker')));
        $this->app->singleton(PeriodDate::class);
        $this->app->scoped(Organisation::class);
        $this->app->scoped(Rights::class);
        $this->app->scoped(Closures::class);
    }

    public function boot(): void
    {
        Model::shouldBeStrict();
        RateLimiter::for('sign-in', fn (Request $request): Limit => Limit::perMinute(10)
            ->by(Str::lower($request->string('email')->toString()).'|'.$request->ip())
            // Who knows the password is not guessing.
            ->after(fn (Response $response): bool => ! $response->isSuccessful()));
    }
}
