<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Tests\Support\AxeRules;

/** Every view on a tablet, a small and a wide screen, at twice the text, in both colours: it holds, axe content. */
final class LayoutTest extends BrowserTestCase
{
    private const SERIAL = 'SKL-0063';

    private const PAGES = [
        '/' => 'Jobs in progress',
        '/take-in' => 'Name on the box',
        '/batches' => 'Several devices by a deadline',
        '/batches/new' => 'Which devices',
        '/almanac' => 'Ask the vendors now',
        '/almanac?as=estimates' => 'What would have been told before',
        '/shelf' => 'Bring a bag in',
        '/shelf/compare' => 'Compare two bags',
        '/rig' => 'For practice',
        '/journal' => 'Every act on every device',
        '/reports' => 'Month before',
        '/settings' => 'Your preferences',
        '/jobs/:id/identify' => 'What stands in the way',
        '/jobs/:id/choose' => 'Where each kind comes back from',
        '/jobs/:id/safeguard' => 'First choose a route',
        '/jobs/:id/install' => 'The install begins on the other side',
        '/jobs/:id/return' => 'What comes back is decided',
        '/jobs/:id/hand-over' => 'Hand over',
        '/jobs/:id/line' => 'The erase line cannot be crossed now',
        '/nowhere' => 'There is no such page',
    ];

    /** Page, what begins the words of the button that opens it, and what it says. */
    private const DIALOGS = [
        'the palette' => ['/', 'Find…', 'who did what'],
        'shortcuts' => ['/', 'Keyboard shortcuts', 'In a window chart'],
        'back up several' => ['/', 'Back up all', 'Nothing changes on the device'],
        'take in several' => ['/', 'Take in all', 'Each is read first'],
        'a catalogue from a file' => ['/almanac', 'Take in from a file', 'Nothing is stored before'],
        'somebody to remove' => ['/settings', 'Remove', 'Keep them'],
        'what was said last' => ['/', 'Last notices', 'What was said last'],
        'the device is left' => ['/jobs/:id', 'Leave the device as it is', 'End this job and leave the device'],
    ];

    /** What each page of a dialog says once all of it is there. */
    private const LOADED = [
        '/' => 'Jobs in progress',
        '/almanac' => 'Ask the vendors now',
        '/settings' => 'Nell Ferris',
        '/jobs/:id' => 'What is signed for this model',
    ];

    /** Width, height, colours, size of the text in percent, and what axe has not looked at before. */
    private const SCREENS = [
        'a tablet' => [820, 1180, 'light', 100, AxeRules::All],
        'a tablet in the dark' => [820, 1180, 'dark', 100, AxeRules::Colours],
        'a small screen' => [1024, 768, 'light', 100, AxeRules::AllButColours],
        'a wide screen in the dark' => [1920, 1080, 'dark', 100, AxeRules::All],
        'twice the text' => [1280, 800, 'light', 200, AxeRules::AllButColours],
    ];

    protected function tearDown(): void
    {
        self::letGo([self::SERIAL]);
        parent::tearDown();
    }

    public function test_every_page_holds(): void
    {
        $b = $this->browser->signIn('lead@skerry.example');
        $id = $b->takeIn(self::SERIAL)->see('What is signed for this model', 60)->jobId();
        foreach (self::PAGES as $page => $seen) {
            $b->visit(str_replace(':id', (string) $id, $page))->see($seen);
            foreach (self::SCREENS as $what => $screen) {
                $this->show(...array_slice($screen, 0, 4));
                self::assertLessThanOrEqual(
                    $screen[0],
                    $b->driver->executeScript('return document.documentElement.scrollWidth'),
                    "{$page} is wider than {$what}",
                );
                $b->see($seen);
                $this->assertAccessible("{$page} on {$what}", $screen[4]);
            }
        }
        $this->show(1024, 768, 'light', 100);
        $b->visit("/jobs/{$id}")->leaveDevice()->see('Ended');
    }

    public function test_every_dialog_opens_and_is_accessible(): void
    {
        $b = $this->browser->signIn('lead@skerry.example');
        $id = $b->takeIn(self::SERIAL)->see('What is signed for this model', 60)->jobId();
        foreach (self::DIALOGS as $what => [$page, $opens, $seen]) {
            $opener = "//button[starts-with(normalize-space(.), '{$opens}') or starts-with(@aria-label, '{$opens}')]";
            // on a page that is half there another button of the same words would come first
            $b->visit(str_replace(':id', (string) $id, $page))->see(self::LOADED[$page]);
            foreach (self::SCREENS as $where => $screen) {
                $this->show(...array_slice($screen, 0, 4));
                $b->click(WebDriverBy::xpath($opener))->see($seen);
                $this->assertAccessible("{$what} on {$where}", $screen[4]);
                $b->escape()->gone($seen);
            }
        }
        $this->show(1024, 768, 'light', 100);
        $b->visit("/jobs/{$id}")->leaveDevice()->see('Ended');
    }

    /** @param  int  $percent  size of the text, of what is usual */
    private function show(int $width, int $height, string $theme, int $percent): void
    {
        $this->browser->size($width, $height);
        $this->browser->driver->executeAsyncScript(
            <<<'JS'
                const [theme, percent, done] = arguments;
                document.documentElement.dataset.theme = theme; // as the switch for colours does
                document.documentElement.style.fontSize = `${percent}%`;
                requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done, 50)));
                JS,
            [$theme, $percent],
        );
    }
}
