<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** What can change between two catalogues of one vendor. */
enum ChangeCode: string
{
    case ModelAdded = 'model-added';
    case ModelRemoved = 'model-removed';
    case BuildAdded = 'build-added';
    case BuildRemoved = 'build-removed';
    case WindowOpened = 'window-opened';
    case OpeningAnnounced = 'opening-announced';
    case WindowClosed = 'window-closed';
    case EndAnnounced = 'end-announced';
    case EndMoved = 'end-moved';
    case EndWithdrawn = 'end-withdrawn';
    case WindowWithdrawn = 'window-withdrawn';
    case PackageChanged = 'package-changed';
    case RulesChanged = 'rules-changed';
}
