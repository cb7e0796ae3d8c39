<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** An encrypted backup by hand, and the Shelf that it stands on. */
final class ShelfTest extends BrowserTestCase
{
    public function test_an_encrypted_backup_is_taken_and_found_on_the_shelf(): void
    {
        $b = $this->browser->signIn();
        $b->takeIn('SKL-0057')->see('The backup will be plain');
        $id = $b->jobId();
        $b->click(WebDriverBy::cssSelector('details summary'));
        $b->click(WebDriverBy::xpath('//label[contains(., "encrypted: carries")]/input'));
        $b->see('The backup will be encrypted');
        $this->assertAccessible('choose, with the backup');
        $b->press('Take this route')->see('Choose the passphrase of this backup', 40);
        $b->fill('passphrase', 'short')->fill('again', 'short')->press('Go on with it')->see('Choose the passphrase');
        $this->assertAccessible('the passphrase');
        $b->press('Offer six words')->see('For the owner to write down');
        $offered = preg_split('/[\\s-]+/', trim($b->find(WebDriverBy::cssSelector('[data-offered]'))->getText()));
        self::assertCount(6, (array) $offered);
        $nth = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];
        $asked = array_values(array_filter(
            range(0, 5),
            static fn (int $at): bool => str_contains($b->text(), "The {$nth[$at]} word"),
        ));
        self::assertCount(2, $asked);
        $b->fill('word-1', 'herring')->fill('word-2', 'herring')->see('These are not the words that stand there.');
        foreach ($asked as $i => $at) {
            $b->fill('word-'.($i + 1), $offered[$at]);
        }
        $this->assertAccessible('six words, read back');
        $b->press('Go on with it')->gone('Choose the passphrase of this backup');
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 90);
        $b->find(WebDriverBy::cssSelector('[data-check="passphrase-proven"][data-state="pass"]'));
        $b->leaveDevice()->see('Ended');

        $b->visit('/shelf')->see('Bring a bag in')->see('SKL-0057')->see('proven');
        $this->assertAccessible('shelf');
        $b->find(WebDriverBy::cssSelector('input[type="search"]'))->sendKeys('encrypted 0057');
        $b->click(WebDriverBy::xpath('//tr[contains(., "SKL-0057")]//th/a'));
        $b->see('It is opened for this look only');
        self::assertStringNotContainsString("job {$id}", $b->text());
        $this->assertAccessible('the page of a closed bag');
        $b->press('Verify again')->find(WebDriverBy::cssSelector('[data-bag][data-state="sealed"]'), 60);
        $b->visit('/shelf?find=nothing-like-it')->see('No bag fits');
    }

    public function test_a_plain_bag_is_looked_into_and_a_lead_deletes_it_with_a_reason(): void
    {
        $b = $this->browser->signIn('lead@skerry.example');
        $b->takeIn('SKL-0063')
            ->see('Accept these losses and take this route')
            ->press('Accept these losses and take this route');
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 90);
        $id = (string) self::system()
            ->database()
            ->query("SELECT id FROM bags WHERE serial = 'SKL-0063' ORDER BY created_at DESC, id DESC LIMIT 1")
            ->fetchColumn();
        $b->leaveDevice()->see('Ended')->visit('/shelf');
        $b->click(WebDriverBy::cssSelector("tr[data-bag=\"{$id}\"] th a"));
        $b->see('When what it holds was last changed')->see('24 items');
        self::assertFalse($b->has('img[alt^="album-"]'), 'nothing of the owner\'s is shown before somebody asks');
        $this->assertAccessible('the page of a bag');
        $b->press('Show the owner’s things')->find(WebDriverBy::cssSelector('img[alt^="album-"]'));
        $this->assertAccessible('a bag from inside');
        $b->click(WebDriverBy::cssSelector('button[data-kind="notes"]'));
        $b->press('note-03.md')->see('Ramp hydraulics');

        $delete = '//button[.="Delete this bag"]';
        self::assertNotNull(
            $b->find(WebDriverBy::xpath($delete))->getAttribute('disabled'),
            'a sealed copy wants a reason',
        );
        $b->find(WebDriverBy::xpath('//label[contains(., "Why is it to be deleted?")]/input'))->sendKeys(
            'made for practice'.WebDriverKeys::ENTER,
        );
        $b->press('Delete it')->passwordAgain()->see('Compare two')->gone($id);
    }

    public function test_two_bags_are_compared_on_a_page_of_its_own(): void
    {
        $b = $this->browser->signIn()->visit('/shelf')->see('Compare two');
        $b->press('Choose them there')->see('Compare two bags');
        $this->assertAccessible('comparison, nothing chosen');
    }

    public function test_a_lead_manages_people_and_keep_rules(): void
    {
        $b = $this->browser
            ->signIn('lead@skerry.example')
            ->visit('/settings')
            ->see('At night, and how long')
            ->see('here, now');
        $this->assertAccessible('settings of a lead');
        $b->click(WebDriverBy::xpath('//li[@data-person="lead@skerry.example"]//button[.="Remove"]'));
        $b->press('Remove them')->passwordAgain()->see('This is the last lead');
        $b->find(WebDriverBy::xpath('//label[contains(., "days of which")]/input'))->sendKeys(WebDriverKeys::ARROW_UP);
        $b->click(WebDriverBy::xpath('//section[@aria-labelledby="keeping"]//button[.="Save"]'));
        $b->see('Set how long backups are kept.');
    }
}
