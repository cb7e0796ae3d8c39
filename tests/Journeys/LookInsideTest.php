<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\User;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Process\Process;

/** Encrypted bags are looked into with their passphrase, for the length of that look. */
final class LookInsideTest extends JourneyTestCase
{
    private const PASSPHRASE = 'gull pier north sound otter kelp';

    public function test_it_is_listed_searched_read_compared_and_written_out(): void
    {
        $bag = $this->encryptedBag();
        $counts = $this->look($bag, self::PASSPHRASE)->assertOk()->json('counts');
        self::assertSame([self::PHOTOS, 1], [$counts['photos'], $counts['health'] ?? 0]);
        self::assertSame(1, self::looks($bag));

        $photos = $this->look($bag, self::PASSPHRASE, ['kind' => 'photos'])->assertOk()->json('items');
        self::assertCount(self::PHOTOS, $photos);
        self::assertSame(1, self::looks($bag), 'one look is one line');
        $found = $this->look($bag, self::PASSPHRASE, ['kind' => '', 'find' => basename($photos[1]['path'])]);
        self::assertSame([$photos[1]['path']], array_column($found->json('items'), 'path'));
        $none = $this->look($bag, self::PASSPHRASE, ['kind' => '', 'find' => 'no-such-name']);
        self::assertSame([], $none->json('items'));

        $content = $this->postJson("/api/v1/shelf/{$bag->id}/look/photos/{$photos[0]['path']}", [
            'passphrase' => self::PASSPHRASE,
        ])->assertOk();
        self::assertSame('image/jpeg', $content->headers->get('Content-Type'));
        self::assertStringContainsString('no-store', (string) $content->headers->get('Cache-Control'));
        self::assertSame($photos[0]['sha256'], hash('sha256', $content->streamedContent()));

        $plain = $this->backedUp($this->backUpOnly());
        $compared = $this->postJson("/api/v1/shelf/{$bag->id}/compare/{$plain->id}", [
            'passphrase' => self::PASSPHRASE,
        ])->assertOk()->json('kinds');
        $byKind = array_column($compared, null, 'kind');
        self::assertSame([self::PHOTOS, []], [$byKind['photos']['same'], $byKind['photos']['onlyHere']]);
        self::assertNotSame([], $byKind['health']['onlyHere'], 'what only an encrypted backup carries');
        $this->getJson("/api/v1/shelf/{$plain->id}/compare/{$bag->id}")->assertConflict();

        $zip = $this->postJson("/api/v1/shelf/{$bag->id}/export", [
            'kinds' => ['contacts'],
            'passphrase' => self::PASSPHRASE,
        ])->assertOk()->streamedContent();
        self::assertStringStartsWith('PK', $zip);
        $this->nothingLiesInTheClear($bag);
    }

    public function test_a_wrong_passphrase_is_answered_in_words_wherever_it_is_given(): void
    {
        $bag = $this->encryptedBag();
        $at = "/api/v1/shelf/{$bag->id}";
        $wrong = ['passphrase' => 'Gull pier north sound otter kelp'];
        $asked = [
            $this->postJson("{$at}/look", $wrong),
            $this->postJson("{$at}/look/photos/any.jpg", $wrong),
            $this->postJson("{$at}/compare/{$bag->id}", $wrong + ['otherPassphrase' => self::PASSPHRASE]),
            $this->postJson("{$at}/export", $wrong + ['kinds' => ['contacts']]),
            $this->postJson("{$at}/passphrase", $wrong),
        ];
        foreach ($asked as $answer) {
            self::assertStringContainsString('does not open this bag', $answer->assertUnprocessable()->json('detail'));
        }
        self::assertStringContainsString('Give it.', $this->look($bag, '')->assertConflict()->json('detail'));
        $this->signedIn(User::factory()->create(['role' => 'viewer']));
        $this->look($bag, self::PASSPHRASE)->assertForbidden();

        $this->hand('installed-elsewhere');
        $job = $this->signedIn()
            ->postJson('/api/v1/jobs', ['serial' => self::SERIAL, 'intent' => 'return-only'])
            ->json('id');
        $job = BenchJob::query()->findOrFail($job);
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-wanted');
        $this->choose($job, $bag->id)->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'passphrase-wanted');
        $this->postJson("/api/v1/jobs/{$job->id}/passphrase", $wrong)->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'passphrase-wanted');
        self::assertStringContainsString(
            'The passphrase that was given does not open',
            $this->getJson("/api/v1/jobs/{$job->id}")->json('now.why'),
        );
        $this->postJson("/api/v1/jobs/{$job->id}/passphrase", ['passphrase' => self::PASSPHRASE])->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
    }

    public function test_a_bag_opens_with_whatever_it_was_closed_with_however_short(): void
    {
        $bag = $this->encryptedBag();
        $this->closeAnew($bag, ' k');

        $this->look($bag, 'k')->assertUnprocessable();
        $this->look($bag, ' k')->assertOk()->assertJsonPath('counts.photos', self::PHOTOS);
        $bag->update(['passphrase_proven_at' => null]);
        $this->postJson("/api/v1/shelf/{$bag->id}/passphrase", ['passphrase' => ' k'])->assertOk();
        self::assertNotNull($bag->refresh()->passphrase_proven_at);
    }

    private function encryptedBag(): Bag
    {
        $job = $this->backUpOnly(['encryption' => 'encrypted']);
        $this->workUntilProblem($job, StepCode::BackUp, 'passphrase-wanted');
        $this->postJson("/api/v1/jobs/{$job->id}/passphrase", [
            'passphrase' => self::PASSPHRASE,
            'again' => self::PASSPHRASE,
        ])->assertOk();

        return $this->backedUp($job);
    }

    /**
     * @param  array<string, string>  $about  kind, find
     * @return TestResponse<Response>
     */
    private function look(Bag $bag, string $passphrase, array $about = []): TestResponse
    {
        return $this->postJson("/api/v1/shelf/{$bag->id}/look", ['passphrase' => $passphrase] + $about);
    }

    /** @return int how many looks into this bag the Journal knows of */
    private static function looks(Bag $bag): int
    {
        return JournalLine::query()
            ->where('event', 'bag-looked-into')
            ->get()
            ->filter(static fn (JournalLine $l): bool => $l->properties?->get('bag') === $bag->id)
            ->count();
    }

    private function nothingLiesInTheClear(Bag $bag): void
    {
        $folder = self::system()->folder;
        $places = ["{$folder}/bags/{$bag->id}", "{$folder}/storage", "{$folder}/gnupg"];
        $grep = new Process(['grep', '-rlF', 'BEGIN:VCARD', ...$places]);
        $grep->run();
        self::assertSame('', $grep->getOutput());
        $grep = new Process(['grep', '-rlF', self::PASSPHRASE, "{$folder}/storage", "{$folder}/gnupg"]);
        $grep->run();
        self::assertSame('', $grep->getOutput());
    }

    /** Somebody else has closed the bag, with GnuPG and a passphrase of their own. */
    private function closeAnew(Bag $bag, string $passphrase): void
    {
        $script =
            'chmod -R u+w "$1" && cd "$1/data" && h=$(mktemp -d) && '
                .' g="gpg --homedir $h --batch --quiet --pinentry-mode loopback" && '
                .'for f in *.gpg; do $g --passphrase "$2" -d "$f" | $g --passphrase "$3" --symmetric -o "$f.new" && '
                .'mv "$f.new" "$f" || exit 1; done; rm -rf "$h"';
        (new Process([
            'bash',
            '-c',
            $script,
            'bash',
            self::system()->folder."/bags/{$bag->id}",
            self::PASSPHRASE,
            $passphrase,
        ]))->mustRun();
    }
}
