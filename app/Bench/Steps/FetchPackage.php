<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Almanac\JobVendor;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\Exception\LinkLost;
use App\Ports\PackageCache;

/** Fetches the package of the route's leg, going on where a broken fetch stopped, and compares its digest. */
final readonly class FetchPackage implements Step
{
    private const CHUNK = 262_144;

    public function __construct(private JobVendor $vendor, private PackageCache $cache)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $package = $context->job->route['legs'][0]['package'];
        $sha256 = $package['sha256'];
        $context->progress('look');
        if ($this->cache->isSound($sha256, $this->alive($context)) === true) {
            return Outcome::done();
        }
        $lock = fopen($this->cache->part($sha256).'.lock', 'c') ?: throw new \RuntimeException('The package folder is not writable.');
        if (! flock($lock, LOCK_EX | LOCK_NB)) {
            return Outcome::again(2); // another job fetches the same package
        }
        $this->fetch($context, $this->url($context, $sha256), $sha256, $package['bytes']);

        return $this->judge($context, $sha256);
    }

    private function url(StepContext $context, string $sha256): string
    {
        return PackageAddress::of($context->job, $sha256) ?? throw new LinkLost('The almanac names no address for this package.');
    }

    private function fetch(StepContext $context, string $url, string $sha256, int $whole): void
    {
        $part = $this->cache->part($sha256);
        $done = (int) @filesize($part);
        if ($done >= $whole) {
            return;
        }
        $in = $this->vendor->service($context->job)->openPackage($url, $done);
        $out = fopen($part, 'ab') ?: throw new \RuntimeException('The package folder is not writable.');
        while (! feof($in)) {
            $text = (string) fread($in, self::CHUNK);
            if (fwrite($out, $text) !== strlen($text)) {
                throw new \RuntimeException('The disk took only a part of the package.');
            }
            $done += strlen($text);
            $context->progress('fetch', null, $done, $whole);
        }
        fclose($out);
        if ($done < $whole) {
            throw LinkLost::to('The vendor\'s service broke the fetch off and');
        }
    }

    private function judge(StepContext $context, string $sha256): Outcome
    {
        return $this->cache->keepIfSound($sha256, $this->alive($context))
            ? Outcome::done()
            : Outcome::failed('package-altered', 'The package that came is not the one that the almanac names; it was thrown away. Try again.');
    }

    /** @return callable(int): void */
    private function alive(StepContext $context): callable
    {
        return static fn () => $context->progress('compare the digest');
    }
}
