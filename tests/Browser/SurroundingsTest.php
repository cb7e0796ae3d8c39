<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use GuzzleHttp\Client;
use Tests\Support\RunningSystem;

/** What stands around the jobs: the call for a hand, the rig, places and benches. */
final class SurroundingsTest extends BrowserTestCase
{
    private const TOUCHED = ['SKL-0057', 'SKL-0094'];

    protected function tearDown(): void
    {
        self::deliver(self::TOUCHED, false);
        parent::tearDown();
    }

    public function test_a_call_for_a_hand_shows_in_the_title_where_it_is_switched_on(): void
    {
        $b = $this->browser->signIn();
        $b->press('Call me when a hand is needed')->see('Calls when a hand is needed');
        $b->takeIn('SKL-0057');
        $id = $b->jobId();
        RunningSystem::waitUntil(
            static fn (): bool => str_starts_with($b->driver->getTitle(), '(1 need a hand) '),
            30,
            'the title does not call',
        );
        $b->visit("/jobs/{$id}")->leaveDevice();
        RunningSystem::waitUntil(
            static fn (): bool => ! str_contains($b->driver->getTitle(), 'need a hand'),
            30,
            'the title still calls',
        );
        $b->visit('/')->press('Calls when a hand is needed')->see('Call me when a hand is needed');
        $kept = self::system()
            ->database()
            ->query("SELECT JSON_VALUE(preferences, '$.sound') FROM users WHERE email = 'bench@skerry.example'")
            ->fetchColumn();
        self::assertSame('0', (string) $kept, 'it is kept for the person, wherever they sign in');
    }

    public function test_the_rig_plugs_presses_and_makes_things_go_wrong(): void
    {
        $b = $this->browser->signIn();
        $b->visit('/rig')->see('these devices and vendors are simulated');
        $this->assertAccessible('rig');
        $b->click(WebDriverBy::xpath('//button[contains(., "SKL-0094")]'));
        $b->see('Battery low, and not charging.')->press('Plug in')->see('Unplug from port 9');
        $b->press('Press volume up once, shortly, for me')->see('Step 1 of 3 was taken.');
        $b->press('power')->see('Begin the sequence again.');
        $b->click(WebDriverBy::xpath('//option[contains(., "wants its passcode")]'));
        $b->press('Set this fault')->see('waits: wants its passcode');
        $b->press('Take back')->gone('waits: wants its passcode')->press('Draw one')->see('waits: ');
        $b->press('5 times')->press('As it was delivered')->see('in the drawer');
        RunningSystem::waitUntil(
            static fn (): bool => (float) self::rig('/practice')['speed'] === 5.0,
            10,
            'the rig\'s time did not run 5 times',
        );
        (new Client)->put(self::system()->settings()['DEVICE_LINK'].'/practice/speed', [
            'json' => ['speed' => 25],
        ]);

        $b->press('Sign out')->see('Password');
        $b->signIn('viewer@skerry.example')->visit('/rig')->see('For practice');
        $b->find(WebDriverBy::xpath('//button[normalize-space(.)="Set this fault"][@disabled]'));
        $open = WebDriverBy::xpath('//button[normalize-space(.)="Set this fault"][not(@disabled)]');
        self::assertSame([], $b->driver->findElements($open));
    }

    public function test_places_and_benches_stand_in_settings(): void
    {
        $b = $this->browser
            ->signIn('lead@skerry.example')
            ->visit('/settings')
            ->see('Depot bench')
            ->see('Packages and bags');
        $b->press('Add a bench');
        $b->find(WebDriverBy::cssSelector('[aria-labelledby="benches"] form input'))->sendKeys('Depot bench');
        $b->press('Save')->see('There is a bench named Depot bench already.')->press('Not now');
        $b->press('Change places and limits');
        $b->find(WebDriverBy::cssSelector('[aria-labelledby="storage"] form input[type="number"]'))->sendKeys('200');
        $b->press('Save')->see('at most 200 GB')->press('Change places and limits');
        $b->find(WebDriverBy::cssSelector('[aria-labelledby="storage"] form input[type="number"]'))->sendKeys(
            WebDriverKeys::CONTROL.'a'.WebDriverKeys::NULL.WebDriverKeys::DELETE,
        );
        $b->press('Save')->gone('at most 200 GB');
        $file = tempnam(sys_get_temp_dir(), 'no-package');
        file_put_contents((string) $file, 'not a package');
        $b->find(WebDriverBy::cssSelector('input[name="package"]'))->sendKeys((string) $file);
        $b->see('No build in the almanac has a package with this digest');
        unlink((string) $file);
        $this->assertAccessible('settings');
    }
}
