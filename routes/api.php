<?php

declare(strict_types=1);

use App\Http\Controllers\AlmanacController;
use App\Http\Controllers\BenchController;
use App\Http\Controllers\InstallController;
use App\Http\Controllers\IntakeController;
use App\Http\Controllers\JobController;
use App\Http\Controllers\PackageController;
use App\Http\Controllers\PeopleController;
use App\Http\Controllers\PlanController;
use App\Http\Controllers\RigController;
use App\Http\Controllers\SafeguardController;
use App\Http\Controllers\SessionController;
use App\Http\Controllers\ShelfController;
use App\Http\Controllers\VendorController;
use Illuminate\Support\Facades\Route;

// does nothing: for who watches that the program answers, and as the measure of what an answer costs at least
Route::get('/alive', static fn () => response()->noContent());
Route::post('/session', [SessionController::class, 'signIn'])->middleware('throttle:sign-in');

Route::middleware('auth:sanctum')->group(static function (): void {
    Route::get('/session', [SessionController::class, 'show']);
    Route::delete('/session', [SessionController::class, 'signOut']);

    Route::get('/bench', [BenchController::class, 'show']);
    Route::get('/benches', [BenchController::class, 'index']);
    Route::get('/packages', [PackageController::class, 'index']);
    Route::get('/rig', [RigController::class, 'show']);
    Route::get('/jobs/{job}/onward', [InstallController::class, 'plans']);
    Route::get('/jobs/{job}', [JobController::class, 'show']);
    Route::get('/jobs/{job}/windows', [AlmanacController::class, 'ofJob']);
    Route::get('/jobs/{job}/since', [PlanController::class, 'since']);
    Route::get('/jobs/{job}/situation', [PlanController::class, 'situation']);
    Route::post('/plan', [PlanController::class, 'plan']);
    Route::post('/jobs/{job}/what-if', [PlanController::class, 'whatIf']);
    Route::get('/almanac', [AlmanacController::class, 'show']);
    Route::get('/almanac/models/{hardwareId}/windows', [AlmanacController::class, 'ofModel']);
    Route::get('/almanac/changes', [AlmanacController::class, 'changes']);
    Route::get('/almanac/vendors/{vendor}/builds.csv', [AlmanacController::class, 'builds']);
    Route::get('/almanac/vendors/{vendor}/catalogue', [AlmanacController::class, 'catalogue']);
    Route::get('/almanac/calendar.ics', [AlmanacController::class, 'calendar']);
    Route::get('/vendors', [VendorController::class, 'index']);
    Route::get('/shelf', [ShelfController::class, 'index']);
    Route::get('/shelf/{bag}/items', [ShelfController::class, 'items']);
    Route::get('/shelf/{bag}/compare/{other}', [ShelfController::class, 'compare']);
    Route::get('/sessions', [PeopleController::class, 'sessions']);
    Route::delete('/sessions/{session}', [PeopleController::class, 'endSession']);
    Route::post('/identify', [IntakeController::class, 'identify']);

    Route::middleware('can:act')->group(static function (): void {
        Route::post('/almanac/refresh', [AlmanacController::class, 'refresh']);
        Route::post('/almanac/import/preview', [AlmanacController::class, 'preview']);
        Route::post('/almanac/import', [AlmanacController::class, 'import']);
        Route::delete('/almanac/catalogues/{catalogue}', [AlmanacController::class, 'withdraw']);
        Route::post('/jobs', [JobController::class, 'open']);
        Route::post('/intake', [IntakeController::class, 'byHand']);
        Route::post('/intake/batch/preview', [IntakeController::class, 'preview']);
        Route::post('/intake/batch', [IntakeController::class, 'open']);
        Route::put('/jobs/{job}/said', [IntakeController::class, 'correct']);
        Route::put('/jobs/{job}/device', [IntakeController::class, 'attach']);
        Route::delete('/jobs/{job}/flag', [PlanController::class, 'seen']);
        Route::put('/jobs/{job}/goal', [JobController::class, 'plan']);
        Route::put('/jobs/{job}/route', [JobController::class, 'acceptRoute']);
        Route::get('/shelf/{bag}/items/{path}', [ShelfController::class, 'item'])->where('path', '.+');
        Route::get('/shelf/{bag}/zip', [ShelfController::class, 'zip']);
        Route::post('/shelf/{bag}/export', [ShelfController::class, 'export']);
        Route::post('/shelf/{bag}/verify', [ShelfController::class, 'verify']);
        Route::post('/shelf/{bag}/passphrase', [ShelfController::class, 'prove']);
        Route::put('/shelf/{bag}/seal', [ShelfController::class, 'seal']);
        Route::delete('/shelf/{bag}', [ShelfController::class, 'destroy']);
        Route::post('/shelf/imports', [ShelfController::class, 'receive']);
        Route::post('/shelf/inbox', [ShelfController::class, 'fromInbox']);
        Route::put('/jobs/{job}/backup', [SafeguardController::class, 'choose']);
        Route::post('/jobs/{job}/passphrase', [SafeguardController::class, 'passphrase']);
        Route::put('/jobs/{job}/cloud', [SafeguardController::class, 'cloud']);
        Route::get('/passphrase-offer', [SafeguardController::class, 'offer']);
        Route::put('/jobs/{job}/attestations/{code}', [JobController::class, 'attest']);
        Route::post('/jobs/{job}/line', [JobController::class, 'crossLine']);
        Route::post('/jobs/{job}/recovery/cable', [InstallController::class, 'askOverCable']);
        Route::post('/jobs/{job}/recovery/leave', [InstallController::class, 'leaveRecovery']);
        Route::post('/jobs/{job}/onward', [InstallController::class, 'onward']);
        Route::post('/packages', [PackageController::class, 'bring']);
        Route::post('/packages/{sha256}/fetch', [PackageController::class, 'fetch']);
        Route::delete('/packages/{package}', [PackageController::class, 'destroy']);
        Route::post('/rig/{bench}/devices/{serial}/{hand}', [RigController::class, 'hand']);
        Route::delete('/rig/{bench}/devices/{serial}/faults', [RigController::class, 'clearFaults']);
        Route::put('/rig/{bench}/speed', [RigController::class, 'speed']);
        Route::post('/rig/vendors/{vendor}', [RigController::class, 'vendor']);
        Route::delete('/rig/vendors/{vendor}', [RigController::class, 'clearVendor']);
        Route::post('/jobs/{job}/backup-again', [JobController::class, 'backUpAgain']);
        Route::post('/jobs/{job}/steps/{code}/retry', [JobController::class, 'retry']);
        Route::post('/jobs/{job}/hand-over', [JobController::class, 'handOver']);
        Route::post('/jobs/{job}/leave', [JobController::class, 'leave']);
    });

    Route::middleware('can:lead')->group(static function (): void {
        Route::put('/storage', [PackageController::class, 'keep']);
        Route::post('/benches', [BenchController::class, 'store']);
        Route::put('/benches/{bench}', [BenchController::class, 'update']);
        Route::delete('/benches/{bench}', [BenchController::class, 'destroy']);
        Route::put('/keeping', [ShelfController::class, 'keep']);
        Route::get('/people', [PeopleController::class, 'index']);
        Route::post('/people', [PeopleController::class, 'store']);
        Route::put('/people/{person}', [PeopleController::class, 'update']);
        Route::delete('/people/{person}', [PeopleController::class, 'destroy']);
        Route::delete('/people/{person}/sessions', [PeopleController::class, 'endSessionsOf']);
        Route::post('/vendors', [VendorController::class, 'store']);
        Route::put('/vendors/{vendor}', [VendorController::class, 'update']);
        Route::post('/vendors/{vendor}/keys/look', [VendorController::class, 'lookForKeys']);
        Route::put('/vendors/{vendor}/keys/{key}', [VendorController::class, 'decide']);
    });
});
