<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use GuzzleHttp\Client;

/** The Almanac and the Settings as people use them, the Almanac with the keyboard alone. */
final class AlmanacTest extends BrowserTestCase
{
    public function test_the_almanac_is_read_with_the_keyboard_alone(): void
    {
        $b = $this->browser->signIn()->see('Ports');
        $b->keys('a')->see('Ask the vendors now');
        $b->tabTo('select')->keys('Fenn 7 A')->see('Fenn 7 Atlantic (FN7-2)');
        $b->find(WebDriverBy::cssSelector('[data-build="9D55"]'));
        $this->assertAccessible('almanac');

        $b->tabTo('[data-lane]');
        $whole = $b->text();
        $b->keys(WebDriverKeys::ARROW_DOWN)
            ->keys(WebDriverKeys::ARROW_DOWN)
            ->keys(WebDriverKeys::ARROW_DOWN)
            ->keys(WebDriverKeys::ARROW_DOWN)
            ->keys(WebDriverKeys::ENTER);
        $b->find(WebDriverBy::cssSelector('[data-build="8G210"]'));
        self::assertStringContainsString('the end is announced for', $b->text());
        $b->keys('+')->keys('+')->keys('+')->keys('+');
        $b->find(WebDriverBy::cssSelector('button[aria-label="The whole time"]:not([disabled])'));
        self::assertNotSame($whole, $b->text(), 'zooming changes the marks of the axis');
        $b->keys(WebDriverKeys::ARROW_RIGHT)->keys('0');
        $b->find(WebDriverBy::cssSelector('button[aria-label="The whole time"][disabled]'));

        $b->backTo('[role="tab"]')->keys(WebDriverKeys::ARROW_RIGHT)->see('What it is now')->see('4 May 2026');
        $this->assertAccessible('almanac as a table');
        $b->tabTo('[data-value="beta"], [aria-label="Channels to show"] button')->keys(WebDriverKeys::SPACE);
        $b->find(WebDriverBy::cssSelector('[aria-label="Channels to show"] [data-state="off"]'));
    }

    public function test_a_window_that_closes_is_seen_in_the_history_and_on_the_bench(): void
    {
        $b = $this->browser->signIn();
        $b->takeIn('OST-2107')->see('Choose another goal');
        $id = $b->jobId();
        $b->visit("/jobs/{$id}/choose")
            ->see('Go to 5.0 instead')
            ->press('Go to 5.0 instead')
            ->see('Take this route');
        self::practice('osterly', [
            'windows' => ['L50.20' => ['until' => gmdate('Y-m-d\TH:i:s\Z', time() - 30), 'announced' => false]],
        ]);

        $b->visit('/almanac/WK3-1')
            ->press('Ask the vendors now')
            ->see('5.0 (L50.20) for WK3-1, WK3-2 is not signed any more');
        $b->visit('/')->see('The almanac has changed: 5.0 (L50.20)');
        $b->visit("/jobs/{$id}")->see('Nothing reaches this goal now')->see('window-closed')->press('I have seen it');
        $b->visit('/')->see('Choose another goal')->gone('The almanac has changed');
        $b->visit("/jobs/{$id}")->leaveDevice()->see('Ended');
    }

    public function test_a_file_is_shown_before_it_is_taken_and_marked_as_not_vouched_for(): void
    {
        $b = $this->browser->signIn();
        $file = self::system()->folder.'/builds.csv';
        $b->visit('/almanac/WKP-1')->press('Ask the vendors now')->see(' changed.');
        $table = (string) $b->driver->executeAsyncScript(
            'const done = arguments[0]; fetch("/api/v1/almanac/vendors/osterly/builds.csv").then(r => '
                .'r.text()).then(done)',
        );
        file_put_contents($file, str_replace(',release,2026-06-08', ',nightly,2026-06-08', $table));
        $b->press('Take in from a file')->find(WebDriverBy::cssSelector('input[type="file"]'))->sendKeys($file);
        $b->see('Whose builds are these?')->click(WebDriverBy::xpath('//option[.="Osterly"]'));
        $b->see('cannot be used')->see('expected one of: beta, candidate, release');
        $this->assertAccessible('taking in a file');

        file_put_contents(
            "{$file}.csv",
            preg_replace('/\d{4}-\d\d-\d\dT18:00:00Z,yes/', '2030-01-01T00:00:00Z,yes', $table),
        );
        $b->find(WebDriverBy::cssSelector('input[type="file"]'))->sendKeys("{$file}.csv");
        $b->see('will stop being signed 1 Jan 2030')
            ->press('Take it in')
            ->see('From the file builds.csv.csv, taken in by Teo Lind')
            ->see('not vouched for');
        $b->click(WebDriverBy::xpath('//article//button[normalize-space(.)="Take it back"]'));
        $b->see('Take this catalogue back?');
        $b->click(WebDriverBy::xpath('//*[contains(@role, "dialog")]//button[normalize-space(.)="Take it back"]'));
        $b->find(WebDriverBy::xpath('//article[@data-vendor="osterly"][contains(., "Signed, issued")]'));
    }

    public function test_a_lead_accepts_a_new_key_by_name(): void
    {
        (new Client)->post(self::vendor('osterly').'/practice/keys');
        $b = $this->browser->signIn()->visit('/almanac')->press('Ask the vendors now')->see('A new key is offered');
        $b->visit('/settings')->see('New key, not named yet');
        self::assertFalse($b->has('[data-vendor] form, [data-person]'), 'a technician only looks');
        $this->assertAccessible('settings');

        $b->press('Sign out')
            ->see('Password')
            ->signIn('lead@skerry.example')
            ->visit('/settings')
            ->see('New key, not named yet');
        $b->find(WebDriverBy::cssSelector('[data-key="offered"] input'))->sendKeys(
            'Osterly, winter key'.WebDriverKeys::ENTER,
        );
        $b->passwordAgain()->see('accepted by Maren Dow')->see('Osterly, winter key');
        $this->assertAccessible('settings of a lead');
        $b->visit('/almanac')->see('unknown-key')->press('Ask the vendors now')->gone('unknown-key');
    }

    protected function tearDown(): void
    {
        foreach (['brightmere', 'osterly'] as $vendor) {
            (new Client)->delete(self::vendor($vendor).'/practice');
        }
        parent::tearDown();
    }
}
