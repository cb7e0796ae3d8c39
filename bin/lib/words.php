<?php

/**
 * Writes the vocabulary of the core's enums as TypeScript to standard output, so that screens say what the core says:
 * `php bin/lib/words.php > resources/ui/api/words.ts`.
 */

declare(strict_types=1);

use JadeStep\Core\Aftercare\AftercareState;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Device\Question;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\Stage;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\WayBack\CloudOutcome;
use JadeStep\Core\Job\Who;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Route\Fit;
use JadeStep\Core\Route\KindReason;
use JadeStep\Core\Route\Move;
use JadeStep\Core\Route\ReasonCode;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Term;
use JadeStep\Core\Watch\Alarm;

require __DIR__.'/../../vendor/autoload.php';

/**
 * @param  list<\BackedEnum>  $cases
 * @return array<string, string>
 */
$labels = static function (array $cases, string $method = 'label'): array {
    return array_combine(
        array_column($cases, 'value'),
        array_map(static fn (\BackedEnum $case): string => $case->{$method}(), $cases),
    );
};

$words = [
    'STAGE' => $labels(Stage::cases()),
    'STEP' => $labels(StepCode::cases(), 'title'),
    'ACT' => $labels(Act::cases()),
    'ACT_STAGE' => array_filter(
        array_combine(
            array_column(Act::cases(), 'value'),
            array_map(static fn (Act $a): ?string => $a->stage()?->value, Act::cases()),
        ),
    ),
    'WHO' => $labels(Who::cases()),
    'KIND' => $labels(Kind::cases()),
    'MOVE' => $labels(Move::cases()),
    'CHECK' => $labels(CheckCode::cases()),
    'ALARM' => $labels(Alarm::cases()),
    'CHECK_STATE' => $labels(CheckState::cases()),
    'INTENT' => $labels(Intent::cases()),
    'JOB_STATE' => $labels(JobState::cases()),
    'STEP_STATE' => $labels(StepState::cases()),
    'BAG_STATE' => $labels(BagState::cases()),
    'OUTCOME' => $labels(Outcome::cases()),
    'OUTCOME_SHORT' => $labels(Outcome::cases(), 'short'),
    'SOURCE' => $labels(Source::cases()),
    'SOURCE_WAY' => $labels(Source::cases(), 'way'),
    'KIND_REASON' => $labels(KindReason::cases()),
    'REASON' => $labels(ReasonCode::cases(), 'words'),
    'REASON_BARE' => $labels(ReasonCode::cases(), 'bareWords'),
    'QUESTION' => $labels(Question::cases(), 'words'),
    'CLOUD_OUTCOME' => $labels(CloudOutcome::cases()),
    'OVERLAY_STATE' => ['seen' => 'seen on the device', 'waiting' => 'not here yet', ...$labels(OverlayState::cases())],
    'AFTERCARE_STATE' => $labels(AftercareState::cases()),
    'FIT' => $labels(Fit::cases()),
    'TERM' => $labels(Term::cases()),
    'TERM_MEANS' => $labels(Term::cases(), 'means'),
];
$lists = [
    'MOVE_REASONS' => array_column(
        array_filter(ReasonCode::cases(), static fn (ReasonCode $c): bool => $c->isOfOneMove()),
        'value',
    ),
    'SYNCING_KINDS' => array_column(array_filter(Kind::cases(), static fn (Kind $k): bool => $k->canSync()), 'value'),
    'CLOUD_KINDS' => array_column(
        array_filter(Kind::cases(), static fn (Kind $k): bool => $k->canSync() && $k->inPlainBag()),
        'value',
    ),
    'EXPORTED_KINDS' => array_column(
        array_filter(Kind::cases(), static fn (Kind $k): bool => $k->hasSideExport()),
        'value',
    ),
    'LOSS_OUTCOMES' => array_column(
        array_filter(Outcome::cases(), static fn (Outcome $o): bool => $o->isLoss()),
        'value',
    ),
    'BY_HAND_OUTCOMES' => array_column(
        array_filter(Outcome::cases(), static fn (Outcome $o): bool => $o->isByHand()),
        'value',
    ),
    'HAND_CHECKS' => array_column(
        array_filter(CheckCode::cases(), static fn (CheckCode $c): bool => $c->isForHands()),
        'value',
    ),
    'ATTESTED_CHECKS' => array_column(
        array_filter(CheckCode::cases(), static fn (CheckCode $c): bool => $c->act() === Act::Attest),
        'value',
    ),
];
echo "// Written by bin/lib/words.php from the core's enums. Change the words there.\n";
foreach ($words as $name => $of) {
    echo "\nexport const {$name} = ",
    json_encode($of, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR),
    " as const;\n";
}
foreach ($lists as $name => $of) {
    echo "\nexport const {$name}: string[] = ", json_encode($of, JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR), ";\n";
}
