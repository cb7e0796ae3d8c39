<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\RunningSystem;

/** Eight devices at once on the bench, and the hands that they need. */
final class FleetTest extends BrowserTestCase
{
    private const DEVICES = [
        'SKL-0042',
        'SKL-0057',
        'SKL-0063',
        'SKT-0011',
        'OST-2107',
        'SKL-0071',
        'SKL-0088',
        'OST-2120',
    ];

    protected function setUp(): void
    {
        parent::setUp();
        self::deliver(self::DEVICES, true);
    }

    protected function tearDown(): void
    {
        self::deliver(self::DEVICES, false);
        self::letGo(self::DEVICES);
        parent::tearDown();
    }

    public function test_eight_devices_arrive_side_by_side(): void
    {
        $b = $this->browser->signIn();
        $b->countClicks();
        $b->press('Take in all 8');
        $b->click(WebDriverBy::xpath('//*[@data-together]//button[normalize-space(.)="Take in all 8"]'));
        $b->see('8 jobs need a hand now', 60)->gone('Each is read first; nothing on them changes.');
        $this->assertAccessible('bench with eight jobs');
        $jobs = $this->openJobs();
        $this->putOnTheirRoutes();
        foreach (['OST-2107', 'OST-2120'] as $serial) {
            $b->click(WebDriverBy::cssSelector("section[aria-labelledby=jobs] a[href=\"#/jobs/{$jobs[$serial]}\"]"));
            $b->press('Go to 5.0 instead')->gone('Go to 5.0 instead')->click($this->taking())->see('Back up');
            $b->visit('/')->see('Jobs in progress');
        }
        self::hand('SKL-0071', 'answers', ['answer' => 'owner-lock-off-elsewhere']);
        $b->see('Several at once…')->press('Several at once…')->press('Attest (8)');
        $b->see('No machine can read these.');
        $this->assertAccessible('attesting for several');
        $b->press('I have checked all of these 8')->gone('No machine can read these.');
        foreach ($jobs as $serial => $id) {
            $b->visit("/jobs/{$id}")->press('To the erase line', 120)->see('What was proven');
            $b->find(WebDriverBy::cssSelector('form input'))->sendKeys($serial.WebDriverKeys::ENTER);
            $b->gone('Type the serial that stands on the device');
        }
        self::assertLessThanOrEqual(3 * count($jobs), $b->clicks(), 'from plugging in to the line');
        foreach ($jobs as $serial => $id) {
            $b->visit("/jobs/{$id}")->see($serial)->see('Put the device in recovery mode', 60);
            $this->install($serial, $id);
        }
        $b->visit('/');
        foreach ($jobs as $serial => $id) {
            $b->find(
                WebDriverBy::xpath(
                    "//li[contains(., \"{$serial}\")]"
                        .'//*[contains(., "Hand over") and contains(@class, "text-amber")]',
                ),
                180,
            );
        }
        foreach ($jobs as $serial => $id) {
            $b->visit("/jobs/{$id}/hand-over")->see('Item by item');
            $b->press('Hand over and end the job')
                ->press('Hand over with them open')->see('Jobs in progress');
        }
        $b->visit('/')->see('No job is in progress');

        $versions = array_map(static fn (string $s): string => self::rig("/devices/{$s}")['version'], self::DEVICES);
        self::assertSame(['8.7.0', '8.7.0', '8.7.0', '8.8.0', '5.0.0', '8.7.0', '8.7.0', '5.0.0'], $versions);
    }

    public function test_a_broken_install_offers_the_next_route(): void
    {
        self::hand('SKL-0088', 'faults', ['kind' => 'work-fails', 'phase' => 'write', 'percent' => 30]);
        $b = $this->browser->signIn();
        $b->takeIn('SKL-0088');
        $id = $b->jobId();
        $this->chooseRoute('SKL-0088', $id);
        $this->crossLine('SKL-0088', $id);
        $b->visit("/jobs/{$id}")->see('Put the device in recovery mode', 60);
        $this->install('SKL-0088', $id);
        $b->see('From here there is only forward', 60)->see('Try again')->see('Go to 8.7');
        self::assertFalse($b->hasButton('Leave the device as it is'));
        $this->assertAccessible('next route');
        $b->press('Go to 9.3')->find(
            WebDriverBy::cssSelector('[data-step="hand-over"][data-state="needs-hand"], [aria-labelledby="proof"]'),
            90,
        );
        $b->visit("/jobs/{$id}/hand-over")
            ->see('Nothing is missing.')
            ->press('Hand over and end the job')
            ->press('Hand over with them open')
            ->see('Ended');
        self::assertSame('9.3.0', self::rig('/devices/SKL-0088')['version']);
    }

    /** @return array<string, int> job ids by serial */
    private function openJobs(): array
    {
        $rows = self::system()->database()->query(
            'SELECT held_serial, id FROM bench_jobs WHERE held_serial IS NOT NULL ORDER BY id',
        );

        return array_map(intval(...), $rows->fetchAll(\PDO::FETCH_KEY_PAIR));
    }

    /** Like devices are put on one route, group by group, until no group is left that has one. */
    private function putOnTheirRoutes(): void
    {
        $b = $this->browser->press('Several at once…')->see('Their route', 60);
        $this->assertAccessible('one route for several');
        $b->see('SKL-0071')->press('Put 3 on this route', 60);
        RunningSystem::waitUntil(
            static fn (): bool => ! $b->has('[data-like="SKL-0071"]'),
            60,
            'the three were not put on their route',
        );
        for ($i = 0; $i < 3; $i++) {
            $serial = $b->find(WebDriverBy::cssSelector('[data-like]'), 60)->getAttribute('data-like');
            $b->click(WebDriverBy::xpath('//*[@data-together]//button[starts-with(normalize-space(.), "Put 1 ") '
                .'or contains(., "and put 1 on this route")]'));
            RunningSystem::waitUntil(
                static fn (): bool => ! $b->has("[data-like=\"{$serial}\"]"),
                60,
                "{$serial} was not put on its route",
            );
        }
        $b->keys(WebDriverKeys::ESCAPE)->see('Jobs in progress');
    }

    private function taking(): WebDriverBy
    {
        return WebDriverBy::xpath(
            '//button[starts-with(normalize-space(.), "Take this route") or starts-with(normalize-space(.), '
                .'"Accept these losses and take")]',
        );
    }

    private function chooseRoute(string $serial, int $id): void
    {
        $b = $this->browser->visit("/jobs/{$id}/choose")->see('What is signed for this model');
        $b->hasButton('Go to 5.0 instead') ? $b->press('Go to 5.0 instead') : null;
        $b->click($this->taking());
        $b->see('Back up');
        $serial === 'SKL-0071' ? self::hand($serial, 'answers', ['answer' => 'owner-lock-off-elsewhere']) : null;
    }

    private function crossLine(string $serial, int $id): void
    {
        $b = $this->browser->visit("/jobs/{$id}/safeguard");
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 120);
        $b->press('I have checked both');
        $b->press('To the erase line')->see('What was proven');
        $b->find(WebDriverBy::cssSelector('form input'))->sendKeys($serial);
        $b->click(WebDriverBy::cssSelector('form button.act'));
        $b->gone('Type the serial that stands on the device');
    }
}
