<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use GuzzleHttp\Client;

/** From a phone without a cable to an accepted route, the first one with the keyboard alone. */
final class IntakeTest extends BrowserTestCase
{
    private const SERIAL = 'SKL-0063';

    public function test_a_phone_is_taken_in_by_hand_identified_and_planned_with_the_keyboard_alone(): void
    {
        $b = $this->browser->signIn()->see(self::SERIAL);
        self::port(null);
        $b->keys('t')->see('One by hand');
        $b->tabTo('input[name="modelName"]')
            ->keys('Fenn 7')
            ->keys(WebDriverKeys::ESCAPE)
            ->see('3 variants still fit')
            ->see('What is its IMEI?');
        $b->tabTo('select[name="carrierTied"]')->keys('y')->see('Hardware id FN7-3');
        $b->tabTo('input[name="serial"]')->keys(self::SERIAL);
        $b->tabTo('input[name="version"]')->keys('9.2');
        $b->tabTo('input[name="goal"]')->keys('newest in 8');
        $this->assertAccessible('take in');
        $b->keys(WebDriverKeys::ENTER)->see('9.2')->see('A route can be taken when the device is plugged in');
        self::assertFalse($b->hasButton('Take this route'));
        $b->keys('1')->see('plug-in-wanted')->see('When it is here');
        $this->assertAccessible('a device that is waited for');

        self::port('3');
        $b->see('The device says otherwise', 30)->see('said 9.2, is 9.3')->see('fenn band');
        $b->keys('2')->see('Where each kind comes back from')->see('Accept these losses and take this route');
        $this->assertAccessible('choose, with losses');

        $b->tabTo('[data-what-if]')->keys(WebDriverKeys::ENTER)->see('Only looked at');
        $b->tabTo('[aria-labelledby="what-if"] input[type="number"]')
            ->keys('0.05')
            ->see('Pretended: The line carries 0.1 MB/s');
        $b->tabTo('[aria-labelledby="what-if"] input[type="checkbox"]')
            ->keys(WebDriverKeys::SPACE)
            ->see('App data: synced continuously');
        $this->assertAccessible('what if');
        self::assertFalse($b->hasButton('Accept these losses and take this route'), 'what is pretended is not taken');
        $b->backTo('[data-what-if]')->keys(WebDriverKeys::ENTER)->see('Accept these losses and take this route');
        $b->tabToText('Accept these losses and take this route')->keys(WebDriverKeys::ENTER)->see('Back up');
        $id = $b->jobId();
        $b->visit("/jobs/{$id}/choose")
            ->see('This route was taken')
            ->see('Accepted by Teo Lind')
            ->see('Nothing differs now');

        self::practice('brightmere', [
            'windows' => ['8G210' => ['until' => '2031-05-01T10:00:00Z', 'announced' => true]],
        ]);
        $b->visit('/almanac/FN7-3')->press('Ask the vendors now')->see('will stop being signed 1 May 2031');
        $b->visit("/jobs/{$id}/choose")
            ->see('What differs now from the plan that was accepted')
            ->see('The window of 8.7 (8G210) ends 1 May 2031, 10:00 now');
        $b->leaveDevice()->see('Ended');
    }

    public function test_a_table_of_devices_is_looked_at_and_taken_in(): void
    {
        $b = $this->browser->signIn()->visit('/take-in')->press('Several from a table');
        $b->find(WebDriverBy::cssSelector('textarea'))->sendKeys(
            "serial,modelName,version,goal\nSKL-0801,Fenn 7,9.3,newest in 8\nSKL-0802,Fenn "
                ."77,9.3,8.7\nSKT-0803,Mere 11,9.3,below 9.0\n",
        );
        $b->press('Look at it')
            ->see('2 of 3 lines are good; 1 cannot be taken in')
            ->see('No vendor here has a model of the name Fenn 77');
        $this->assertAccessible('a table of devices');

        $b->press('Take in the 2 good ones')->see('SKL-0801')->see('SKT-0803')->see('Plug it in when it is here');
        foreach (['SKL-0801', 'SKT-0803'] as $serial) {
            $b->click(WebDriverBy::xpath("//li/a[contains(., '{$serial}')]"));
            $b->leaveDevice()->see('Ended');
        }
    }

    public function test_the_layout_holds_on_a_tablet_and_on_a_wide_screen(): void
    {
        $b = $this->browser->signIn();
        foreach ([1024, 1920] as $width) {
            $b->size($width, 800);
            foreach (['/almanac', '/take-in', '/settings'] as $place) {
                $b->visit($place)->see(
                    $place === '/settings'
                        ? 'Thumbprint'
                        : ($place === '/almanac'
                            ? 'What changed'
                            : 'Which one it is'),
                );
                self::assertLessThanOrEqual(
                    $width,
                    $b->driver->executeScript('return document.documentElement.scrollWidth'),
                    "{$place} at {$width}",
                );
            }
        }
    }

    protected function tearDown(): void
    {
        (new Client)->delete(self::vendor('brightmere').'/practice');
        parent::tearDown();
    }

    private static function port(?string $port): void
    {
        (new Client)->post(
            self::system()->settings()['DEVICE_LINK'].'/practice/devices/'.self::SERIAL.'/port',
            ['json' => ['port' => $port]],
        );
    }
}
