<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\PassphraseLocker;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindProof;
use JadeStep\Core\Bag\Proof;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Holds the inventory of the backup against what the device lists now, item by item. */
final readonly class Prove implements Step
{
    public function __construct(private DeviceLink $link, private OpenedBags $opened, private PassphraseLocker $locker, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $job = $context->job;
        $bag = $job->safetyBag() ?? throw new \LogicException('A job past the line has a bag.');
        $context->progress('list');
        $content = $this->opened->of($job, $bag);
        if ($content === null) {
            return OpenedBags::wanted('with it the inventory of the backup is opened, to compare');
        }
        $before = $content->inventory();
        $after = $this->link->listing($job->serial, $bag->encryption);
        $context->progress('compare');
        $proof = Reconciliation::compare($before, $after, RewriteRule::usual());
        $this->locker->wipe($job);
        $job->update(['proof' => $this->document($job, $proof, $this->link->read($job->serial))]);

        return Outcome::done();
    }

    /** @return array<string, mixed> */
    private function document(BenchJob $job, Proof $proof, DeviceReading $now): array
    {
        $promised = array_merge(...array_values($job->route['losses'] ?? []));

        return [
            'comparedAt' => Rfc3339::format($this->clock->now()),
            'before' => ['version' => $job->device['version'] ?? '', 'build' => $job->device['build'] ?? ''],
            'after' => ['version' => $now->version, 'build' => $now->build],
            'missing' => $proof->missing(),
            'nothingLost' => $proof->nothingLost($promised),
            'kinds' => array_map(self::kind(...), $proof->kinds),
            'others' => $this->others($job, $proof, $now),
        ];
    }

    /** @return array<string, mixed> */
    private static function kind(KindProof $kind): array
    {
        $paths = static fn (array $items): array => array_map(static fn (Item $i): string => $i->path, $items);

        return [
            'kind' => $kind->kind, 'before' => $kind->before, 'same' => $kind->same,
            'changed' => $kind->changed, 'missing' => $paths($kind->missing), 'extra' => $paths($kind->extra),
        ];
    }

    /**
     * The kinds that no plain backup carries: what was promised, and how many items the device counts now.
     *
     * @return list<array<string, mixed>>
     */
    private function others(BenchJob $job, Proof $proof, DeviceReading $now): array
    {
        $compared = array_map(static fn (KindProof $k): string => $k->kind, $proof->kinds);
        $fates = array_filter($job->route['kinds'] ?? [], static fn (array $f): bool => ! in_array($f['kind'], $compared, true));
        $had = array_column($job->device['kinds'] ?? [], 'items', 'kind');

        return array_values(array_map(static fn (array $f): array => [
            'kind' => $f['kind'], 'outcome' => $f['outcome'], 'before' => $had[$f['kind']] ?? 0, 'after' => $now->counts()[$f['kind']] ?? 0,
        ], $fates));
    }
}
