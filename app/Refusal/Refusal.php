<?php

declare(strict_types=1);

namespace App\Refusal;

use JadeStep\Core\Job\May;
use JadeStep\Core\Job\RefusalCode;
use JadeStep\Core\Readiness\Check;

/** Something that was asked for cannot be done now. Says why and what to do. */
final class Refusal extends \RuntimeException
{
    /**
     * @param  list<Check>  $checks the checks that stand in the way
     * @param  string|null  $field  of what was sent, where it is about one
     */
    private function __construct(
        public readonly string $reason,
        string $words,
        public readonly array $checks = [],
        public readonly ?string $field = null,
    ) {
        parent::__construct($words);
    }

    /** The job does not have this act open. */
    public static function because(May $may): self
    {
        return new self(($may->refusal ?? RefusalCode::NotNow)->value, $may->words, $may->checks);
    }

    public static function deviceHeld(string $serial): self
    {
        return new self('device-held', "Another job holds the device {$serial}. Go on with that job, or end it first.");
    }

    public static function notNow(string $what): self
    {
        return new self(RefusalCode::NotNow->value, $what);
    }

    /** One field of what was sent is at fault. */
    public static function ofField(string $field, string $what): self
    {
        return new self(RefusalCode::NotNow->value, $what, [], $field);
    }

    /** An open job rests on what was to be taken away. */
    public static function restedOn(string $words): self
    {
        return new self('rested-on', $words);
    }

    public static function packageRefused(string $why): self
    {
        return new self('package-refused', $why);
    }

    public static function routeGone(): self
    {
        return new self(
            'plan-changed',
            'This route is not on offer any more: the almanac or the device has changed. Look at the new plan '
                .'and choose again.',
        );
    }

    /** What was said of a device does not fit together. */
    public static function unfit(string $words): self
    {
        return new self('identity-conflict', $words);
    }

    public static function previewChanged(int $shown, int $now): self
    {
        $words =
            $now === 0
                ? 'No line of the table can be taken in.'
                : "The preview showed {$shown} good lines, now there are {$now}: look at the preview again.";

        return new self('preview-changed', $words);
    }

    /** @param  list<string>  $names */
    public static function notAccepted(array $names): self
    {
        return new self('loss-not-accepted', 'Accept by name what this costs: '.implode(', ', $names).'.');
    }

    /** @param  list<string>  $kinds  of which something is missing that was not named before */
    public static function lossNotAccepted(array $kinds): self
    {
        return new self(
            'loss-not-accepted',
            'Not all there, and not named before: '
                .implode(', ', $kinds)
                .'. Put it back, or accept it by name, with the owner.',
        );
    }

    public static function wrongSerial(): self
    {
        return new self(
            'wrong-serial',
            'The serial that was typed is not this device\'s. Read it off the device and type it again.',
            [],
            'serial',
        );
    }
}
