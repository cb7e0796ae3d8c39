<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;

/** Two backups of one evening are told apart by the names that people give them. */
final class TwoOfOneEveningTest extends JourneyTestCase
{
    public function test_each_bears_its_name_also_when_it_is_sealed(): void
    {
        $first = $this->sealedBag();
        $second = $this->sealedBag();
        $written = BagReader::open(self::system()->folder."/bags/{$first->id}")->description()->label;

        $this->putJson("/api/v1/shelf/{$first->id}/name", ['name' => 'Evening, before the album was sorted'])
            ->assertOk()
            ->assertJsonPath('label', 'Evening, before the album was sorted');
        $this->putJson("/api/v1/shelf/{$second->id}/name", ['name' => 'Evening, after it'])->assertOk();

        $labels = array_column($this->getJson('/api/v1/shelf')->json('bags'), 'label', 'id');
        self::assertSame(
            ['Evening, before the album was sorted', 'Evening, after it'],
            [$labels[$first->id], $labels[$second->id]],
        );
        self::assertSame(BagState::Sealed, $first->refresh()->state);
        self::assertSame(
            $written,
            BagReader::open(self::system()->folder."/bags/{$first->id}")->description()->label,
            'what it was written with stays in its own folder',
        );
        $line = $this->getJson('/api/v1/journal?act=bag-named')->json('acts.0');
        self::assertSame('Named a backup', $line['words'] ?? null);
    }

    public function test_a_lowered_copy_never_bears_the_name_of_its_original(): void
    {
        $bag = $this->sealedBag();
        $copy = $bag->replicate()->fill([
            'id' => 'copy',
            'lowered_from' => $bag->id,
            'label' => 'The copy',
            'state' => BagState::Complete,
        ]);
        $copy->save();

        $this->putJson("/api/v1/shelf/{$copy->id}/name", ['name' => mb_strtoupper($bag->label)])
            ->assertConflict()
            ->assertJsonPath(
                'detail',
                'The backup that this copy was lowered from is called so. Give the copy another name.',
            );
        $this->putJson("/api/v1/shelf/{$bag->id}/name", ['name' => 'The copy'])->assertConflict();
        $this->putJson("/api/v1/shelf/{$bag->id}/name", ['name' => ' '])->assertUnprocessable();
        $this->putJson("/api/v1/shelf/{$bag->id}/name", ['name' => "a\tb"])->assertUnprocessable();
        self::assertSame('The copy', $copy->refresh()->label);
    }

    private function sealedBag(): Bag
    {
        return $this->backedUp($this->backUpOnly());
    }
}
