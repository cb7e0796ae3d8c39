<?php

declare(strict_types=1);

namespace App\Audit;

/** Acts of people, as routes of the API, with the words that the Journal has for them. */
final class ActCode
{
    private const WORDS = [
        'POST jobs' => ['job-opened', 'Took the device in'],
        'POST intake' => ['job-opened', 'Took a device in by hand'],
        'POST intake/batch' => ['jobs-opened', 'Took devices in from a table'],
        'PUT jobs/{job}/said' => ['said-corrected', 'Corrected what was said of the device'],
        'PUT jobs/{job}/device' => ['device-attached', 'Attached the plugged-in device to the job'],
        'DELETE jobs/{job}/flag' => ['flag-seen', 'Saw what has changed in the almanac'],
        'PUT jobs/{job}/goal' => ['goal-set', 'Set the goal and planned'],
        'PUT jobs/{job}/route' => ['route-taken', 'Took a route, with what it costs'],
        'PUT jobs/{job}/backup' => ['backup-chosen', 'Chose how the backup is taken'],
        'POST jobs/{job}/passphrase' => ['passphrase-given', 'Gave the owner\'s passphrase'],
        'PUT jobs/{job}/cloud' => ['cloud-attested', 'Attested what the owner\'s cloud holds'],
        'PUT jobs/{job}/attestations/{code}' => ['attested', 'Attested a readiness check'],
        'POST jobs/{job}/line' => ['line-crossed', 'Crossed the erase line'],
        'POST jobs/{job}/recovery/cable' => ['recovery-asked', 'Had the device asked into recovery mode over the cable'],
        'POST jobs/{job}/recovery/leave' => ['recovery-left', 'Left recovery mode without writing'],
        'POST jobs/{job}/onward' => ['onward-taken', 'Took the next route from where the device stands'],
        'POST jobs/{job}/backup-again' => ['backup-again', 'Had the backup taken again'],
        'POST jobs/{job}/steps/{code}/retry' => ['step-retried', 'Had a step tried again'],
        'PUT jobs/{job}/return' => ['return-chosen', 'Chose what is put back'],
        'PUT jobs/{job}/overlays/{what}' => ['overlay-said', 'Spoke for a kind that is waited for'],
        'POST jobs/{job}/missing' => ['items-put-back', 'Had missing items put back'],
        'POST jobs/{job}/aftercare/look' => ['aftercare-read', 'Had the device read for the aftercare'],
        'PUT jobs/{job}/aftercare/{code}' => ['aftercare-said', 'Spoke for a point of the aftercare'],
        'POST jobs/{job}/hand-over' => ['handed-over', 'Handed the device over'],
        'POST jobs/{job}/give-back' => ['given-back', 'Gave the device back unfinished'],
        'POST jobs/{job}/leave' => ['job-left', 'Left the job before the erase line'],
        'GET shelf/{bag}/zip' => ['bag-downloaded', 'Took a bag along as a ZIP'],
        'POST shelf/{bag}/export' => ['kinds-exported', 'Wrote kinds out in open formats'],
        'POST shelf/{bag}/verify' => ['bag-verified', 'Had a bag verified again'],
        'POST shelf/{bag}/passphrase' => ['passphrase-proven', 'Proved a bag\'s passphrase'],
        'PUT shelf/{bag}/seal' => ['bag-sealed', 'Sealed a bag'],
        'DELETE shelf/{bag}' => ['bag-deleted', 'Deleted a bag'],
        'POST shelf/imports' => ['bag-imported', 'Brought a bag in'],
        'POST shelf/inbox' => ['bag-imported', 'Brought a bag in from the inbox'],
        'POST almanac/refresh' => ['almanac-refreshed', 'Had the almanac refreshed'],
        'POST almanac/import' => ['catalogue-imported', 'Imported a catalogue'],
        'DELETE almanac/catalogues/{catalogue}' => ['catalogue-withdrawn', 'Withdrew an imported catalogue'],
        'POST packages' => ['package-brought', 'Brought a package in as a file'],
        'POST packages/{sha256}/fetch' => ['package-fetched', 'Had a package fetched ahead'],
        'DELETE packages/{package}' => ['package-dropped', 'Dropped a package from the cache'],
        'PUT storage' => ['storage-set', 'Set where bags and packages are kept'],
        'POST benches' => ['bench-added', 'Added a bench'],
        'PUT benches/{bench}' => ['bench-changed', 'Changed a bench'],
        'DELETE benches/{bench}' => ['bench-removed', 'Removed a bench'],
        'PUT keeping' => ['keeping-set', 'Set how long bags are kept'],
        'POST people' => ['person-added', 'Added a person'],
        'PUT people/{person}' => ['person-changed', 'Changed a person'],
        'DELETE people/{person}' => ['person-removed', 'Removed a person'],
        'DELETE people/{person}/sessions' => ['sessions-ended', 'Ended somebody\'s sessions'],
        'POST vendors' => ['vendor-added', 'Added a vendor'],
        'PUT vendors/{vendor}' => ['vendor-changed', 'Changed a vendor'],
        'POST vendors/{vendor}/keys/look' => ['keys-looked-for', 'Looked for a vendor\'s keys'],
        'PUT vendors/{vendor}/keys/{key}' => ['key-decided', 'Decided on a vendor\'s key'],
        'POST rig/{bench}/devices/{serial}/{hand}' => ['practice', 'Practice: laid hands on a simulated device'],
        'DELETE rig/{bench}/devices/{serial}/faults' => ['practice', 'Practice: took faults back'],
        'PUT rig/{bench}/speed' => ['practice', 'Practice: set the rig\'s speed'],
        'POST rig/vendors/{vendor}' => ['practice', 'Practice: set a simulated vendor'],
        'DELETE rig/vendors/{vendor}' => ['practice', 'Practice: set a simulated vendor back'],
    ];

    /** What only looks, or plans without keeping anything. */
    private const NO_ACTS = ['POST plan', 'POST identify', 'POST jobs/{job}/what-if', 'POST almanac/import/preview', 'POST intake/batch/preview', 'POST session', 'DELETE session', 'DELETE sessions/{session}'];

    /** @return array{string, string}|null code and words; null for what is no act */
    public static function of(string $method, string $uri): ?array
    {
        return self::WORDS[$method.' '.preg_replace('#\Aapi/v1/#', '', $uri)] ?? null;
    }

    /** Whether the route is known, as an act or as none. */
    public static function knows(string $method, string $uri): bool
    {
        return self::of($method, $uri) !== null || in_array($method.' '.preg_replace('#\Aapi/v1/#', '', $uri), self::NO_ACTS, true);
    }
}
