<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/**
 * Listens to the keys of a device: its own sequence puts it in recovery mode, holding the power key long brings it
 * back.
 */
final class Keys
{
    /**
     * So long may pass between two steps of a sequence, in seconds of the wall's clock: hands do not get faster with
     * the rig.
     */
    private const PATIENCE = 10.0;

    private const TOO_LONG = 8.0;

    private const LONG = 8.0;

    /**
     * @param  array<string, mixed>  $state
     * @param  array<string, mixed>  $body  action press or hold, target, and for hold the seconds
     * @return string|null the work that the keys begin, if any
     */
    public static function press(array &$state, array $body, float $now): ?string
    {
        $action = $body['action'] ?? null;
        $target = $body['target'] ?? null;
        $seconds = is_numeric($body['seconds'] ?? null) ? (float) $body['seconds'] : 0.0;
        (in_array($action, ['press', 'hold'], true) && is_string($target))
            || throw new Problem(400, 'bad-field', 'A key is pressed or held, and has a name.');
        if ($state['mode'] === 'recovery') {
            return self::leave($state, $action, $target, $seconds);
        }
        $state['mode'] === 'normal'
            || throw new Problem(409, 'restarting', 'The device is restarting; its keys do nothing now.');
        $at = self::heard($state, $now);
        $wanted = $state['keys'][$at];
        $state['keysAt'] = $now;
        $wrong = self::wrong($wanted, $action, $target, $seconds);
        if ($wrong !== null) {
            $state['keysDone'] = 0;
            $state['heard'] = $wrong.' Begin the sequence again.';

            return null;
        }
        $state['keysDone'] = $at + 1;
        if ($state['keysDone'] < count($state['keys'])) {
            $state['heard'] = "Step {$state['keysDone']} of ".count($state['keys']).' was taken.';

            return null;
        }
        $state['keysDone'] = 0;
        $plugged = $state['port'] !== null;
        $state['heard'] = $plugged
            ? 'The whole sequence was taken.'
            : 'The device restarts as usual: without a cable the sequence leads nowhere.';

        return $plugged ? 'enter-recovery' : 'restart';
    }

    /**
     * How many keys of the sequence the device has taken by now.
     *
     * @param  array<string, mixed>  $state
     */
    public static function heard(array $state, float $now): int
    {
        return $now - $state['keysAt'] > self::PATIENCE ? 0 : $state['keysDone'];
    }

    /** @param  array<string, mixed>  $wanted */
    private static function wrong(array $wanted, string $action, string $target, float $seconds): ?string
    {
        return match (true) {
            $target !== $wanted['target'] => "Not the key that comes next, which is {$wanted['target']}.",
            $action !== $wanted['action'] => $wanted['action'] === 'hold'
                ? "{$target} is to be held."
                : "{$target} is to be pressed shortly.",
            $action === 'hold' && $seconds < $wanted['seconds'] - 1 => "{$target} was let go too early.",
            $action === 'hold' && $seconds > $wanted['seconds'] + self::TOO_LONG => "{$target} was held too long.",
            default => null,
        };
    }

    /** @param  array<string, mixed>  $state */
    private static function leave(array &$state, string $action, string $target, float $seconds): ?string
    {
        $leaves = $action === 'hold' && $target === 'power' && $seconds >= self::LONG;
        $state['heard'] = $leaves
            ? 'The device leaves recovery mode.'
            : 'In recovery mode only holding power for '.self::LONG.' seconds does something: it leaves.';

        return $leaves ? 'leave-recovery' : null;
    }
}
