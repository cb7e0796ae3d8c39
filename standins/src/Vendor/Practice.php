<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Standins\Http\Problem;

/**
 * The practice hands of a vendor: windows that close or are announced to, builds that are held back, builds that are
 * refused although the catalogue says otherwise, a catalogue with an older date, a service that fails, is slow or
 * silent, downloads that are cut, slowed or altered.
 */
final class Practice
{
    private const SILENCE_SECONDS = 45;

    private const NOTHING = [
        'windows' => [],
        'heldBack' => [],
        'refused' => [],
        'issuedAgoSeconds' => 0,
        'freshSeconds' => null,
        'broken' => false,
        'silent' => false,
        'slowSeconds' => 0,
        'cutAfterBytes' => null,
        'slowFactor' => 1,
        'alterNext' => false,
    ];

    /**
     * @var array{windows: array<string, array{until: ?string, announced: bool}>, heldBack: list<string>,
     *   refused: list<string>, issuedAgoSeconds: int, freshSeconds: ?int, broken: bool, silent: bool, slowSeconds: int,
     *   cutAfterBytes: ?int, slowFactor: int, alterNext: bool}
     */
    private array $hands;

    public function __construct(private readonly string $file)
    {
        $kept = json_decode((string) @file_get_contents($file), true);
        $this->hands = (is_array($kept) ? $kept : []) + self::NOTHING;
    }

    /** @param  array<string, mixed>  $change  any of the fields; windows are added to those set before */
    public function set(array $change): void
    {
        array_diff_key($change, self::NOTHING) === []
            || throw new Problem(400, 'bad-field', 'Known fields: '.implode(', ', array_keys(self::NOTHING)).'.');
        $windows = ($change['windows'] ?? []) + $this->hands['windows'];
        $this->hands = ['windows' => $windows] + $change + $this->hands;
        file_put_contents("{$this->file}.new", json_encode($this->hands, JSON_THROW_ON_ERROR));
        rename("{$this->file}.new", $this->file);
    }

    /** @return array<string, mixed> */
    public function shown(): array
    {
        return $this->hands;
    }

    /** Keeps who asks waiting: a while, or for longer than anybody waits. */
    public function holdUp(): void
    {
        $seconds = $this->hands['silent'] ? self::SILENCE_SECONDS : $this->hands['slowSeconds'];
        $seconds > 0 ? sleep($seconds) : null;
    }

    /**
     * @return array{cutAfterBytes: ?int, slowFactor: int, alter: bool} how the next download goes wrong; it is
     *   altered once only
     */
    public function download(): array
    {
        $alter = $this->hands['alterNext'];
        $alter ? $this->set(['alterNext' => false]) : null;

        return [
            'cutAfterBytes' => $this->hands['cutAfterBytes'],
            'slowFactor' => max(1, $this->hands['slowFactor']),
            'alter' => $alter,
        ];
    }

    public function clear(): void
    {
        @unlink($this->file);
    }

    public function isBroken(): bool
    {
        return $this->hands['broken'];
    }

    public function isRefused(string $build): bool
    {
        return in_array($build, $this->hands['refused'], true);
    }

    public function issuedAt(\DateTimeImmutable $now): \DateTimeImmutable
    {
        return $now->modify("-{$this->hands['issuedAgoSeconds']} seconds");
    }

    public function freshSeconds(int $usual): int
    {
        return $this->hands['freshSeconds'] ?? $usual;
    }

    /**
     * @param  list<array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}>  $builds
     * @return list<array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}>
     */
    public function appliedTo(array $builds): array
    {
        $shown = array_values(
            array_filter(
                $builds,
                fn (array $b): bool => ! in_array($b['build']['build'], $this->hands['heldBack'], true),
            ),
        );
        foreach ($shown as &$entry) {
            $end = $this->hands['windows'][$entry['build']['build']] ?? null;
            foreach ($end === null ? [] : array_keys($entry['packages']) as $i) {
                $last = count($entry['packages'][$i]['signing']) - 1;
                $last < 0 || $entry['packages'][$i]['signing'][$last] = $end + $entry['packages'][$i]['signing'][$last];
            }
        }

        return $shown;
    }
}
