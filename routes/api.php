<?php

declare(strict_types=1);

use App\Http\Controllers\KpiController;
use App\Http\Controllers\LogbookController;
use App\Http\Controllers\ReviewController;
use App\Http\Controllers\SessionController;
use App\Models\Kpi;
use Illuminate\Support\Facades\Route;

Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'store'])->middleware('throttle:sign-in');

// A person has one session, their own; every other address is behind a policy.
Route::middleware('auth')->group(function (): void {
    Route::patch('session', [SessionController::class, 'update']);
    Route::delete('session', [SessionController::class, 'destroy']);

    Route::get('units/{unit}/ribbon', [ReviewController::class, 'ribbon'])->can('view', 'unit');
    Route::get('units/{unit}/scorecard', [ReviewController::class, 'scorecard'])->can('view', 'unit');
    Route::get('units/{unit}/logbook', [LogbookController::class, 'show'])->can('view', 'unit');

    Route::get('measured/{measured}', [ReviewController::class, 'row'])->can('view', 'measured');
    Route::where(['period' => '(199\d|20\d\d)-(0[1-9]|1[0-2])'])->group(function (): void {
        Route::put('measured/{measured}/readings/{period}', [LogbookController::class, 'reading'])->can('log', 'measured');
        Route::post('measured/{measured}/readings/{period}/preview', [LogbookController::class, 'preview'])->can('log', 'measured');
        Route::put('measured/{measured}/notes/{period}', [LogbookController::class, 'note'])->can('log', 'measured');
    });

    Route::get('kpis', [KpiController::class, 'index'])->can('viewAny', Kpi::class);
    Route::get('kpis/{kpi}', [KpiController::class, 'show'])->can('view', 'kpi');
    Route::post('kpis', [KpiController::class, 'store'])->can('define', Kpi::class);
    Route::put('kpis/{kpi}', [KpiController::class, 'update'])->can('define', 'kpi');
});
