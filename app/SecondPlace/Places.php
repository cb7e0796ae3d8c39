<?php

declare(strict_types=1);

namespace App\SecondPlace;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\SecondCopy;
use App\Models\SecondCopyState;
use App\Models\User;
use App\Ports\BagStore;
use App\Ports\OtherPlaces;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Access\AddressList;
use JadeStep\Core\Exchange\Fields;
use League\Flysystem\FilesystemException;

/** Sets the second place up: tries it first, marks it as this instance's, and says what it is. */
final readonly class Places
{
    public function __construct(private OtherPlaces $places, private BagStore $bags, private Journal $journal)
    {
    }

    /** @throws Refusal */
    public function set(Fields $wanted, User $by): void
    {
        $held = Place::read();
        $place = Place::wanted($wanted, $held);
        $this->assertMayBeAsked($place);
        $this->mark($place);
        DB::transaction(function () use ($place, $held, $by): void {
            $place->keep();
            if ($held !== null && $held->mark !== $place->mark) {
                // what is at the earlier place stays there and counts no more
                SecondCopy::query()->where('state', '!=', SecondCopyState::Leaving)->delete();
            }
            $this->journal->noteDeed(Deed::SetSecondPlace, $by, new Evidence([
                'place' => $place->words(),
                'demanded before the line' => $place->demanded,
            ]));
        });
    }

    /** What is there stays there; nothing more is carried. */
    public function forget(User $by): void
    {
        DB::transaction(function () use ($by): void {
            Place::forget();
            SecondCopy::query()->delete();
            $this->journal->noteDeed(Deed::SetSecondPlace, $by, new Evidence(['place' => null]));
        });
    }

    /**
     * @param  bool  $toLead  whether it is said where it is, too
     * @return array<string, mixed> as a page shows it; of the secret only whether one is held
     */
    public function told(bool $toLead): array
    {
        $place = Place::read();
        $many = static fn (SecondCopyState ...$states): int => SecondCopy::query()->whereIn('state', $states)->count();
        $last = SecondCopy::query()->whereNotNull('problem')->latest('updated_at')->first();

        return [
            'place' => $place === null ? null : [
                'folder' => $toLead ? $place->folder : null,
                'host' => $toLead ? $place->host : null,
                'port' => $place->port,
                'user' => $toLead ? $place->user : null,
                'hostKey' => $toLead ? $place->hostKey : null,
                'secretHeld' => $place->holdsSecret(),
                'demanded' => $place->demanded,
                'sameDisk' => $this->isOnTheSameDisk($place),
            ],
            'there' => $many(SecondCopyState::There),
            'onTheWay' => $many(SecondCopyState::Waiting, SecondCopyState::Carrying),
            'problem' => $last?->problem?->detail,
        ];
    }

    /** A lead names a server that whoever runs this one has allowed, as with links and vendors. */
    private function assertMayBeAsked(Place $place): void
    {
        $list = AddressList::ofText(config()->string('jade.second_place_addresses'));
        $place->host === null
            || $list->names($place->host, $place->port)
            || throw Refusal::ofField(
                'host',
                "{$place->host}:{$place->port} is not among the addresses that this server may ask. Whoever runs the "
                    .'server names it in its settings (SECOND_PLACE_ADDRESSES), then it can be used here.',
            );
    }

    private function mark(Place $place): void
    {
        $address = $place->address();
        if ($place->host !== null) {
            self::assertHostIs($place, $this->places->hostKeyOf($address));
        }
        $place->host !== null || is_dir($place->folder)
            || throw Refusal::ofField('folder', "{$place->folder} is no folder here. Make it, or mount the disk.");
        try {
            $there = $this->places->open($address);
            $there->write(Place::MARK, "{$place->mark}\n");
            trim($there->read(Place::MARK)) === $place->mark
                || throw Refusal::ofField('folder', 'What is written there comes back as something else.');
        } catch (FilesystemException) {
            throw Refusal::ofField(
                'folder',
                "Nothing can be written to {$place->words()}. See that the folder is there and that this program's "
                    .'account may write to it'.($place->host === null ? '.' : ', and that user and secret are right.'),
            );
        }
    }

    private static function assertHostIs(Place $place, ?string $seen): void
    {
        $seen !== null || throw Refusal::ofField('host', "{$place->host}:{$place->port} does not answer by SSH.");
        $wanted = $place->hostKey ?? '';
        $wanted !== '' || throw Refusal::ofField(
            'hostKey',
            "The host shows the key {$seen}. Compare it with what whoever runs that host says of it, and give it here.",
        );
        hash_equals($seen, $wanted) || throw Refusal::ofField(
            'hostKey',
            "The host shows another key, {$seen}. Where that is not what whoever runs it says, somebody stands "
                .'between: do not use it.',
        );
    }

    private function isOnTheSameDisk(Place $place): bool
    {
        $here = @stat(dirname($this->bags->folder('x')));
        $there = $place->host === null ? @stat($place->folder) : false;

        return $here !== false && $there !== false && $here['dev'] === $there['dev'];
    }
}
