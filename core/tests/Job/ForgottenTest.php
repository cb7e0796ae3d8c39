<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Exchange\ProofDocument;
use JadeStep\Core\Job\Forgotten;
use JadeStep\Core\Proof\AgainstPromise;
use JadeStep\Core\Proof\Happened;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Proof\ProvenKind;
use JadeStep\Core\Proof\RewrittenItem;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\TestCase;

/** Of what was proven every count is left when an owner is forgotten, and no name. */
final class ForgottenTest extends TestCase
{
    public function test_counts_stay_as_they_were_and_names_go(): void
    {
        $asOf = Rfc3339::parse('2026-11-10T00:00:00Z');
        $item = static fn (string $path, string $at): Item => new Item(
            'notes', $path, 5, str_repeat('a', 64), Rfc3339::parse($at),
        );
        $kind = new ProvenKind(
            new KindFate(Kind::Notes, Outcome::ReturnedAsOf, Source::Base, $asOf, null),
            9, 6, Happened::Some, AgainstPromise::Worse, false, true, 6,
            [new RewrittenItem('lists/rope.md', 'layout', 'laid out anew')],
            [$item('secret/old.md', '2026-11-01T00:00:00Z'), $item('secret/new.md', '2026-11-20T00:00:00Z')],
            ['extra/place.md'], 2, 1, 1,
        );
        $proof = new JobProof(
            Rfc3339::parse(Sample::NOW), Version::parse('9.3.0'), '9C31', Version::parse('8.7.0'), '8G210', [$kind],
        );
        $left = Forgotten::proof($proof);

        self::assertSame([$proof->missing(), 1], [$left->missing(), count($left->unnamed())]);
        [$after] = $left->kinds;
        self::assertSame(
            [$kind->missingItems(), $kind->unnamedItems(), 3, 1],
            [$after->missingItems(), $after->unnamedItems(), $after->moreExtra, count($after->changed)],
        );
        $text = json_encode(ProofDocument::write($left), JSON_THROW_ON_ERROR);
        foreach (['secret', 'rope', 'extra/place'] as $name) {
            self::assertStringNotContainsString($name, $text);
        }
    }

    public function test_of_a_device_the_model_is_left_and_neither_apps_nor_accessories(): void
    {
        $device = Sample::read(Sample::situation([
            'accessories' => [['id' => 'cuff-of-ines', 'type' => 'cuff', 'osVersion' => '4.0.0']],
            'apps' => [],
        ]))->device;
        $left = Forgotten::device($device);
        self::assertSame([], $left->accessories);
        self::assertSame([$device->modelName, $device->hardwareId], [$left->modelName, $left->hardwareId]);
        self::assertEquals($device->kinds, $left->kinds);
    }
}
