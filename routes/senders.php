<?php

declare(strict_types=1);

use App\Sources\SentController;
use Illuminate\Support\Facades\Route;

// Records that a program sends, with a token of the set alone: it has no session, and nothing else is answered.
Route::post('{recordSet}/records', [SentController::class, 'store']);
Route::get('{recordSet}/records/{recordLoad}', [SentController::class, 'show']);
