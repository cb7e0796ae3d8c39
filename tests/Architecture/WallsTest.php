<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/** The walls are seen to hold: a file that reaches through one of them is found. */
final class WallsTest extends TestCase
{
    private const BREACHES = [
        'core into the shell' => ['JadeStep\Core\Route', 'App\Models\Bench'],
        'core into the framework' => ['JadeStep\Core\Bag', 'Illuminate\Support\Collection'],
        'stand-in into the core' => ['Standins\Rig', 'JadeStep\Core\Route\Planner'],
        'controller into the rules' => ['App\Http\Controllers', 'JadeStep\Core\Route\Planner'],
        'act into a door' => ['App\Acts', 'App\Http\Requests\GoalRequest'],
        'room into a step' => ['App\Shelf', 'App\Steps\StepRunner'],
        'step into an act' => ['App\Steps', 'App\Acts\JobActs'],
        'page into the ledger' => ['App\Reading', 'App\Ledger\StepLedger'],
        'ledger into the facts' => ['App\Ledger', 'App\Facts\JobFacts'],
        'journal into the ledger' => ['App\Journal', 'App\Ledger\StepLedger'],
        'model into the journal' => ['App\Models', 'App\Journal\Journal'],
        'port into a model' => ['App\Ports', 'App\Models\Bench'],
    ];

    public function test_every_wall_finds_a_planted_breach_and_nothing_else(): void
    {
        $folder = RunningSystem::root().'/var/test/breach';
        is_dir($folder) || mkdir($folder, 0o755, true);
        foreach (array_keys(self::BREACHES) as $i => $name) {
            [$namespace, $reached] = self::BREACHES[$name];
            $code =
                "<?php\n\ndeclare(strict_types=1);\n\nnamespace {$namespace};\n\nfinal class Breach{$i}\n{\n"
                ."    public function reach(\\{$reached} \$through): \\{$reached}\n"
                    ."    {\n        return \$through;\n    }\n}\n";
            file_put_contents("{$folder}/Breach{$i}.php", $code);
        }
        file_put_contents(
            "{$folder}/Lawful.php",
            "<?php\n\nnamespace App\\Acts;\n\nfinal class Lawful\n{\n"
                ."    public function reach(\\App\\Models\\Bench \$through): \\App\\Models\\Bench\n"
                    ."    {\n        return \$through;\n    }\n}\n",
        );

        $found = $this->analysed($folder);

        foreach (array_keys(self::BREACHES) as $i => $name) {
            self::assertStringContainsString("Breach{$i}.php", $found, "not seen: {$name}");
        }
        self::assertStringNotContainsString('Lawful.php', $found);
    }

    /** @return string what PHPStan says with the walls alone */
    private function analysed(string $folder): string
    {
        $root = RunningSystem::root();
        $settings = "{$folder}/walls.neon";
        file_put_contents(
            $settings,
            "includes:\n    - {$root}/vendor/phpat/phpat/extension.neon\nparameters:\n    level: 0\n    paths: "
                ."[{$folder}]\n"
                ."    tmpDir: {$folder}/cache\nservices:\n    - class: Tests\\Architecture\\Walls\n      tags: "
                    ."[phpat.test]\n",
        );
        $command = [
            "{$root}/vendor/bin/phpstan",
            'analyse',
            '-c',
            $settings,
            '--no-progress',
            '--error-format=raw',
            '--memory-limit=1G',
        ];
        $process = new Process($command, $root, null, null, 600);
        $process->run();

        return $process->getOutput();
    }
}
