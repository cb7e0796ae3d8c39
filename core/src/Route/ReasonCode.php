<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** Why a package may not be installed on a device now. Reasons are listed in this order. */
enum ReasonCode: string
{
    case WrongModel = 'wrong-model';
    case ModelUnresolved = 'model-unresolved';
    case WindowClosed = 'window-closed';
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
}
