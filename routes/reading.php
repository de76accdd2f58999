<?php

declare(strict_types=1);

use App\Briefings\ReadingController;
use Illuminate\Support\Facades\Route;

// Whoever has a link reads what stands behind it, and nothing else: no session, no cookie.
Route::get('reading', ReadingController::class);
