<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** Why a package may not be installed on a device now. Reasons are listed in this order. */
enum ReasonCode: string
{
    case WrongModel = 'wrong-model';
    case ModelUnresolved = 'model-unresolved';
    case WindowClosed = 'window-closed';
    case ClosesTooSoon = 'closes-too-soon';
    case WindowNotOpenYet = 'window-not-open-yet';
    case AlmanacStale = 'almanac-stale';
    case RollbackFloor = 'rollback-floor';
    case RadioMismatch = 'radio-mismatch';
    case HostAgentOld = 'host-agent-old';
    case NotNewer = 'not-newer';
    case NotAcceptedInPlace = 'not-accepted-in-place';
    case MajorStepInPlace = 'major-step-in-place';
    case NotAcceptedStepDown = 'not-accepted-step-down';
    case InPlaceOnly = 'in-place-only';
    case SameBuild = 'same-build';

    /** Whether it speaks of one move alone; the others hold whatever the move is. */
    public function isOfOneMove(): bool
    {
        return match ($this) {
            self::NotNewer, self::NotAcceptedInPlace, self::MajorStepInPlace, self::NotAcceptedStepDown,
            self::InPlaceOnly => true,
            self::WrongModel, self::ModelUnresolved, self::WindowClosed, self::ClosesTooSoon,
            self::WindowNotOpenYet, self::AlmanacStale, self::RollbackFloor, self::RadioMismatch,
            self::HostAgentOld, self::SameBuild => false,
        };
    }

    /** Where a name stands in braces, the fact of that name beside the code goes in. */
    public function words(): string
    {
        return match ($this) {
            self::WrongModel => 'has no package for this hardware id',
            self::ModelUnresolved => 'the exact variant is not known yet ({hardwareIds} fit): {question}',
            self::WindowClosed => 'not signed since {since}',
            self::ClosesTooSoon => 'signed until {until}, which is before its permit can be asked for',
            self::WindowNotOpenYet => 'signed only from {from}',
            self::AlmanacStale => 'the almanac is too old to say',
            self::RollbackFloor => 'is below the device’s rollback counter',
            self::RadioMismatch => 'its radio level is below {minimum}, which the device needs',
            self::HostAgentOld => 'needs host agent {minimum}',
            self::NotNewer => 'in place it could only be an update, and it is not newer',
            self::NotAcceptedInPlace => 'it takes no in-place update from what is installed',
            self::MajorStepInPlace => 'a step-down in place never crosses a major version',
            self::NotAcceptedStepDown => 'it takes no in-place step-down from what is installed',
            self::InPlaceOnly => 'is signed for in-place moves only',
            self::SameBuild => 'is what is installed',
        };
    }

    /** The words where the fact that belongs to it is not there. */
    public function bareWords(): string
    {
        return match ($this) {
            self::WindowClosed => 'was never signed for this model',
            self::WindowNotOpenYet => 'is not signed yet',
            self::RadioMismatch => 'its radio level is below what the device needs',
            default => $this->words(),
        };
    }
}
