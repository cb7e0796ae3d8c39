<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Selector\SelectorInterface;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Who may know whom. PHPStan holds these. */
final class Walls
{
    public function test_the_core_knows_no_shell_no_stand_in_and_no_framework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('JadeStep\Core'))
            ->excluding(Selector::inNamespace('JadeStep\Core\Tests'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App'),
                Selector::inNamespace('Standins'),
                Selector::inNamespace('Illuminate'),
                Selector::inNamespace('JadeStep\Cli'),
                Selector::inNamespace('Symfony'),
            )
            ->because('the core decides, and nothing around it may reach into its decisions');
    }

    public function test_the_stand_ins_share_no_rule_with_the_product(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Standins'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('JadeStep'),
                Selector::inNamespace('App'),
                Selector::inNamespace('Illuminate'),
            )
            ->because('a judge that shares the rules it judges would agree with every mistake');
    }

    public function test_controllers_and_queued_jobs_hold_no_rules(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Http\Controllers'), Selector::classname('App\Steps\RunStep'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('JadeStep\Core\Route'),
                Selector::inNamespace('JadeStep\Core\Bag'),
                Selector::inNamespace('JadeStep\Core\Permit'),
            )
            ->because('rules live in the core, and are reached through the acts and steps');
    }

    public function test_nothing_behind_the_doors_knows_them(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App'))
            ->excluding(Selector::inNamespace('App\Http'), Selector::inNamespace('App\Providers'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Http'))
            ->because('an act is the same, whichever door it came in by');
    }

    public function test_rooms_are_not_above_acts_pages_and_steps(): Rule
    {
        $rooms = [
            'Almanac',
            'Batches',
            'Benches',
            'Facts',
            'Forecasts',
            'Installation',
            'Intake',
            'Journal',
            'Ledger',
            'Models',
            'Packages',
            'People',
            'Ports',
            'Privacy',
            'Refusal',
            'Rounds',
            'SecondPlace',
            'Shelf',
            'Watch',
        ];

        return PHPat::rule()
            ->classes(...self::rooms(...$rooms))
            ->shouldNotDependOn()
            ->classes(...self::rooms('Acts', 'Reading', 'Steps'))
            ->because('what people and steps do rests on these rooms, and not the other way round');
    }

    public function test_steps_know_no_act_and_no_page(): Rule
    {
        return self::mayNotKnow('Steps', 'Acts', 'Reading');
    }

    public function test_pages_change_nothing(): Rule
    {
        return self::mayNotKnow('Reading', 'Acts', 'Ledger', 'Journal', 'Steps');
    }

    public function test_the_ledger_knows_no_facts(): Rule
    {
        return self::mayNotKnow('Ledger', 'Facts', 'Shelf', 'Packages', 'Almanac', 'Intake');
    }

    public function test_the_journal_knows_no_ledger(): Rule
    {
        return self::mayNotKnow('Journal', 'Ledger', 'Facts', 'Shelf', 'Packages', 'Almanac', 'Intake');
    }

    public function test_models_know_ports_and_the_core_alone(): Rule
    {
        return self::mayNotKnow(
            'Models',
            'Journal',
            'Ledger',
            'Facts',
            'Shelf',
            'Packages',
            'Almanac',
            'Intake',
            'Benches',
            'People',
            'Privacy',
            'Batches',
            'Forecasts',
            'SecondPlace',
            'Watch',
        );
    }

    public function test_ports_know_the_core_alone(): Rule
    {
        return self::mayNotKnow(
            'Ports',
            'Models',
            'Journal',
            'Ledger',
            'Facts',
            'Shelf',
            'Packages',
            'Almanac',
            'Intake',
            'Benches',
            'People',
            'Privacy',
            'Batches',
            'Forecasts',
            'SecondPlace',
            'Watch',
        );
    }

    private static function mayNotKnow(string $room, string ...$above): Rule
    {
        return PHPat::rule()
            ->classes(...self::rooms($room))
            ->shouldNotDependOn()
            ->classes(...self::rooms(...$above))
            ->because(
                'the shell has one direction: Http, then Acts and Reading, Steps, Facts, Ledger, Journal, '
                    .'Models, Ports, core',
            );
    }

    /** @return list<SelectorInterface> */
    private static function rooms(string ...$names): array
    {
        return array_values(
            array_map(static fn (string $name): SelectorInterface => Selector::inNamespace("App\\{$name}"), $names),
        );
    }
}
