<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Device;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\PlannedBackup;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** How each kind travels: common practice, no source; what only an encrypted backup carries is from memory. */
final class KindTest extends TestCase
{
    #[DataProvider('kinds')]
    public function test_how_a_kind_travels(
        string $code,
        bool $plain,
        bool $encrypted,
        bool $syncs,
        bool $exported,
        ?Outcome $alone = null,
    ): void {
        $kind = Kind::from($code);

        self::assertSame([$plain, $encrypted, $syncs, $exported, $alone, $encrypted && ! $plain], [
            $kind->inPlainBag(), $kind->inEncryptedBag(), $kind->canSync(), $kind->hasSideExport(),
            $kind->withoutCarrier(), $kind->onlyInEncryptedBag(),
        ]);
        self::assertSame([$plain, $encrypted, false], [
            PlannedBackup::Plain->carries($kind), PlannedBackup::Encrypted->carries($kind),
            PlannedBackup::None->carries($kind),
        ]);
    }

    /** @return iterable<array{string, bool, bool, bool, bool, 5?: Outcome}> plain, encrypted, syncs, side export */
    public static function kinds(): iterable
    {
        yield ['photos', true, true, true, true];
        yield ['messages', true, true, true, true];
        yield ['contacts', true, true, true, true];
        yield ['calendars', true, true, true, true];
        yield ['notes', true, true, true, true];
        yield ['recordings', true, true, false, true];
        yield ['call-log', true, true, false, true];
        yield ['app-data', true, true, true, false];
        yield ['home-layout', true, true, false, false];
        yield ['settings', true, true, false, false];
        yield ['wallpaper', true, true, false, false];
        yield ['saved-passwords', false, true, true, false];
        yield ['health', false, true, true, false];
        yield ['payment-cards', false, false, false, false, Outcome::ReEnter];
        yield ['sign-ins', false, false, false, false, Outcome::SignInAgain];
        yield ['esim', false, false, false, false, Outcome::Kept];
        yield ['accessory-pairing', false, true, false, false];
    }

    public function test_the_table_is_whole(): void
    {
        $table = array_column(iterator_to_array(self::kinds(), false), 0);

        self::assertSame($table, array_column(Kind::cases(), 'value'));
    }
}
