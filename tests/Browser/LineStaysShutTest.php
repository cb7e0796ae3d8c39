<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

final class LineStaysShutTest extends BrowserTestCase
{
    public function test_a_damaged_and_then_a_missing_backup_keep_the_erase_line_shut(): void
    {
        $b = $this->browser->signIn();
        $b->click(WebDriverBy::xpath('//li[contains(., "SKL-0057")]//button[contains(., "Take in")]'));
        $b->press('Take this route');
        $b->find(WebDriverBy::cssSelector('[data-step="cross-line"][data-state="needs-hand"]'), 60);
        $b->press('I have checked')->see('One check keeps')->press('I have checked')->press('To the erase line');

        // the page shows everything proven; now one bit of the sealed copy flips on the disk
        $bag = $this->bag();
        exec('chmod -R u+w '.escapeshellarg($bag));
        $text = (string) file_get_contents("{$bag}/data/photos/album-01/deck-0007.jpg");
        $text[100] = chr(ord($text[100]) ^ 1);
        file_put_contents("{$bag}/data/photos/album-01/deck-0007.jpg", $text);
        $this->typeSerialAndCross();

        $b->see('album-01/deck-0007.jpg', 30)->see('The backup: damaged');
        self::assertFalse($b->has('[aria-label="erase line, crossed"]'));
        $this->assertAccessible('safeguard with a damaged bag');
        $b->visit('/jobs/'.$this->jobId().'/line')->see('What was proven');
        $this->typeSerialAndCross();
        $b->see('stays closed');

        $b->visit('/jobs/'.$this->jobId().'/safeguard')->press('Back up again')->see('The backup: sealed', 60);
        exec('chmod -R u+w '.escapeshellarg($this->bag()).' && rm -rf '.escapeshellarg($this->bag()));
        $b->visit('/jobs/'.$this->jobId().'/line')->see('What was proven');
        $this->typeSerialAndCross();
        $b->see('stays closed: Back the device up.', 30);

        $device = self::rig('/devices/SKL-0057');
        self::assertSame(
            ['9.3.0', 'normal', 90],
            [$device['version'], $device['mode'], array_column($device['kinds'], 'items', 'kind')['photos']],
        );
        $b->visit('/jobs/'.$this->jobId().'/safeguard')
            ->leaveDevice()
            ->see('Ended');
    }

    private function typeSerialAndCross(): void
    {
        $this->browser->find(WebDriverBy::cssSelector('form input'))->sendKeys('SKL-0057');
        $this->browser->press('Cross and erase');
    }

    private function jobId(): string
    {
        return (string) preg_replace('#.*/jobs/(\d+).*#', '$1', $this->browser->driver->getCurrentURL());
    }

    /** The newest bag of the device. */
    private function bag(): string
    {
        $id = self::system()
            ->database()
            ->query("SELECT id FROM bags WHERE serial = 'SKL-0057' ORDER BY created_at DESC, id DESC LIMIT 1")
            ->fetchColumn();

        return self::system()->folder."/bags/{$id}";
    }
}
