<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

final class CrossingTest extends BrowserTestCase
{
    public function test_a_phone_goes_down_a_major_and_gets_its_data_back(): void
    {
        $b = $this->browser;
        $b->visit()->see('Sign in');
        $this->assertAccessible('sign in');
        $b->signIn()->see('SKL-0042');
        $this->assertAccessible('bench');

        $b->press('Take in')->see('What is signed for this model');
        $id = preg_replace('#.*/jobs/(\d+).*#', '$1', $b->driver->getCurrentURL());
        $b->visit("/jobs/{$id}/identify")->see('What the device holds')->see('FN7-2');
        $this->assertAccessible('identify');
        $b->press('Take a route')->see('What is signed for this model');
        self::assertStringContainsString('the end is announced for', $b->text());
        $b->click(WebDriverBy::xpath('//button[contains(., ", not signed now")]'));
        $b->click(WebDriverBy::xpath('//button[contains(., "8F190")]'));
        $b->see('Closed since 1 Jun 2026');
        $this->assertAccessible('choose');

        $b->press('Take this route')->see('Back up');
        $b->find(WebDriverBy::cssSelector('[data-check="backup-verified"][data-state="pass"]'), 60);
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 60);
        $b->see('2 checks keep the erase line closed');
        $this->assertAccessible('safeguard');
        $b->press('I have checked');
        $b->see('One check keeps');
        $b->press('I have checked')->press('To the erase line')->see('What was proven')->see('Nothing, by the plan');
        $this->assertAccessible('erase line');

        $serial = $b->find(WebDriverBy::cssSelector('form input'));
        $serial->sendKeys('SKL-0057');
        $b->press('Cross and erase')->see('not this device');
        self::assertSame('9.3.0', self::rig('/devices/SKL-0042')['version']);
        $serial->clear();
        $serial->sendKeys('SKL-0042'.WebDriverKeys::ENTER);
        $b->see('Put the device in recovery mode', 40)->see('nothing has been written yet');
        $b->find(WebDriverBy::cssSelector('[aria-label="erase line, crossed"]'), 30);
        $b->press('Pace me')->see('Now press volume up')->see('Keep holding power');
        $this->assertAccessible('recovery mode');
        $b->press('Leave without writing')->see('Before the erase line: everything can still be undone.');
        self::assertSame('9.3.0', self::rig('/devices/SKL-0042')['version']);
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 60);
        sleep(1); // the device restarts out of recovery mode
        $b->visit("/jobs/{$id}/line")
            ->find(WebDriverBy::cssSelector('form input'))
            ->sendKeys('SKL-0042'.WebDriverKeys::ENTER);
        $b->see('Put the device in recovery mode', 40);
        self::pressKeys('SKL-0042');
        $b->visit("/jobs/{$id}/install")->see('The device is in recovery mode. Nothing has been written yet.', 30);
        $this->assertAccessible('the last yes');
        $b->press('Erase it and install 8.7 now')->see('What is being installed');
        $this->assertAccessible('install');
        $b->find(WebDriverBy::cssSelector('[data-step="wake"][data-state="done"]'), 60);
        $b->visit("/jobs/{$id}/return")->see('Declared-Version: 8.7.0', 30)->see('Declared-Version: 9.3.0');
        $this->assertAccessible('return');

        $b->visit("/jobs/{$id}/hand-over")
            ->see('Nothing is missing.', 60)
            ->see('180 of 180')
            ->see('64 of 64')
            ->see('system/about.json')
            ->see('enter again');
        $this->assertAccessible('hand over');
        self::assertSame('8.7.0', self::rig('/devices/SKL-0042')['version']);
        $b->press('Hand over and end the job')
            ->press('Hand over with them open')->see('Ended')->see('Nothing is missing.');
    }

    public function test_progress_survives_a_reload_and_colours_can_be_changed(): void
    {
        $b = $this->browser->signIn();
        $b->press('Dark colours');
        $b->driver->navigate()->refresh();
        $b->see('Ports')->press('Light colours');
        self::assertSame('light', $b->driver->executeScript('return document.documentElement.dataset.theme'));
        $b->driver->findElement(WebDriverBy::tagName('body'))->sendKeys('?');
        $b->see('to the next job that needs a hand');
        $this->assertAccessible('shortcuts');
    }

    public function test_dark_colours_keep_their_contrast(): void
    {
        $b = $this->browser->signIn();
        $b->press('Dark colours');
        $this->assertAccessible('bench, dark');
    }

    public function test_signing_out_closes_the_door_and_a_viewer_may_only_look(): void
    {
        $b = $this->browser->signIn();
        $b->press('Sign out')->see('Password');
        $b->signIn('viewer@skerry.example')->see('Ports');

        self::assertFalse($b->has('li button'), 'A viewer is offered an act.');
    }

    public function test_a_wrong_password_is_told_in_words(): void
    {
        $this->browser
            ->visit()
            ->fill('email', 'bench@skerry.example')
            ->fill('password', 'wrong')
            ->press('Sign in')
            ->see('do not belong together');
    }

    public function test_a_page_that_is_not_there_says_so(): void
    {
        $this->browser->signIn()->visit('/nowhere')->see('There is no such page');
        $this->browser->visit('/jobs/9999')->see('There is nothing here');
    }
}
