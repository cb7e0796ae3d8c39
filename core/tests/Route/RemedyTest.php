<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Remedy;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What would end a loss: common practice, no source. */
final class RemedyTest extends TestCase
{
    /** @param  list<string>  $wanted */
    #[DataProvider('losses')]
    public function test_each_kind_has_what_would_end_its_loss(Kind $kind, PlannedBackup $backup, array $wanted): void
    {
        self::assertSame($wanted, array_map(
            static fn (Remedy $r): string => $r->label($kind),
            Remedy::of($kind, $backup, [Kind::Notes]),
        ));
    }

    /** @return array<string, array{Kind, PlannedBackup, list<string>}> */
    public static function losses(): array
    {
        return [
            'messages' => [Kind::Messages, PlannedBackup::Plain, [
                'write messages out', 'sync messages on the device',
            ]],
            'what is written out already' => [Kind::Notes, PlannedBackup::Plain, ['sync notes on the device']],
            'health' => [Kind::Health, PlannedBackup::Plain, [
                'take the backup encrypted', 'sync health on the device',
            ]],
            'health, in an encrypted backup' => [Kind::Health, PlannedBackup::Encrypted, ['sync health on the device']],
            'pairings' => [Kind::AccessoryPairing, PlannedBackup::None, ['take the backup encrypted']],
            'wallpaper' => [Kind::Wallpaper, PlannedBackup::Plain, []],
        ];
    }
}
