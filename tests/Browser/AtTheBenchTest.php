<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Browser;

/** A gloved hand, a keyboard alone, a scanner, a cut line: the screen leads on. */
final class AtTheBenchTest extends BrowserTestCase
{
    private const SERIAL = 'SKL-0088';

    protected function setUp(): void
    {
        parent::setUp();
        self::deliver([self::SERIAL], true);
    }

    protected function tearDown(): void
    {
        self::deliver([self::SERIAL], false);
        self::letGo([self::SERIAL]);
        parent::tearDown();
    }

    public function test_the_whole_crossing_by_keyboard_alone(): void
    {
        $b = $this->browser->visit()->see('Address');
        $b->tabTo('input[name="email"]')->keys('bench@skerry.example')->tabTo('input[name="password"]');
        $b->keys('tide-table-9'.WebDriverKeys::ENTER)->see('Ports');
        $this->enter('Take in', '//li[contains(., "'.self::SERIAL.'")]');
        $b->see('What is signed for this model', 60);
        $id = $b->jobId();
        $this->enter('Take this route')->see('Back up');
        $this->enter('I have checked both')->see('Your word was taken.');
        $b->see('To the erase line', 120);
        $this->enter('To the erase line')->see('What was proven');
        $b->keys(self::SERIAL.WebDriverKeys::ENTER)->see('Put the device in recovery mode', 60);
        self::pressKeys(self::SERIAL);
        $b->see('Erase it and install 8.7 now', 60);
        $this->enter('Erase it and install 8.7 now')->see('Hand over and end the job', 180);
        $this->enter('Hand over and end the job')->see('still to be done');
        $this->enter('Hand over with them open')->see('Jobs in progress');
        self::assertSame('done', $this->stateOf($id));
    }

    public function test_one_letter_leads_to_the_next_hand_and_never_fires_on_a_control(): void
    {
        $b = $this->browser->signIn();
        $b->takeIn(self::SERIAL)->see('What is signed for this model', 60);
        $id = $b->jobId();
        $b->visit('/journal')->see('Every act on every device');
        $b->driver->executeScript('document.activeElement.blur()');
        $b->keys('n')->see('Take this route');
        self::assertSame($id, $b->jobId());
        $b->tabTo('button')->keys('j');
        usleep(400_000);
        self::assertSame($id, $b->jobId(), 'a focused button keeps the letter for itself');
        $b->visit('/settings?at=preferences')->see('Your preferences');
        $b->click(WebDriverBy::cssSelector('input[name="shortcuts"]'))->see('Kept for you');
        $b->driver->executeScript('document.activeElement.blur()');
        $b->keys('b');
        usleep(400_000);
        $b->see('Your preferences')->click(WebDriverBy::cssSelector('input[name="shortcuts"]'));
        $b->visit("/jobs/{$id}")->leaveDevice()->see('Ended');
    }

    public function test_a_scanned_label_leads_to_its_job_from_any_search_and_fills_the_erase_line(): void
    {
        $b = $this->browser->signIn();
        $b->takeIn(self::SERIAL)->see('Take this route', 60);
        $id = $b->jobId();
        foreach (['/shelf' => 'input[type="search"]', '/take-in' => 'input[name="serial"]'] as $page => $field) {
            $b->visit($page)->find(WebDriverBy::cssSelector($field))->sendKeys(self::SERIAL.WebDriverKeys::ENTER);
            $b->see('Take this route');
            self::assertSame($id, $b->jobId());
        }
        $b->visit('/almanac')->see('Ask the vendors now')->chord(WebDriverKeys::CONTROL, 'k');
        $b->find(WebDriverBy::cssSelector('[data-palette] input'))->sendKeys(self::SERIAL.WebDriverKeys::ENTER);
        $b->see('Take this route');
        $b->press('Take this route')->press('I have checked both')->press('To the erase line', 120);
        $b->see('What was proven');
        // a scanner sends what stands on the label, with a sign before it and Enter after it
        $b->find(WebDriverBy::cssSelector('input[name="serial"]'))->sendKeys(']C1'.self::SERIAL.WebDriverKeys::ENTER);
        $b->see('Put the device in recovery mode', 60)->press('Leave without writing');
        $b->see('Before the erase line: everything can still be undone.', 60)->leaveDevice()->see('Ended');
    }

    public function test_the_palette_finds_everything_with_the_keyboard_alone(): void
    {
        $b = $this->browser->signIn('lead@skerry.example')->see('Ports');
        $b->chord(WebDriverKeys::CONTROL, 'k')->see('Take in without a cable');
        $this->assertAccessible('palette, nothing typed');
        foreach (
            [
                '8G210' => '[data-found="build"]', 'maren' => '[data-found="person"]',
                'time zone' => '[data-found="setting"]', 'signed in' => '[data-found="act"]',
                'brightmere' => '[data-found="vendor"]', self::SERIAL => '[data-found="device"]',
            ] as $words => $found
        ) {
            $field = $b->find(WebDriverBy::cssSelector('[data-palette] input'));
            $field->sendKeys(WebDriverKeys::CONTROL.'a'.WebDriverKeys::NULL.$words);
            $b->find(WebDriverBy::cssSelector("[data-palette] {$found}"));
        }
        $this->assertAccessible('palette, with answers');
        $b->chord(WebDriverKeys::CONTROL, 'a')->keys('8G210');
        $b->find(WebDriverBy::cssSelector('[data-palette] [data-found="build"][data-selected]'));
        $b->keys(WebDriverKeys::ENTER)->see('Rollback index');
        self::assertStringContainsString('build=8G210', $b->driver->getCurrentURL());
        $b->chord(WebDriverKeys::CONTROL, 'k')->see('go to')->keys('qqq')->see('Nothing has “qqq”');
        $this->assertAccessible('palette, nothing found');
    }

    public function test_a_lost_line_an_ended_session_and_what_was_typed(): void
    {
        $b = $this->browser->signIn();
        $b->visit('/take-in')->see('Name on the box')->fill('modelName', 'Fenn 7');
        self::line($b, true);
        $b->see('No answer from the server since', 30);
        $this->assertAccessible('without an answer');
        self::line($b, false);
        $b->gone('No answer from the server since')->see('The server answers again.');
        self::assertSame('Fenn 7', self::typed($b, 'modelName'));

        // what the page asks by itself finds it out, before anything more could be typed
        $b->fill('imei', '352099110042013')->see('Hardware id FN7-2', 30);
        self::system()->database()->exec('DELETE FROM sessions');
        $b->see('Your session has ended', 30);
        $this->assertAccessible('session ended');
        $b->fill('password', 'tide-table-9')->press('Sign in')->gone('Your session has ended');
        self::assertSame(['Fenn 7', '352099110042013'], [self::typed($b, 'modelName'), self::typed($b, 'imei')]);
        $b->find(WebDriverBy::cssSelector('input[name="imei"]'))->sendKeys(WebDriverKeys::BACKSPACE);
        $b->gone('Hardware id FN7-2')
            ->find(WebDriverBy::cssSelector('input[name="imei"]'))
            ->sendKeys('3');
        $b->see('Hardware id FN7-2', 30);
    }

    /** @param  callable(Browser): mixed  $send */
    #[DataProvider('refusals')]
    public function test_a_refusal_stands_at_its_field_with_the_focus_there(
        string $page,
        string $seen,
        callable $send,
        string $field,
        string $words,
    ): void {
        $b = $this->browser->signIn('lead@skerry.example')->visit($page)->see($seen);
        $send($b);
        $b->see($words);
        $at = $b->find(WebDriverBy::cssSelector("[name=\"{$field}\"][aria-invalid=\"true\"]"));
        self::assertSame($field, $b->driver->switchTo()->activeElement()->getAttribute('name'));
        $told = $b->find(WebDriverBy::id((string) $at->getAttribute('aria-describedby')))->getText();
        self::assertStringContainsString($words, $told);
        self::assertSame(1, substr_count($b->text(), $words), 'it is said once');
        $this->assertAccessible("a refusal at {$field}");
        $at->sendKeys('x');
        $b->gone($words);
    }

    /** @return array<string, array{string, string, callable(Browser): mixed, string, string}> */
    public static function refusals(): array
    {
        return [
            'a taken address' => ['/settings?at=people', 'with a second factor', static function (Browser $b): void {
                $b->fill('email', 'bench@skerry.example');
                $b->find(WebDriverBy::cssSelector('[aria-labelledby="people"] form input[name="name"]'))->sendKeys('T');
                $b->find(WebDriverBy::cssSelector('[aria-labelledby="people"] form input[name="password"]'))
                    ->sendKeys('seven-lamps-at-sea'.WebDriverKeys::ENTER);
                $b->passwordAgain();
            }, 'email', 'Somebody signs in with this address already.'],
            'a folder that is none' => ['/settings?at=storage', 'Change places', static function (Browser $b): void {
                $b->press('Change places and limits')->fill('bagsFolder', 'not/absolute')->press('Save');
            }, 'bagsFolder', 'Name the folder in full, from / on.'],
        ];
    }

    public function test_each_act_is_answered_and_the_last_answers_are_kept(): void
    {
        $b = $this->browser->signIn();
        $b->takeIn(self::SERIAL)->see('Took a device in.', 60)->see('Take this route', 60);
        $b->visit("/jobs/{$b->jobId()}/identify")->see('Whose it is')->fill('holder', 'Wheelhouse');
        $b->press('Keep this with the job')->see('Noted whose the device is');
        $b->click(WebDriverBy::cssSelector('button[aria-label^="Last notices"]'))->see('What was said last');
        self::assertStringContainsString('Took a device in.', $b->text());
        $this->assertAccessible('last notices');
        $b->keys(WebDriverKeys::ESCAPE)->leaveDevice()->see('Ended');
    }

    public function test_a_lead_sets_the_shops_clock_and_every_page_follows(): void
    {
        $b = $this->browser->signIn('lead@skerry.example')->visit('/settings?at=shop')->see('A week begins on');
        $b->fill('shop-name', 'Skerry Ferries');
        $b->click(WebDriverBy::cssSelector('select[name="timeZone"] option[value="Pacific/Auckland"]'));
        $b->click(WebDriverBy::cssSelector('select[name="dateForm"] option[value="year-month-day"]'));
        $b->click(WebDriverBy::cssSelector('select[name="firstDay"] option[value="7"]'));
        $b->press('Save the shop')->see('Set who the shop is');
        $now = new \DateTimeImmutable('now', new \DateTimeZone('Pacific/Auckland'));
        $b->see('Auckland time')->visit('/journal')->see($now->format('Y-m-d'));
        $this->assertAccessible('settings of the shop');
        $b->click(WebDriverBy::cssSelector('button[aria-label="From this day: pick in a calendar"]'))->see('Sun');
        $heads = $b->driver->findElements(WebDriverBy::cssSelector('[data-calendar-head-cell]'));
        self::assertStringStartsWith('Su', $heads[0]->getText());
        $this->assertAccessible('a calendar');
        $b->keys(WebDriverKeys::ESCAPE)->visit('/settings?at=shop')->see('A week begins on');
        $b->click(WebDriverBy::cssSelector('select[name="timeZone"] option[value="UTC"]'));
        $b->click(WebDriverBy::cssSelector('select[name="dateForm"] option[value="day-month-year"]'));
        $b->click(WebDriverBy::cssSelector('select[name="firstDay"] option[value="1"]'));
        $b->press('Save the shop')->gone('Auckland time');
    }

    /** Walks with the tabulator to the button or link with these words, and presses Enter. */
    private function enter(string $words, string $within = '//body'): Browser
    {
        $b = $this->browser;
        $b->find(WebDriverBy::xpath("{$within}//*[self::button or self::a][normalize-space(.)=\"{$words}\"]"), 60);
        for ($i = 0; $i < 120; $i++) {
            $at = $b->driver->executeScript(
                'const e = document.activeElement; const w = document.evaluate(arguments[0], document, null, 9, null)'
                    .'.singleNodeValue; return w?.contains(e) && e.innerText.trim() === arguments[1]',
                [$within, $words],
            );
            if ($at === true) {
                return $b->keys(WebDriverKeys::ENTER);
            }
            $b->keys(WebDriverKeys::TAB);
        }
        self::fail("The focus does not come to \"{$words}\".");
    }

    private function stateOf(int $job): string
    {
        $row = self::system()->database()->query("SELECT state FROM bench_jobs WHERE id = {$job}");

        return (string) $row->fetchColumn();
    }

    private static function typed(Browser $b, string $name): string
    {
        return (string) $b->find(WebDriverBy::cssSelector("input[name=\"{$name}\"]"))->getAttribute('value');
    }

    private static function line(Browser $b, bool $cut): void
    {
        (new ChromeDevToolsDriver($b->driver))->execute('Network.enable');
        (new ChromeDevToolsDriver($b->driver))->execute('Network.emulateNetworkConditions', [
            'offline' => $cut, 'latency' => 0, 'downloadThroughput' => -1, 'uploadThroughput' => -1,
        ]);
    }
}
