<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\RunningSystem;

/** Backing up without any other work: from the Bench in two clicks, one device or several, and named. */
final class BackUpOnlyTest extends BrowserTestCase
{
    private const DEVICES = ['SKL-0057', 'SKL-0088'];

    protected function setUp(): void
    {
        parent::setUp();
        self::deliver(self::DEVICES, true);
    }

    protected function tearDown(): void
    {
        self::deliver(self::DEVICES, false);
        parent::tearDown();
    }

    public function test_a_device_is_backed_up_in_two_clicks_and_the_backup_is_renamed(): void
    {
        $b = $this->browser->signIn();
        $b->click($this->backUpOnly('SKL-0057'));
        $b->see('Nothing changes on the device');
        $this->assertAccessible('back up only');
        $b->press('Begin the backup')->see('The backup is sealed', 60);
        self::assertSame(
            ['Identify', 'Safeguard', 'Hand over'],
            array_map(
                static fn ($stone): string => explode("\n", $stone->getText())[0],
                $b->driver->findElements(WebDriverBy::cssSelector('[aria-label="Stages of the job"] a')),
            ),
        );
        $this->assertAccessible('backed up');

        $b->click(WebDriverBy::xpath('//a[normalize-space(.)="Find it on the Shelf"]'));
        $name = WebDriverBy::xpath('//label[starts-with(normalize-space(.), "Name")]/input');
        $b->find($name)->sendKeys(WebDriverKeys::CONTROL.'a'.WebDriverKeys::NULL.'Before the beta');
        $b->press('Rename')->find(WebDriverBy::xpath('//h1[normalize-space(.)="Before the beta"]'));
        $b->visit('/shelf')->find(WebDriverBy::cssSelector('input[type="search"]'))->sendKeys('before beta 0057');
        $b->find(WebDriverBy::cssSelector('tr[data-state="sealed"]'));
    }

    public function test_several_devices_are_backed_up_at_once(): void
    {
        $b = $this->browser->signIn();
        $b->click($this->backUpOnly('SKL-0057'));
        $b->click(WebDriverBy::xpath('//label[contains(., "SKL-0088")]/input'));
        $b->press('Begin 2 backups')->see('2 backups begun.');
        foreach (self::DEVICES as $serial) {
            RunningSystem::waitUntil(
                static fn (): bool => (int) self::system()
                    ->database()
                    ->query("SELECT COUNT(*) FROM bags WHERE serial = '{$serial}' AND state = 'sealed'")
                    ->fetchColumn() > 0,
                90,
                "{$serial} was not backed up",
            );
        }
        $b->visit('/')->see('No job is in progress', 20);
    }

    private function backUpOnly(string $serial): WebDriverBy
    {
        return WebDriverBy::cssSelector("[aria-label=\"Back up only: {$serial}\"]");
    }
}
