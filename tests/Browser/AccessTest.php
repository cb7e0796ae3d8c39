<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use JadeStep\Core\Access\TimeCode;

final class AccessTest extends BrowserTestCase
{
    private const PASSWORD = 'kelp landing at noon';

    private const NEW_PASSWORD = 'herring at the slipway';

    public function test_a_person_comes_with_a_link_and_a_second_factor(): void
    {
        $b = $this->browser->signIn('lead@skerry.example')->visit('/settings')->see('People');
        $add = '//section[@aria-labelledby="people"]//label[contains(., "%s")]/input';
        $ivo = ['Name' => 'Ivo Stone', 'Address' => 'ivo@skerry.example', 'Password' => self::PASSWORD];
        foreach ($ivo as $what => $text) {
            $b->type(WebDriverBy::xpath(sprintf($add, $what)), $text);
        }
        $b->press('Add')->passwordAgain('wrong-password')->see('This is not your password.');
        $this->assertAccessible('the password, once more');
        $b->fill('password-again', 'tide-table-9')->press('Go on')->see('ivo@skerry.example');
        $b->click(WebDriverBy::xpath('//li[@data-person="ivo@skerry.example"]//button[.="Link for a new password"]'));
        $link = $b->find(WebDriverBy::cssSelector('[data-link]'))->getText();
        $b->press('Sign out')->see('Forgotten?');

        $b->visit((string) parse_url($link, PHP_URL_FRAGMENT))->see('A new password for Ivo Stone');
        $this->assertAccessible('a new password by a link');
        $b->fill('new-password', 'short')->fill('new-password-again', 'other')->press('Set the password');
        $b->fill('new-password', '1234567890123')->fill('new-password-again', '1234567890123');
        $b->press('Set the password');
        $b->see('guessed easily');
        $b->fill('new-password', self::NEW_PASSWORD)->fill('new-password-again', self::NEW_PASSWORD);
        $b->press('Set the password')->see('Your new password counts')->press('Sign in');
        $b->signIn('ivo@skerry.example', self::NEW_PASSWORD)->visit('/settings')->see('password alone');
        $b->press('Second factor…')->press('Set a second factor up')->passwordAgain(self::NEW_PASSWORD);
        $code = TimeCode::ofSecret($b->find(WebDriverBy::cssSelector('[data-secret]'))->getText());
        $b->fill('code', $code->at(TimeCode::stepOf(new \DateTimeImmutable)))->press('Switch it on');
        $b->see('shown this once');
        $this->assertAccessible('recovery codes');
        $recovery = $b->find(WebDriverBy::cssSelector('[aria-label="Recovery codes"] li'))->getText();
        $b->press('I have written them down')->see('password and a code from your device');

        $b->press('Sign out')->see('Forgotten?');
        $b->fill('email', 'ivo@skerry.example')->fill('password', self::NEW_PASSWORD)->press('Sign in');
        $b->see('Now the code that your device shows')->fill('code', '000000')->press('Sign in');
        $b->see('This code is not right');
        $this->assertAccessible('the code of the second factor');
        $b->fill('code', $recovery)->press('Sign in')->see('Ivo Stone')->visit('/settings');
        $b->press('Take the second factor away')->passwordAgain(self::NEW_PASSWORD)->see('password alone lets you in');
        $b->visit('/settings')->see('Your tokens for scripts');
        $b->find(WebDriverBy::xpath('//label[contains(., "What it is for")]/input'))->sendKeys('a nightly list');
        $b->press('Make a token')->see('It is shown this once')->press('I have it')->see('never used');
        $b->press('Sign out')->see('Forgotten?');
    }
}
