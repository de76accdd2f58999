<?php

declare(strict_types=1);

use App\Exchange\ExportController;
use App\Exchange\ProgramController;
use App\Http\Middleware\NamesActor;
use App\Models\Kpi;
use App\Register\KpiController;
use App\Review\ReviewController;
use App\Review\ReviewFileController;
use Illuminate\Support\Facades\Route;

// Programs come with a token in the place of a session, and are answered as the account is whose token it is.
Route::middleware(['auth:program', NamesActor::class])->group(function (): void {
    Route::get('kpis', [KpiController::class, 'index'])->can('viewAny', Kpi::class);
    Route::get('units/{unit}/figures', [ExportController::class, 'figures'])->can('view', 'unit');
    Route::get('units/{unit}/scorecard', [ReviewController::class, 'scorecard'])->can('view', 'unit');
    Route::get('units/{unit}/scorecard/file', [ReviewFileController::class, 'scorecard'])->can('view', 'unit');
    Route::put('readings', [ProgramController::class, 'write'])->can('write', Kpi::class);
});
