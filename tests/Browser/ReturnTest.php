<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use GuzzleHttp\Client;
use Symfony\Component\Process\Process;

/** The data comes back, in all the ways that there are, and the device is handed over with the proof. */
final class ReturnTest extends BrowserTestCase
{
    private const PLAIN = 'SKL-0088';

    private const WEARABLE = 'SKL-0063';

    private const PASSPHRASE = 'harbour light at low tide';

    /** The devices are as they were delivered for whoever comes next. */
    protected function tearDown(): void
    {
        array_map(static fn (string $serial) => self::hand($serial, 'reset', []), [self::PLAIN, self::WEARABLE]);
        parent::tearDown();
    }

    public function test_a_lowered_return_with_an_item_that_is_put_back_from_another_bag(): void
    {
        $b = $this->browser->signIn();
        self::hand(self::PLAIN, 'reset', []);
        $this->bringIn(self::PLAIN, ['daysAgo' => 0, 'madeOn' => '9.3.0', 'label' => 'Kept by the crew']);
        $drop = fn () => self::hand(self::PLAIN, 'faults', ['kind' => 'item-dropped']);
        $id = $this->crossed(self::PLAIN, $drop, false);
        $b->visit("/jobs/{$id}/return")
            ->see('Declared-Version: 8.7.0', 60)
            ->see('Declared-Version: 9.3.0')
            ->see('byte for byte');
        self::assertSame(
            2,
            count($b->driver->findElements(WebDriverBy::cssSelector('[data-difference] > span'))),
            'the difference is two lines',
        );
        $b->find(WebDriverBy::cssSelector('[data-tally="photos"]'));
        $this->assertAccessible('return');

        $b->visit("/jobs/{$id}/hand-over")
            ->see('More is missing than was named: 1 of 30 in photos (1 item). Put it back first.', 90)
            ->see('One item is missing');
        self::assertFalse(
            $this->canPress('Hand over and end the job'),
            'what was not named before is accepted or put back first',
        );
        $this->assertAccessible('hand over with an item missing');
        $missing = (string) $b->find(WebDriverBy::cssSelector('[data-missing]'))->getAttribute('data-missing');
        // the job's own bag loses a bit of it meanwhile; another bag of the device has it too
        $own = (string) self::system()
            ->database()
            ->query(
                "SELECT id FROM bags WHERE serial = '"
                    .self::PLAIN
                    ."' AND lowered_from IS NULL AND source = 'job' ORDER BY created_at DESC LIMIT 1",
            )
            ->fetchColumn();
        $this->flip(self::system()->folder."/bags/{$own}/data/{$missing}");
        $b->press('Put it back');
        $b->visit("/jobs/{$id}/hand-over")->see('It is damaged in this bag. Take it from another.', 60);
        $b->find(WebDriverBy::cssSelector('[data-missing] select'), 30);
        self::assertStringContainsString(
            'Kept by the crew',
            (string) $b->driver->executeScript(
                'const s = document.querySelector("[data-missing] select"); return s.options[s.selectedIndex].text',
            ),
            'the next bag is proposed',
        );
        $b->press('Put it back');
        $b->visit("/jobs/{$id}/hand-over")->see('Nothing is missing.', 60);
        $b->press('Hand over and end the job')
            ->press('Hand over with them open')->see('Ended')->see('Nothing is missing.');
        self::assertSame('done', $this->state($id));
    }

    public function test_a_backup_from_before_the_upgrade_with_sync_over_it_ends_with_named_losses(): void
    {
        $b = $this->browser->signIn();
        self::hand(self::WEARABLE, 'reset', []);
        $this->bringIn(self::WEARABLE, ['daysAgo' => 60, 'madeOn' => '8.6.0', 'label' => 'Before the upgrade']);
        $id = $this->crossed(
            self::WEARABLE,
            function (int $id): void {
                $this->browser->visit("/jobs/{$id}/return")->press('Look at it first');
                self::hand(self::WEARABLE, 'faults', ['kind' => 'sync-late']);
            },
            false,
        );
        $b->visit("/jobs/{$id}/return")
            ->see('The return waits until you let it go on', 90)
            ->see('proposed: the least loss')
            ->see('as it is, brought in');
        $this->assertAccessible('what can be put back');
        $this->putBack('Before the upgrade');
        $b->see('Not here yet by sync', 90);
        $b->find(WebDriverBy::cssSelector('[data-overlay="contacts"][data-state="waiting"]'));
        $this->assertAccessible('waiting for sync');
        $b->click(WebDriverBy::xpath('//li[@data-overlay="health"]//button[.="It has arrived"]'));
        $b->find(WebDriverBy::cssSelector('[data-overlay="health"][data-state="attested"]'));
        self::hand(self::WEARABLE, 'answers', ['answer' => 'sync-arrives']);

        $b->visit("/jobs/{$id}/hand-over")->see('All is as the plan named it', 60);
        foreach (['contacts' => '64 of 64', 'calendars' => '10 of 10', 'photos' => 'of 60'] as $kind => $words) {
            self::assertStringContainsString(
                $words,
                $b->find(WebDriverBy::cssSelector("[data-kind=\"{$kind}\"]"))->getText(),
            );
        }
        $b->see('the app Watch Roster')->see('the pairing with Fenn Band');
        $b->press('Read the device')->find(
            WebDriverBy::cssSelector('[data-aftercare="owner-lock-on"][data-state="open"]'),
        );
        self::hand(self::WEARABLE, 'answers', ['answer' => 'owner-lock-on']);
        $b->press('Read the device')->find(
            WebDriverBy::cssSelector('[data-aftercare="owner-lock-on"][data-state="seen"]'),
        );
        $b->click(WebDriverBy::cssSelector('[data-aftercare="cards-again"] button'));
        $b->find(WebDriverBy::cssSelector('[data-aftercare="cards-again"][data-state="attested"]'));
        $this->assertAccessible('hand over with named losses');
        $this->assertPrintsWell($id);

        $b->visit("/jobs/{$id}/hand-over")->press('Hand over and end the job')
            ->press('Hand over with them open')->see('Ended');
        self::assertSame('done-with-losses', $this->state($id));
        $b->find(WebDriverBy::cssSelector('input[type="search"]'))->sendKeys('watch roster');
        $b->see('Without ')->see(self::WEARABLE);
        $this->assertAccessible('bench with a search among the ended');
        $b->visit("/jobs/{$id}/hand-over")->see('This job is done. The device was handed over, without what is named.');
    }

    public function test_an_encrypted_return_wants_its_passphrase_and_a_refused_backup_makes_way_for_the_next(): void
    {
        $b = $this->browser->signIn();
        self::hand(self::PLAIN, 'reset', []);
        $this->bringIn(self::PLAIN, ['daysAgo' => 30, 'madeOn' => '8.6.0', 'label' => 'A month ago']);
        $id = $this->crossed(
            self::PLAIN,
            fn () => self::hand(self::PLAIN, 'faults', ['kind' => 'return-refused']),
            false,
            true,
        );
        $b->visit("/jobs/{$id}/return");
        $this->givePassphrase(90);
        $b->see('The device refused', 60)
            ->see('does not fit the version that it declares')
            ->see('proposed: the least loss');
        $this->assertAccessible('a refused backup');
        $this->putBack('A month ago');
        $b->visit("/jobs/{$id}/hand-over")->see('All is as the plan named it', 60);
        self::assertStringContainsString(
            'of 30',
            $b->find(WebDriverBy::cssSelector('[data-kind="photos"]'))->getText(),
        );
        $b->find(WebDriverBy::cssSelector('[data-kind="health"][data-verdict="as-promised"]'));
        self::assertSame(
            '0',
            (string) self::system()->database()->query('SELECT COUNT(*) FROM held_passphrases')->fetchColumn(),
        );

        $b->press('Give back unfinished')->see('Give the device back unfinished');
        $b->find(WebDriverBy::cssSelector('textarea'))->sendKeys('The crew needs it for the evening sailing.');
        $this->assertAccessible('giving back unfinished');
        $b->press('Give it back and end the job')->see('Ended')->see('evening sailing');
        self::assertSame('unfinished', $this->state($id));

        $b->keys('j')->see('Every act on every device');
        $b->find(WebDriverBy::cssSelector('input[name="serial"]'))->sendKeys(self::PLAIN);
        $b->see('Gave the device back unfinished')->see('Put the data back: failed')->see('Crossed the erase line');
        self::assertStringNotContainsString(self::PASSPHRASE, $b->text());
        $this->assertAccessible('journal');
        $b->find(WebDriverBy::cssSelector('input[name="words"]'))->sendKeys('nothing of the kind');
        $b->see('No act fits this filter.')->press('Show all')->see(self::PLAIN);
    }

    /** The print layout as PDF pages: Chromium prints, poppler reads. */
    private function assertPrintsWell(int $id): void
    {
        $b = $this->browser->visit("/jobs/{$id}/sheet")->see('What to do now');
        $b->see('Where your data is, and until when');
        $this->assertAccessible('hand-over sheet');
        $file = self::system()->folder.'/sheet.pdf';
        $printed = (new ChromeDevToolsDriver($b->driver))->execute('Page.printToPDF', [
            'preferCSSPageSize' => true,
            'printBackground' => true,
        ]);
        file_put_contents($file, base64_decode($printed['data']));
        $about = (new Process(['pdfinfo', $file]))->mustRun()->getOutput();
        $text = (new Process(['pdftotext', '-layout', $file, '-']))->mustRun()->getOutput();

        self::assertSame(1, preg_match('/^Pages:\s+[12]$/m', $about), $about);
        self::assertStringContainsString('A4', $about);
        foreach (
            [
                'Your Fenn 7',
                '9.3',
                '8.7',
                'What came back',
                'What to do now',
                'Where your data is, and until when',
                'Good to know',
                'Watch Roster',
                'numbers, and nothing of what is on your device',
            ] as $words
        ) {
            self::assertStringContainsString($words, $text);
        }
        foreach (['Back to the job', 'Teo Lind technician', '.jpg', 'thread-', 'Ctrl K'] as $words) {
            self::assertStringNotContainsString($words, $text);
        }
        $sheet = json_decode(
            (string) $b->driver->executeAsyncScript(
                'const done = arguments[0]; fetch("/api/v1/jobs/'.$id.'/sheet").then(r => r.text()).then(done)',
            ),
            true,
        );
        self::assertSame(
            ['jade-step/hand-over', self::WEARABLE, '8.7.0'],
            [$sheet['format'], $sheet['device']['serial'], $sheet['after']['version']],
        );
        self::assertStringNotContainsString('.jpg', (string) json_encode($sheet));
    }

    /**
     * A job whose device has been told to install.
     *
     * @param  callable(int): void  $before  at the open line
     */
    private function crossed(string $serial, callable $before, bool $reset = true, bool $encrypted = false): int
    {
        $b = $this->browser;
        $reset ? self::hand($serial, 'reset', []) : null;
        $b->takeIn($serial)->see('The backup will be', 60);
        $id = $b->jobId();
        if ($encrypted) {
            $b->click(WebDriverBy::xpath('//summary[contains(., "The backup will be")]'));
            $b->click(WebDriverBy::xpath('//label[contains(., "ncrypted")]//input'));
            $b->see('encrypted. Change it');
        }
        $b->click(WebDriverBy::xpath('//button[contains(., "take this route") or contains(., "Take this route")]'));
        $encrypted ? $this->givePassphrase(60, true) : null;
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 120);
        $b->press('I have checked')
            ->see('One check keeps')
            ->press('I have checked')
            ->press('To the erase line')
            ->see('What was proven');
        $b->find(WebDriverBy::cssSelector('form input'))->sendKeys($serial.WebDriverKeys::ENTER);
        $b->see('Put the device in recovery mode', 60);
        $before($id);
        $this->install($serial, $id);

        return $id;
    }

    private function givePassphrase(float $seconds, bool $isNew = false): void
    {
        $this->browser
            ->find(WebDriverBy::cssSelector('input[name="passphrase"]'), $seconds)
            ->sendKeys(self::PASSPHRASE);
        $isNew
            ? $this->browser->find(WebDriverBy::cssSelector('input[name="again"]'))->sendKeys(self::PASSPHRASE)
            : null;
        $this->browser->press('Go on with it')->gone('Go on with it');
    }

    /**
     * Brings a backup in that somebody has kept of a device, over the Shelf.
     *
     * @param  array<string, mixed>  $about
     */
    private function bringIn(string $serial, array $about): void
    {
        $zip = self::system()->folder."/{$serial}-old.zip";
        file_put_contents(
            $zip,
            (string) (new Client)
                ->post(self::system()->settings()['DEVICE_LINK']."/practice/devices/{$serial}/old-backup", [
                    'json' => $about,
                ])
                ->getBody(),
        );
        $this->browser->visit('/shelf')->find(WebDriverBy::cssSelector('input[type="file"]'))->sendKeys($zip);
        $this->browser->find(
            WebDriverBy::xpath("//tr[contains(., \"{$about['label']}\")][@data-state=\"verified\"]"),
            30,
        );
    }

    /** Presses the button below the backup of this label. */
    private function putBack(string $label): void
    {
        $column = '//th[@data-choice][contains(., "'.$label.'")]';
        $this->browser->find(WebDriverBy::xpath($column));
        $this->browser->click(
            WebDriverBy::xpath(
                "//table[@aria-label='Backups side by side']//tr[last()]"
                    ."/td[count({$column}/preceding-sibling::*) + 1]/button",
            ),
        );
        $this->browser->press('Accept these losses and put this one back');
    }

    /** In this bag alone: a file that it shares with another becomes its own first. */
    private function flip(string $file): void
    {
        $folder = dirname($file);
        chmod($folder, 0o755);
        $text = (string) file_get_contents($file);
        unlink($file);
        $text[0] = chr(ord($text[0]) ^ 1);
        file_put_contents($file, $text);
        chmod($folder, 0o555);
    }

    private function state(int $id): string
    {
        return (string) self::system()
            ->database()
            ->query("SELECT state FROM bench_jobs WHERE id = {$id}")
            ->fetchColumn();
    }

    private function canPress(string $words): bool
    {
        return $this->browser->driver->findElements(
            WebDriverBy::xpath("//button[not(@disabled)][normalize-space(.)=\"{$words}\"]"),
        ) !== [];
    }
}
