<?php

declare(strict_types=1);

use App\Exchange\FormatController;
use App\Http\HealthController;
use App\Http\PageController;
use App\Http\ProblemController;
use App\Http\ProblemType;
use App\Support\Formats;
use Illuminate\Support\Facades\Route;

// For those who watch over it.
Route::get('up', [HealthController::class, 'up']);
Route::get('ready', [HealthController::class, 'ready']);

// The open formats are open: anybody may read how a workbook is written.
Route::get('formats/{format}.schema.json', FormatController::class)->whereIn('format', Formats::SCHEMAS);

// So is the API: anybody may read what a program could ask.
Route::get('formats/openapi.json', [FormatController::class, 'api']);

// A problem's type is the address of what it means.
Route::get('problems/{type?}', ProblemController::class)->whereIn('type', array_column(ProblemType::cases(), 'value'));

Route::get('/{any?}', PageController::class)->where('any', '^(?!api/|build/).*$');
