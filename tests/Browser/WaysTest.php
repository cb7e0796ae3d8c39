<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** The ways in and out of a job beside the usual one, as a technician finds them on the screen. */
final class WaysTest extends BrowserTestCase
{
    private const SERIAL = 'SKL-0057';

    private const IN_BETA = 'SKL-0102';

    private const PASSPHRASE = 'tide mill at slack water';

    protected function setUp(): void
    {
        parent::setUp();
        self::deliver([self::SERIAL, self::IN_BETA], true);
    }

    protected function tearDown(): void
    {
        self::deliver([self::SERIAL, self::IN_BETA], false);
        parent::tearDown();
    }

    public function test_an_encrypted_copy_is_looked_into_and_put_back_where_it_was_installed_elsewhere(): void
    {
        $b = $this->browser->signIn();
        $b->click(WebDriverBy::cssSelector('[aria-label="Back up only: '.self::SERIAL.'"]'));
        $b->click(WebDriverBy::xpath('//label[contains(., "encrypted: carries")]/input'))->press('Begin the backup');
        $b->see('Choose the passphrase', 60)->fill('passphrase', self::PASSPHRASE);
        $b->fill('again', self::PASSPHRASE)->press('Go on with it')->see('The backup is sealed', 90);
        $b->press('Find it on the Shelf');
        $b->see('Its passphrase', 30)->fill('look', 'wrong')->press('Look into it');
        $b->see('The passphrase does not open this bag', 30);
        $b->fill('look', self::PASSPHRASE)->press('Look into it');
        $b->see('Opened for this look', 30)->see('saved passwords')->press('Show the owner’s things');
        $this->assertAccessible('a look into an encrypted bag');
        $b->find(WebDriverBy::cssSelector('[aria-label="Find in this bag"]'))->sendKeys('.vcf');
        $b->see('items found', 30)->press('End the look')->see('Its passphrase');
        $b->press('Print its label')->find(WebDriverBy::cssSelector('[data-label] svg'));
        $this->assertAccessible('the label of a bag');

        self::hand(self::SERIAL, 'answers', ['answer' => 'installed-elsewhere']);
        $b->visit('/')->see('8.7', 20);
        $b->click(WebDriverBy::cssSelector('[aria-label="Return only: '.self::SERIAL.'"]'));
        $b->see('Choose what is put back', 60);
        $id = $b->jobId();
        $b->press('Put this one back', 30);
        $b->see('Give the owner’s passphrase', 60)->fill('passphrase', self::PASSPHRASE)->press('Go on with it');
        $b->visit("/jobs/{$id}/hand-over")->see('Item by item', 90)->see('Nothing is missing.');
        $this->assertAccessible('return only, compared');

        $b->find(WebDriverBy::cssSelector('[aria-labelledby="eye"] input'))->sendKeys(self::PASSPHRASE);
        $b->press('Look at home layout, wallpaper and photos')->see('Photos by date', 60)->see('Deck');
        $this->assertAccessible('side by side');
        $b->press('Hand over and end the job')->press('Hand over with them open')->see('Ended');
    }

    public function test_what_would_be_lost_is_written_out_and_the_box_is_held_against_the_device(): void
    {
        self::hand(self::IN_BETA, 'port', ['port' => '9']);
        $b = $this->browser->signIn();
        $b->takeIn(self::IN_BETA)->see('The backup will be', 60);
        $id = $b->jobId();
        $b->visit("/jobs/{$id}/identify")->see('Whose it is');
        $b->find(WebDriverBy::xpath('//label[contains(., "What its box says")]/input'))->sendKeys('Fenn 7 Atlantic');
        $b->press('Keep this with the job')->see('The box says Fenn 7 Atlantic (FN7-2), the device says Fenn 7 Nordic');
        $this->assertAccessible('whose it is');
        $b->press('Print its label')->find(WebDriverBy::cssSelector('[data-label="'.self::IN_BETA.'"] svg'));

        $b->visit("/jobs/{$id}/choose");
        $goal = WebDriverBy::cssSelector('input[aria-label="Version, number or date"]');
        $b->find($goal)->sendKeys(WebDriverKeys::CONTROL.'a'.WebDriverKeys::NULL.'9');
        $b->press('Plan')->see('loses messages, photos', 30);
        $b->press('write messages out')->gone('write messages out');
        $b->press('write photos out')->see('nothing is lost.', 30);
        $b->see('Take this route');
        $this->assertAccessible('a loss that is written out');
        $b->visit('/shelf');
        $b->find(WebDriverBy::cssSelector('input[type="search"]'))->sendKeys(self::IN_BETA.WebDriverKeys::ENTER);
        $b->see('Where each kind comes back from', 20);
        $b->leaveDevice()->see('No job is in progress', 20);
        self::hand(self::IN_BETA, 'port', ['port' => null]);
    }
}
