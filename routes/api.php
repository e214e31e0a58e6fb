<?php

declare(strict_types=1);

use App\Http\Handoff\ReadController;
use App\Http\Middleware\FromReplica;
use App\Http\Middleware\ReadToken;
use Illuminate\Support\Facades\Route;

// What programs of others read of one production, with its token; see docs/api.md. Nothing here changes anything.
Route::middleware(['throttle:read', ReadToken::class, FromReplica::class])->group(static function (): void {
    Route::get('production', [ReadController::class, 'production']);
    Route::get('days/{day}/takes', [ReadController::class, 'takes']);
    Route::get('handoffs', [ReadController::class, 'handoffs']);
    Route::get('handoffs/{handoff}/files', [ReadController::class, 'files']);
});
