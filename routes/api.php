<?php

declare(strict_types=1);

use App\Http\Controllers\AlmanacController;
use App\Http\Controllers\BenchController;
use App\Http\Controllers\JobController;
use App\Http\Controllers\SessionController;
use Illuminate\Support\Facades\Route;

Route::post('/session', [SessionController::class, 'signIn'])->middleware('throttle:sign-in');

Route::middleware('auth:sanctum')->group(static function (): void {
    Route::get('/session', [SessionController::class, 'show']);
    Route::delete('/session', [SessionController::class, 'signOut']);

    Route::get('/bench', [BenchController::class, 'show']);
    Route::get('/jobs/{job}', [JobController::class, 'show']);
    Route::get('/jobs/{job}/windows', [AlmanacController::class, 'windows']);

    Route::middleware('can:act')->group(static function (): void {
        Route::post('/almanac/refresh', [AlmanacController::class, 'refresh']);
        Route::post('/jobs', [JobController::class, 'open']);
        Route::put('/jobs/{job}/goal', [JobController::class, 'plan']);
        Route::put('/jobs/{job}/route', [JobController::class, 'acceptRoute']);
        Route::put('/jobs/{job}/attestations/{code}', [JobController::class, 'attest']);
        Route::post('/jobs/{job}/line', [JobController::class, 'crossLine']);
        Route::post('/jobs/{job}/backup-again', [JobController::class, 'backUpAgain']);
        Route::post('/jobs/{job}/steps/{code}/retry', [JobController::class, 'retry']);
        Route::post('/jobs/{job}/hand-over', [JobController::class, 'handOver']);
        Route::post('/jobs/{job}/leave', [JobController::class, 'leave']);
    });
});
