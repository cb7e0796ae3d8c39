<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
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
            ->classes(Selector::inNamespace('JadeStep'), Selector::inNamespace('App'), Selector::inNamespace('Illuminate'))
            ->because('a judge that shares the rules it judges would agree with every mistake');
    }

    public function test_controllers_and_queued_jobs_hold_no_rules(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Http\Controllers'), Selector::classname('App\Steps\RunStep'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('JadeStep\Core\Route'), Selector::inNamespace('JadeStep\Core\Bag'), Selector::inNamespace('JadeStep\Core\Permit'))
            ->because('rules live in the core, and are reached through the acts and steps');
    }

    public function test_the_ports_do_not_know_the_bench(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Ports'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Steps'), Selector::inNamespace('App\Models'), Selector::inNamespace('App\Http'))
            ->because('a port is a seam to the outside, and can be used by anything inside');
    }
}
