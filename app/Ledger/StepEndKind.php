<?php

declare(strict_types=1);

namespace App\Ledger;

enum StepEndKind
{
    case Done;
    case Again;
    case Wanted;
    case Failed;
    case BackToChoose;
    case BackToLine;
    case BackToRecovery;
}
