<?php

declare(strict_types=1);

use App\Http\Controllers\ReferenceController;
use App\Http\Controllers\WatchingController;
use App\Http\Middleware\StillThere;
use Illuminate\Support\Facades\Route;

Route::view('/', 'app')->withoutMiddleware('web');
// the API's reference, as the product ships it
Route::get('/reference', [ReferenceController::class, 'page'])->withoutMiddleware('web');
Route::get('/reference/openapi.json', [ReferenceController::class, 'document'])->withoutMiddleware('web');
Route::get('/reference/formats/{format}.schema.json', [ReferenceController::class, 'format'])
    ->where('format', '[a-z-]+')
    ->withoutMiddleware('web');
// for who watches this from outside, with a token
Route::middleware(['auth:sanctum', StillThere::class])->withoutMiddleware('web')->group(static function (): void {
    Route::get('/health', [WatchingController::class, 'health']);
    Route::get('/metrics', [WatchingController::class, 'metrics']);
});
// for programs that want a token before they sign in: the real one comes with the session
Route::get('/sanctum/csrf-cookie', static fn () => response()->noContent()->withCookie(
    cookie('XSRF-TOKEN', bin2hex(random_bytes(20)), httpOnly: false),
))->withoutMiddleware('web');
