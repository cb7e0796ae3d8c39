<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** Why a backup cannot be put back on this device. */
enum BaseReason: string
{
    case WrongDevice = 'wrong-device';
    case OtherLine = 'other-line';
    case Damaged = 'damaged';
    case Unverified = 'unverified';
    case PassphraseUnproven = 'passphrase-unproven';
    case TooNew = 'too-new';
    case DeviceRefused = 'device-refused';

    /** In words, with what to do where something can be done. */
    public function words(): string
    {
        return match ($this) {
            self::WrongDevice => 'It is of another device.',
            self::OtherLine => 'It is of another OS line.',
            self::Damaged => 'It is damaged. The Shelf names what is wrong, file by file.',
            self::Unverified => 'It has not been verified. Verify it on the Shelf first.',
            self::PassphraseUnproven => 'No passphrase has opened it yet. Prove it on the Shelf first.',
            self::TooNew => 'It is from a newer version, and it cannot be lowered so that this one takes it.',
            self::DeviceRefused => 'The device has refused it. Try the step again, or take another.',
        };
    }
}
