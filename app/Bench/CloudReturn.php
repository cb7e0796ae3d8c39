<?php

declare(strict_types=1);

namespace App\Bench;

use App\Ports\DeviceLink;
use App\Ports\DeviceReading;

/**
 * A return from the owner's cloud: the device fetches it by itself when its holder says so on it. This machine only sees
 * that the kinds are there, or takes a person's word.
 */
final readonly class CloudReturn
{
    public function __construct(private DeviceLink $link)
    {
    }

    public function run(StepContext $context): Outcome
    {
        if (isset($context->job->overlays[TheReturn::CLOUD])) {
            return Outcome::done(['backup' => TheReturn::CLOUD, 'attested by' => $context->job->overlays[TheReturn::CLOUD]['by']]);
        }
        $reading = $this->link->read($context->job->serial);
        if ($reading->operation !== null) {
            $end = $context->watch($this->link, $reading->operation);
            if ($end instanceof Outcome) {
                return $end;
            }
        }
        $tally = self::tally($context->job->cloud['backup']['kinds'] ?? [], $context->job->device['kinds'] ?? [], $reading);
        $context->remember(['tally' => $tally]);

        return self::isThere($tally)
            ? Outcome::done(['backup' => TheReturn::CLOUD, 'seen' => $tally])
            : Outcome::again(2, 'cloud-return-wanted', 'Have the owner sign in on the device and choose the cloud backup there. It goes on when the kinds are seen on the device, or when somebody says that they have arrived.');
    }

    /**
     * @param  list<string>  $kinds
     * @param  list<array<string, mixed>>  $before
     * @return array<string, array{int, int}> items there, and before, by kind
     */
    private static function tally(array $kinds, array $before, DeviceReading $now): array
    {
        $had = array_column($before, 'items', 'kind');
        $tally = [];
        foreach (array_filter($kinds, static fn (string $k): bool => ($had[$k] ?? 0) > 0) as $kind) {
            $tally[$kind] = [$now->counts()[$kind] ?? 0, $had[$kind]];
        }

        return $tally;
    }

    /**
     * An older backup holds less than there was, so that what is there at all tells that it has come, once the device does
     * no work any more. What it has of its own from the start (settings) tells nothing.
     *
     * @param  array<string, array{int, int}>  $tally
     */
    private static function isThere(array $tally): bool
    {
        return array_filter(array_diff_key($tally, ['settings' => 1]), static fn (array $t): bool => $t[0] > 0) !== [];
    }
}
