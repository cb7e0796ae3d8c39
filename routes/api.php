<?php

declare(strict_types=1);

use App\Http\Controllers\AccessController;
use App\Http\Controllers\AlmanacController;
use App\Http\Controllers\BatchController;
use App\Http\Controllers\BenchController;
use App\Http\Controllers\EndController;
use App\Http\Controllers\FindController;
use App\Http\Controllers\ForecastController;
use App\Http\Controllers\IntakeController;
use App\Http\Controllers\JobController;
use App\Http\Controllers\JournalController;
use App\Http\Controllers\NearController;
use App\Http\Controllers\PackageController;
use App\Http\Controllers\PeopleController;
use App\Http\Controllers\PrivacyController;
use App\Http\Controllers\ReportController;
use App\Http\Controllers\ReturnController;
use App\Http\Controllers\RigController;
use App\Http\Controllers\SafeguardController;
use App\Http\Controllers\ScanController;
use App\Http\Controllers\SecondPlaceController;
use App\Http\Controllers\SessionController;
use App\Http\Controllers\ShelfController;
use App\Http\Controllers\ShopController;
use App\Http\Controllers\VendorController;
use App\Http\Controllers\WatchingController;
use App\Http\Middleware\OneLargeFile;
use App\Http\Middleware\PasswordAgain;
use App\Http\Middleware\SecondFactorDue;
use App\Http\Middleware\StillThere;
use Illuminate\Support\Facades\Route;

// no longer than an integer is
Route::patterns(array_fill_keys(['token', 'technician', 'webhook'], '\d{1,18}'));

// does nothing: for who watches that the program answers, and as the measure of what an answer costs at least
Route::get('/alive', static fn () => response()->noContent());
Route::middleware('throttle:strangers')->group(static function (): void {
    Route::post('/session', [SessionController::class, 'signIn']);
    Route::post('/session/code', [SessionController::class, 'code']);
    Route::get('/password-links/{link}', [AccessController::class, 'showLink']);
    Route::put('/password-links/{link}', [AccessController::class, 'useLink']);
});

// what somebody may do whose second factor is still to be set up
Route::middleware(['auth:sanctum', StillThere::class, 'cache.headers:private;no_cache;etag'])->group(
    static function (): void {
        Route::get('/session', [SessionController::class, 'show']);
        Route::delete('/session', [SessionController::class, 'signOut']);
        Route::put('/session/preferences', [SessionController::class, 'prefer']);
        Route::post('/session/confirmation', [SessionController::class, 'confirm']);
        Route::put('/session/password', [AccessController::class, 'changePassword']);
        Route::middleware(PasswordAgain::class)->group(static function (): void {
            Route::post('/session/second-factor', [AccessController::class, 'beginSecondFactor']);
            Route::put('/session/second-factor', [AccessController::class, 'confirmSecondFactor']);
            Route::delete('/session/second-factor', [AccessController::class, 'removeSecondFactor']);
        });
    },
);

Route::middleware([
    'auth:sanctum',
    StillThere::class,
    SecondFactorDue::class,
    'cache.headers:private;no_cache;etag',
])->group(static function (): void {
    Route::get('/tokens', [AccessController::class, 'tokens']);
    Route::delete('/tokens/{token}', [AccessController::class, 'endToken']);
    Route::post('/tokens', [AccessController::class, 'makeToken'])->middleware(PasswordAgain::class);

    Route::get('/bench', [BenchController::class, 'show']);
    Route::get('/benches', [BenchController::class, 'index']);
    Route::get('/packages', [PackageController::class, 'index']);
    Route::get('/rig', [RigController::class, 'show']);
    Route::get('/jobs/{job}/onward', [SafeguardController::class, 'onwardPlans']);
    Route::get('/jobs', [JobController::class, 'index']);
    Route::get('/jobs/{job}', [JobController::class, 'show']);
    Route::get('/jobs/{job}/return', [ReturnController::class, 'show']);
    Route::get('/jobs/{job}/missing', [ReturnController::class, 'missing']);
    Route::get('/jobs/{job}/hand-over', [EndController::class, 'show']);
    Route::get('/jobs/{job}/sheet', [EndController::class, 'sheet']);
    Route::get('/evidence', [ReturnController::class, 'evidence']);
    Route::get('/batches', [BatchController::class, 'index']);
    Route::get('/batches/{batch}', [BatchController::class, 'show']);
    Route::get('/batches/{batch}/document', [BatchController::class, 'document']);
    Route::get('/batches/{batch}/order/{technician}.ics', [BatchController::class, 'calendar']);
    Route::post('/batches/{batch}/what-if', [BatchController::class, 'whatIf']);
    Route::get('/journal', [JournalController::class, 'index']);
    Route::get('/journal.csv', [JournalController::class, 'csv']);
    Route::get('/jobs/{job}/windows', [AlmanacController::class, 'ofJob']);
    Route::get('/jobs/{job}/since', [JobController::class, 'since']);
    Route::get('/jobs/{job}/situation', [JobController::class, 'situation']);
    Route::post('/plan', [JobController::class, 'planDocument']);
    Route::post('/jobs/{job}/what-if', [JobController::class, 'whatIf']);
    Route::get('/almanac', [AlmanacController::class, 'show']);
    Route::get('/almanac/models/{hardwareId}/windows', [AlmanacController::class, 'ofModel']);
    Route::get('/almanac/forecasts', [ForecastController::class, 'show']);
    Route::get('/almanac/changes', [AlmanacController::class, 'changes']);
    Route::get('/almanac/vendors/{vendor}/builds.csv', [AlmanacController::class, 'builds']);
    Route::get('/almanac/vendors/{vendor}/catalogue', [AlmanacController::class, 'catalogue']);
    Route::get('/almanac/calendar.ics', [AlmanacController::class, 'calendar']);
    Route::get('/vendors', [VendorController::class, 'index']);
    Route::get('/shop', [ShopController::class, 'show']);
    Route::get('/scan', ScanController::class);
    Route::get('/find', FindController::class);
    Route::get('/shelf', [ShelfController::class, 'index']);
    Route::get('/shelf-due', [ShelfController::class, 'due']);
    Route::get('/keeping', [ShelfController::class, 'keeping']);
    Route::get('/second-place', [SecondPlaceController::class, 'show']);
    Route::get('/devices/{serial}/held', [PrivacyController::class, 'show']);
    Route::get('/health', [WatchingController::class, 'health']);
    Route::get('/metrics', [WatchingController::class, 'metrics']);
    Route::get('/watching', [WatchingController::class, 'show']);
    Route::put('/watching', [WatchingController::class, 'choose']);
    Route::post('/watching/mail/trial', [WatchingController::class, 'tryMail']);
    Route::get('/shelf/{bag}', [ShelfController::class, 'show']);
    Route::get('/shelf/{bag}/tide', [ShelfController::class, 'tide']);
    Route::get('/shelf/{bag}/items', [ShelfController::class, 'items']);
    Route::get('/shelf/{bag}/compare/{other}', [ShelfController::class, 'compare']);
    Route::get('/sessions', [PeopleController::class, 'sessions']);
    Route::delete('/sessions/{session}', [PeopleController::class, 'endSession'])->middleware(PasswordAgain::class);
    Route::post('/identify', [IntakeController::class, 'identify']);

    Route::middleware('can:act')->group(static function (): void {
        Route::post('/almanac/refresh', [AlmanacController::class, 'refresh']);
        Route::post('/almanac/import/preview', [AlmanacController::class, 'preview'])->middleware(OneLargeFile::class);
        Route::post('/almanac/import', [AlmanacController::class, 'import'])->middleware(OneLargeFile::class);
        Route::delete('/almanac/catalogues/{catalogue}', [AlmanacController::class, 'withdraw']);
        Route::post('/batches', [BatchController::class, 'store']);
        Route::put('/batches/{batch}', [BatchController::class, 'update']);
        Route::post('/batches/{batch}/devices', [BatchController::class, 'add']);
        Route::delete('/batches/{batch}/devices/{job}', [BatchController::class, 'take']);
        Route::post('/batches/{batch}/end', [BatchController::class, 'end']);
        Route::post('/jobs', [JobController::class, 'open']);
        Route::post('/intake', [IntakeController::class, 'byHand']);
        Route::post('/intake/batch/preview', [IntakeController::class, 'preview']);
        Route::post('/intake/batch', [IntakeController::class, 'open']);
        Route::put('/near/{serial}/agreement', [NearController::class, 'agree']);
        Route::delete('/near/{serial}/agreement', [NearController::class, 'withdraw']);
        Route::put('/jobs/{job}/about', [IntakeController::class, 'describe']);
        Route::put('/jobs/{job}/said', [IntakeController::class, 'correct']);
        Route::put('/jobs/{job}/device', [IntakeController::class, 'attach']);
        Route::delete('/jobs/{job}/flag', [JobController::class, 'seeChanges']);
        Route::put('/jobs/{job}/goal', [JobController::class, 'plan']);
        Route::put('/jobs/{job}/route', [JobController::class, 'acceptRoute']);
        Route::get('/shelf/{bag}/items/{path}', [ShelfController::class, 'item'])->where('path', '.+');
        Route::get('/shelf/{bag}/zip', [ShelfController::class, 'zip']);
        Route::post('/shelf/{bag}/look', [ShelfController::class, 'look']);
        Route::post('/shelf/{bag}/look/{path}', [ShelfController::class, 'lookAtItem'])->where('path', '.+');
        Route::post('/shelf/{bag}/compare/{other}', [ShelfController::class, 'compareOpened']);
        Route::post('/shelf/{bag}/export', [ShelfController::class, 'export']);
        Route::post('/shelf/{bag}/verify', [ShelfController::class, 'verify']);
        Route::post('/shelf/{bag}/passphrase', [ShelfController::class, 'prove']);
        Route::get('/devices/{serial}/export', [PrivacyController::class, 'export']);
        Route::post('/shelf/{bag}/fetch-back', [SecondPlaceController::class, 'fetchBack']);
        Route::put('/shelf/{bag}/name', [ShelfController::class, 'name']);
        Route::put('/shelf/{bag}/seal', [ShelfController::class, 'seal']);
        Route::delete('/shelf/{bag}', [ShelfController::class, 'destroy']);
        Route::post('/shelf/imports', [ShelfController::class, 'receive']);
        Route::post('/shelf/inbox', [ShelfController::class, 'fromInbox']);
        Route::put('/jobs/{job}/backup', [SafeguardController::class, 'choose']);
        Route::post('/jobs/{job}/passphrase', [SafeguardController::class, 'passphrase']);
        Route::put('/jobs/{job}/cloud', [SafeguardController::class, 'cloud']);
        Route::get('/passphrase-offer', [SafeguardController::class, 'offer']);
        Route::put('/jobs/{job}/attestations', [SafeguardController::class, 'attestTogether']);
        Route::put('/jobs/{job}/attestations/{code}', [SafeguardController::class, 'attest']);
        Route::delete('/jobs/{job}/attestations/{code}', [SafeguardController::class, 'takeBackAttestation']);
        Route::post('/jobs/{job}/pair', [SafeguardController::class, 'askToPair']);
        Route::post('/jobs/{job}/choose-again', [JobController::class, 'chooseAgain']);
        Route::post('/jobs/{job}/line', [SafeguardController::class, 'crossLine']);
        Route::post('/jobs/{job}/recovery/cable', [SafeguardController::class, 'askOverCable']);
        Route::post('/jobs/{job}/recovery/install', [SafeguardController::class, 'confirmInstall']);
        Route::post('/jobs/{job}/recovery/leave', [SafeguardController::class, 'leaveRecovery']);
        Route::post('/jobs/{job}/onward', [SafeguardController::class, 'goOnward']);
        Route::post('/packages', [PackageController::class, 'bring']);
        Route::post('/packages/{sha256}/fetch', [PackageController::class, 'fetch']);
        Route::delete('/packages/{package}', [PackageController::class, 'destroy']);
        Route::post('/rig/{bench}/devices/{serial}/{hand}', [RigController::class, 'hand']);
        Route::delete('/rig/{bench}/devices/{serial}/faults', [RigController::class, 'clearFaults']);
        Route::put('/rig/{bench}/speed', [RigController::class, 'speed']);
        Route::post('/rig/vendors/{vendor}', [RigController::class, 'vendor']);
        Route::delete('/rig/vendors/{vendor}', [RigController::class, 'clearVendor']);
        Route::post('/jobs/{job}/backup-again', [SafeguardController::class, 'backUpAgain']);
        Route::post('/jobs/{job}/steps/{code}/retry', [SafeguardController::class, 'tryAgain']);
        Route::put('/jobs/{job}/look-first', [ReturnController::class, 'lookFirst']);
        Route::delete('/jobs/{job}/look-first', [ReturnController::class, 'endLook']);
        Route::put('/jobs/{job}/return', [ReturnController::class, 'choose']);
        Route::put('/jobs/{job}/overlays/{what}', [ReturnController::class, 'speakFor']);
        Route::post('/jobs/{job}/missing', [ReturnController::class, 'putBack']);
        Route::post('/jobs/{job}/by-eye', [EndController::class, 'byEye']);
        Route::get('/jobs/{job}/by-eye/{path}', [EndController::class, 'pictureNow'])->where('path', '.+');
        Route::post('/jobs/{job}/aftercare/look', [EndController::class, 'read']);
        Route::put('/jobs/{job}/aftercare/{code}', [EndController::class, 'tick']);
        Route::post('/jobs/{job}/hand-over', [EndController::class, 'handOver']);
        Route::post('/jobs/{job}/give-back', [EndController::class, 'giveBack']);
        Route::post('/jobs/{job}/leave', [JobController::class, 'leave']);
    });

    Route::middleware('can:lead')->group(static function (): void {
        Route::post('/jobs/{job}/reopen', [EndController::class, 'reopen']);
        Route::put('/storage', [PackageController::class, 'keep']);
        Route::post('/benches', [BenchController::class, 'store']);
        Route::put('/benches/{bench}', [BenchController::class, 'update']);
        Route::delete('/benches/{bench}', [BenchController::class, 'destroy']);
        Route::put('/keeping', [ShelfController::class, 'keep']);
        Route::get('/reports', [ReportController::class, 'show']);
        Route::get('/reports.csv', [ReportController::class, 'csv']);
        Route::get('/people', [PeopleController::class, 'index']);
        Route::put('/shop', [ShopController::class, 'keep']);
        Route::get('/access', [AccessController::class, 'rules']);
        Route::post('/vendors', [VendorController::class, 'store']);
        Route::put('/vendors/{vendor}', [VendorController::class, 'update']);
        Route::post('/vendors/{vendor}/keys/look', [VendorController::class, 'lookForKeys']);
        Route::middleware(PasswordAgain::class)->group(static function (): void {
            Route::post('/webhooks', [WatchingController::class, 'addWebhook']);
            Route::delete('/webhooks/{webhook}', [WatchingController::class, 'removeWebhook']);
            Route::post('/webhooks/{webhook}/trial', [WatchingController::class, 'tryWebhook']);
            Route::post('/devices/{serial}/forget', [PrivacyController::class, 'forget']);
            Route::put('/second-place', [SecondPlaceController::class, 'keep']);
            Route::delete('/second-place', [SecondPlaceController::class, 'forget']);
            Route::put('/access', [AccessController::class, 'setRules']);
            Route::post('/people', [PeopleController::class, 'store']);
            Route::put('/people/{person}', [PeopleController::class, 'update']);
            Route::delete('/people/{person}', [PeopleController::class, 'destroy']);
            Route::post('/people/{person}/restore', [PeopleController::class, 'restore']);
            Route::delete('/people/{person}/sessions', [PeopleController::class, 'endSessionsOf']);
            Route::post('/people/{person}/link', [AccessController::class, 'giveLink']);
            Route::delete('/people/{person}/second-factor', [AccessController::class, 'removeSecondFactorOf']);
            Route::put('/vendors/{vendor}/keys/{key}', [VendorController::class, 'decide']);
        });
    });
});
