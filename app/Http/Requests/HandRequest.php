<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** What a practice hand is told: a small JSON object, which the rig itself judges. */
final class HandRequest extends ActRequest
{
    private const FIELDS = [
        'port',
        'action',
        'target',
        'seconds',
        'answer',
        'kind',
        'work',
        'phase',
        'percent',
        'perMinute',
        'seed',
        'speed',
        'batteryPercent',
        'charging',
        'ownerLock',
        'lockDelay',
        'lockDelayEndsAt',
        'betaEnrolled',
        'windows',
        'heldBack',
        'refused',
        'issuedAgoSeconds',
        'freshSeconds',
        'broken',
        'silent',
        'slowSeconds',
        'cutAfterBytes',
        'slowFactor',
        'alterNext',
    ];

    public function rules(): array
    {
        return array_fill_keys(self::FIELDS, ['sometimes']);
    }
}
