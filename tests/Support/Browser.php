<?php

declare(strict_types=1);

namespace Tests\Support;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\NoSuchElementException;
use Facebook\WebDriver\Exception\WebDriverException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\DriverCommand;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Assert;
use Symfony\Component\Process\Process;

/** Headless Chromium with a viewport of exactly 1280 × 800, and the few gestures that the tests need. */
final class Browser
{
    private const ARGUMENTS = [
        '--headless=new',
        '--no-sandbox',
        '--disable-gpu',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-quic',
        '--disable-dev-shm-usage',
        '--window-size=1280,800',
    ];

    private const SECONDS = 20;

    private int $clicks = 0;

    private function __construct(
        public readonly RemoteWebDriver $driver,
        private readonly Process $service,
        private readonly string $profile,
        private readonly string $address,
    ) {
    }

    public static function open(string $address, int $port = 9515): self
    {
        $port = RunningSystem::port($port);
        $service = new Process(['chromedriver', "--port={$port}"], null, null, null, null);
        $service->disableOutput();
        $service->start();
        RunningSystem::waitUntil(
            static fn (): bool => @fsockopen('127.0.0.1', $port) !== false,
            15,
            'ChromeDriver did not start',
        );
        $profile = sys_get_temp_dir().'/jade-step-browser-'.bin2hex(random_bytes(6));
        $options = (new ChromeOptions)->addArguments([...self::ARGUMENTS, "--user-data-dir={$profile}"]);
        $driver = RemoteWebDriver::create(
            "http://127.0.0.1:{$port}",
            DesiredCapabilities::chrome()->setCapability(ChromeOptions::CAPABILITY, $options),
            30_000,
            120_000,
        );
        $browser = new self($driver, $service, $profile, $address);
        $browser->size(1280, 800);
        $browser->keepNotices();
        register_shutdown_function($browser->close(...));

        return $browser;
    }

    /** As if it were opened now: a tab of its own, signed out, with nothing kept. It takes a fraction of the time. */
    public function forget(): self
    {
        $before = $this->driver->getWindowHandles();
        $this->driver->switchTo()->newWindow('tab');
        $here = $this->driver->getWindowHandle();
        foreach ($before as $tab) {
            $this->driver->switchTo()->window($tab)->close();
        }
        $this->driver->switchTo()->window($here);
        $this->signOut();
        $tools = new ChromeDevToolsDriver($this->driver);
        $tools->execute('Network.clearBrowserCache');
        $tools->execute('Storage.clearDataForOrigin', ['origin' => $this->address, 'storageTypes' => 'all']);
        $this->countClicks();
        $this->size(1280, 800);
        $this->keepNotices();

        return $this;
    }

    public function size(int $width, int $height): void
    {
        (new ChromeDevToolsDriver($this->driver))->execute('Emulation.setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => false,
        ]);
    }

    /** A notice is gone after seconds; what was told is kept, for whoever asks why something did not show. */
    private function keepNotices(): void
    {
        (new ChromeDevToolsDriver($this->driver))->execute('Page.addScriptToEvaluateOnNewDocument', [
            'source' => <<<'JS'
                window.noticesTold = [];
                new MutationObserver((changes) => {
                    for (const added of changes.flatMap((change) => [...change.addedNodes])) {
                        if (added.matches?.('[data-sonner-toast]')) window.noticesTold.push(added.innerText);
                    }
                }).observe(document, { childList: true, subtree: true });
                JS,
        ]);
    }

    public function visit(string $hash = '/'): self
    {
        $this->driver->get("{$this->address}/#{$hash}");

        return $this;
    }

    public function signIn(string $email = 'bench@skerry.example', string $password = 'tide-table-9'): self
    {
        return $this->retry(function () use ($email, $password): self {
            $this->signOut();
            $this->visit()->find(WebDriverBy::name('email'), self::SECONDS / 4);
            // a page that is just signed out loads itself anew, and forgets what was typed before
            $this->fill('email', $email)->fill('password', $password)->press('Sign in');

            return $this->see('Bench', self::SECONDS / 4);
        }, self::SECONDS, 'nobody could be signed in');
    }

    /** Before each try: an answer to the page or the tab before may come late, and bring its cookie back. */
    private function signOut(): void
    {
        $this->driver->get('about:blank');
        (new ChromeDevToolsDriver($this->driver))->execute('Network.clearBrowserCookies');
    }

    /** Gives the password once more, where it is asked for. */
    public function passwordAgain(string $password = 'tide-table-9'): self
    {
        return $this->see('Your password, once more')->fill('password-again', $password)->press('Go on');
    }

    /** Clicks what is found, also where the page renders it anew at this moment. */
    public function click(WebDriverBy $by, float $seconds = self::SECONDS): self
    {
        $this->retry(
            fn () => $this->atRest($this->driver->findElement($by))->click(),
            $seconds,
            "nothing could be clicked at {$by->getValue()}",
        );
        $this->clicks++;

        return $this;
    }

    /** What moves while it is clicked is missed: a click is for what two frames show in one place. */
    private function atRest(WebDriverElement $element): WebDriverElement
    {
        $rests = $this->driver->executeAsyncScript(
            <<<'JS'
                const [element, done] = arguments;
                const place = () => JSON.stringify(element.getBoundingClientRect());
                const before = place();
                requestAnimationFrame(() => requestAnimationFrame(() => done(place() === before)));
                JS,
            [$element],
        );

        return $rests === true ? $element : throw new NoSuchElementException('it moves');
    }

    /** Counts clicks from now on. */
    public function countClicks(): void
    {
        $this->clicks = 0;
    }

    public function clicks(): int
    {
        return $this->clicks;
    }

    public function fill(string $name, string $text): self
    {
        $field = $this->find(WebDriverBy::cssSelector("input[name=\"{$name}\"], input[placeholder=\"{$name}\"]"));
        $field->clear();
        $field->sendKeys($text);

        return $this;
    }

    /** Types into an empty field until all of it stands there: a page that just came may take the focus meanwhile. */
    public function type(WebDriverBy $by, string $text): self
    {
        $this->retry(
            function () use ($by, $text): true {
                $field = $this->driver->findElement($by);
                $field->clear();
                $field->sendKeys($text);

                return $field->getAttribute('value') === $text
                    ? true
                    : throw new NoSuchElementException('Not all of it stands there.');
            },
            self::SECONDS,
            "what was typed did not stand at {$by->getValue()}",
        );

        return $this;
    }

    /** Presses the button or link with these words, once it can be pressed. */
    public function press(string $words, float $seconds = self::SECONDS): self
    {
        $quoted = '"'.$words.'"';
        $by = WebDriverBy::xpath(
            "//button[not(@disabled)][normalize-space(.)={$quoted} or @aria-label={$quoted}] | "
                ."//a[normalize-space(.)={$quoted}]",
        );

        return $this->click($by, $seconds);
    }

    /** Types on what has the focus, also where the page renders it anew at this moment: then nothing was typed yet. */
    public function keys(string $keys): self
    {
        $this->retry(
            fn () => $this->driver->switchTo()->activeElement()->sendKeys($keys),
            self::SECONDS,
            'nothing that has the focus took what was typed',
        );

        return $this;
    }

    /** Two keys at once, wherever the focus goes with them. */
    public function chord(string $held, string $key): self
    {
        $this->driver->action()->keyDown(null, $held)->sendKeys(null, $key)->keyUp(null, $held)->perform();

        return $this;
    }

    /** Closes what is open, whatever in it has the focus. */
    public function escape(): self
    {
        // as a bare key: sent to a field that takes files, the driver would read it as a file's name
        $key = static fn (string $type): array => ['type' => $type, 'value' => WebDriverKeys::ESCAPE];
        $this->driver->execute(DriverCommand::ACTIONS, ['actions' => [
            ['type' => 'key', 'id' => 'keyboard', 'actions' => [$key('keyDown'), $key('keyUp')]],
        ]]);

        return $this;
    }

    /** Presses the tabulator until something that fits has the focus. */
    public function tabTo(string $css, string $key = WebDriverKeys::TAB): self
    {
        return $this->walkTo(
            fn (): bool => (bool) $this->driver->executeScript('return document.activeElement.matches(arguments[0])', [
                $css,
            ]),
            $key,
            $css,
        );
    }

    public function backTo(string $css): self
    {
        return $this->tabTo($css, WebDriverKeys::SHIFT.WebDriverKeys::TAB);
    }

    public function tabToText(string $words): self
    {
        return $this->walkTo(
            fn (): bool => $this->driver->executeScript('return document.activeElement.innerText.trim()') === $words,
            WebDriverKeys::TAB,
            $words,
        );
    }

    /** @param  callable(): bool  $there */
    private function walkTo(callable $there, string $key, string $where): self
    {
        for ($i = 0; $i < 80; $i++) {
            $this->keys($key);
            if ($there()) {
                return $this;
            }
        }
        Assert::fail("The focus does not come to {$where}.");
    }

    /** Takes a plugged-in device in from the Bench. */
    public function takeIn(string $serial): self
    {
        $this->visit('/');
        $this->find(WebDriverBy::xpath("//li[contains(., \"{$serial}\")]//button[contains(., \"Take in\")]"))->click();

        return $this;
    }

    /** Ends a job before the line, which asks once more. */
    public function leaveDevice(): self
    {
        return $this->press('Leave the device as it is')->press('Leave it as it is');
    }

    public function jobId(): int
    {
        $id = $this->retry(
            fn (): int => (int) preg_replace('#\A.*/jobs/(\d+).*\z#', '$1', $this->driver->getCurrentURL())
            ?: throw new NoSuchElementException('no job'),
            self::SECONDS,
            'no job was opened',
        );

        return $id;
    }

    public function hasButton(string $words): bool
    {
        return $this->driver->findElements(WebDriverBy::xpath("//button[normalize-space(.)=\"{$words}\"]")) !== [];
    }

    public function see(string $text, float $seconds = self::SECONDS): self
    {
        $seen = $this->retry(function () use ($text): string {
            $page = $this->text();

            return str_contains($page, $text) ? $page : throw new NoSuchElementException($text);
        }, $seconds, "\"{$text}\" did not show");
        Assert::assertStringContainsString($text, $seen);

        return $this;
    }

    public function gone(string $text): self
    {
        $left = $this->retry(function () use ($text): string {
            $page = $this->text();

            return str_contains($page, $text) ? throw new NoSuchElementException($text) : $page;
        }, self::SECONDS, "\"{$text}\" did not go");
        Assert::assertStringNotContainsString($text, $left);

        return $this;
    }

    public function text(): string
    {
        return (string) $this->driver->executeScript('return document.body.innerText');
    }

    public function find(WebDriverBy $by, float $seconds = self::SECONDS): WebDriverElement
    {
        return $this->retry(
            fn (): WebDriverElement => $this->driver->findElement($by),
            $seconds,
            "nothing was found at {$by->getValue()}",
        );
    }

    public function has(string $css): bool
    {
        return $this->driver->findElements(WebDriverBy::cssSelector($css)) !== [];
    }

    public function shot(string $file): self
    {
        $this->driver->takeScreenshot($file);

        return $this;
    }

    /** @return list<string> rule ids and places of accessibility violations (axe-core, WCAG 2.2 A and AA) */
    public function accessibilityViolations(AxeRules $rules = AxeRules::All): array
    {
        $this->driver->executeScript('return window.axe !== undefined') === true
            || $this->driver->executeScript(
                (string) file_get_contents(RunningSystem::root().'/node_modules/axe-core/axe.min.js'),
            );
        $found = $this->driver->executeAsyncScript(
            <<<'JS'
                const [options, done] = arguments;
                const ends = (a) => a.effect?.getComputedTiming().endTime !== Infinity;
                const moves = document.getAnimations().filter(ends).map((a) => a.finished.catch(() => null));
                const settled = Promise.race([Promise.all(moves), new Promise((go) => setTimeout(go, 2000))]);
                const words = (rule, node) => `${rule.id}: ${node.target.join(' ')} ${node.any[0]?.message ?? ''}`;
                settled
                    .then(() => axe.run(document, { ...options, resultTypes: ['violations'] }))
                    .then((r) => done(r.violations.flatMap((rule) => rule.nodes.map((node) => words(rule, node)))));
                JS,
            [$rules->options()],
        );

        return array_values($found);
    }

    public function close(): void
    {
        try {
            $this->driver->quit();
        } catch (\Throwable) {
            // it was closed already
        }
        $this->service->stop(2);
        (new Process(['rm', '-rf', $this->profile]))->run();
    }

    /**
     * @template T
     *
     * @param  callable(): T  $try
     * @return T
     */
    private function retry(callable $try, float $seconds, string $otherwise): mixed
    {
        $seconds *= RunningSystem::PATIENCE;
        $until = microtime(true) + $seconds;
        while (true) {
            try {
                return $try();
            } catch (\RuntimeException|WebDriverException $e) {
                if (microtime(true) > $until) {
                    $told = (string) $this->driver->executeScript('return window.noticesTold?.join("; ") ?? ""');
                    throw new \RuntimeException(
                        "Within {$seconds} seconds {$otherwise}. Notices told: {$told}. The page says:\n"
                            .mb_substr($this->text(), 0, 3000),
                        0,
                        $e,
                    );
                }
                usleep(100_000);
            }
        }
    }
}
