<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Tests\Fault\NextHand;
use Tests\Fault\PatientRig;
use Tests\Fault\PatientVisitor;
use Tests\Support\RunningSystem;

/** Two phones by a deadline: the batch is made, looked at from all sides, and driven to its end. */
final class BatchTest extends BrowserTestCase
{
    private const DEVICES = ['SKL-0042' => '1', 'SKL-0057' => '2'];

    protected function setUp(): void
    {
        parent::setUp();
        self::deliver(array_keys(self::DEVICES), true);
    }

    protected function tearDown(): void
    {
        self::deliver(array_keys(self::DEVICES), false);
        self::letGo(array_keys(self::DEVICES));
        parent::tearDown();
    }

    public function test_a_batch_is_made_driven_and_its_order_of_the_day_is_read(): void
    {
        $b = $this->browser->signIn();
        $b->visit('/batches')->see('No batch is open')->press('Make a batch')->see('Which devices');
        $b->fill('name', 'Ferries of Saturday')->fill('technicians', 'Maren, Ole');
        $this->deadline();
        foreach (array_keys(self::DEVICES) as $serial) {
            $b->click(WebDriverBy::cssSelector("input[value=\"{$serial}\"]"));
        }
        $this->assertAccessible('making a batch');
        $b->press('Make the batch of 2 devices')->see('that all 2 devices make it by', 90);
        $b->find(WebDriverBy::cssSelector('[data-port] button'), 30);
        foreach ([[1280, 800], [1920, 1080], [820, 1180]] as [$width, $height]) {
            $b->size($width, $height);
            $this->assertAccessible("board at {$width}");
        }
        $b->size(1280, 800);
        $b->click(WebDriverBy::cssSelector('[data-port="1"] button'))->see('SKL-0042')->see('Hand over');
        $b->see('One more technician');

        $b->fill('what-technicians', '1')->press('Look')->see('With 8 ports and 1 technicians', 30);
        $b->press('Order of the day');
        $orders = [
            $b->find(WebDriverBy::cssSelector('[data-order="1"]'))->getText(),
            $b->find(WebDriverBy::cssSelector('[data-order="2"]'))->getText(),
        ];
        self::assertSame(2, substr_count(implode("\n", $orders), 'Hand over'));
        self::assertStringContainsString('Maren', $orders[0]);
        self::assertStringContainsString('port 1', implode("\n", $orders));
        $this->assertAccessible('order of the day');
        $b->press('Devices')->see('bin/jade batch');
        $this->assertAccessible('devices of a batch');
        $batch = (int) substr((string) strrchr(explode('?', $b->driver->getCurrentURL())[0], '/'), 1);

        $this->drive($batch);
        $b->visit("/batches/{$batch}")->see('All of its devices are done.', 60);
        $changes = $b->find(WebDriverBy::cssSelector('[data-change]'), 90)->getText();
        self::assertMatchesRegularExpression('/devices? (is|are) done|expected|likely/', $changes);
        $b->press('End this batch')->press('End it')->see('This batch has ended');
        $b->visit('/batches')->see('No batch is open')->see('Ferries of Saturday');
    }

    /** Tomorrow, so that it is in time at any hour of the day. */
    private function deadline(): void
    {
        $day = (new \DateTimeImmutable('tomorrow'))->format('j M Y');
        $this->browser->fill('end-day', $day);
    }

    private function drive(int $batch): void
    {
        $visitor = PatientVisitor::signIn(self::system());
        $rig = new PatientRig(self::system());
        $jobs = array_column($visitor->ask('GET', "/batches/{$batch}")['jobs'], 'id', 'serial');
        RunningSystem::waitUntil(static function () use ($visitor, $rig, $jobs): bool {
            $open = 0;
            foreach ($jobs as $serial => $id) {
                $job = $visitor->ask('GET', "/jobs/{$id}");
                $open += $job['state'] === 'open' ? 1 : 0;
                (new NextHand($visitor, $rig, (string) $serial, self::DEVICES[$serial]))->take($job);
            }

            return $open === 0;
        }, 240, 'the devices of the batch are not done');
    }
}
