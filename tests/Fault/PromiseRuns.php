<?php

declare(strict_types=1);

namespace Tests\Fault;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Proof\AgainstPromise;
use JadeStep\Core\Proof\KindAccount;
use JadeStep\Core\Route\Candidate;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\ReturnChoice;
use JadeStep\Core\Route\ReturnChoices;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Route\Treatment;
use JadeStep\Core\Tests\Support\Draws;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use Standins\Http\Problem;
use Standins\Rig\Handset;
use Standins\Rig\Storage;

/**
 * Random devices, backups and faults, the same for the same seed: the core's ledger promises, and the simulated device,
 * which shares nothing with it, delivers. What the bench does in between is done here by hand.
 */
final class PromiseRuns
{
    use Draws;

    /** How the backup of the owner's cloud is called in a situation. */
    private const CLOUD = 'in-the-cloud';

    private const KINDS = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'recordings',
        'call-log',
        'app-data',
        'home-layout',
        'settings',
        'wallpaper',
        'saved-passwords',
        'health',
        'accessory-pairing',
        'payment-cards',
        'sign-ins',
        'esim',
    ];

    private const PLAIN = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'recordings',
        'call-log',
        'app-data',
        'home-layout',
        'settings',
        'wallpaper',
    ];

    private const CAN_SYNC = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'app-data',
        'saved-passwords',
        'health',
    ];

    private const ONE_BY_ONE = ['photos', 'messages', 'contacts', 'calendars', 'notes', 'recordings', 'call-log'];

    private const DAY = 86_400;

    private Handset $device;

    private string $folder;

    private int $today;

    /**
     * @var array<string, array<string, mixed>> backups by id: about (as in a situation), items by key with their
     *   bytes
     */
    private array $bags = [];

    public function __construct(private readonly string $root)
    {
    }

    /**
     * @return array{choice: string, faults: list<string>, kinds: int, outcomes: array<string, int>,
     *   disagreements: list<string>}
     */
    public function one(int $seed): array
    {
        $this->seed($seed);
        $this->folder = "{$this->root}/{$seed}";
        $this->today = 1_795_600_000;
        $this->bags = [];
        $this->makeDevice();
        $before = $this->listing();
        $reading = $this->device->reading();
        $end = $this->endBuild();
        $exports = $this->sideExports($reading);
        $situation = $this->situation($reading, $exports);
        $candidates = $this->candidates();

        $this->install($end);
        if ($this->chance(15)) {
            [$choice, $faults] = [self::best(ReturnChoices::of($situation, $end, [])), []];
            $exports = $this->chosenKinds();
            $promise = ReturnChoices::asNew(
                $situation,
                $end,
                array_map(Kind::from(...), array_keys($exports)),
                Rfc3339::parse($this->bags['own']['about']['takenAt']),
            );
        } else {
            [$choice, $faults] = $this->putBack($situation, $end, $candidates);
            $promise = $this->promise($situation, $end, $choice);
        }
        $this->setUp($faults);
        $this->bringIn($promise, $exports, $choice);
        $losses = Losses::of($promise, $situation->device, Sample::almanac(Sample::catalogue([])), $end->version);
        $account = $this->account($promise, $before, $reading, $losses);
        if (in_array('item-dropped', $faults, true)) {
            $account = $this->mend($account, $promise, $before, $reading, $losses);
        }
        $sure = $choice->base?->isUnproven() !== true && $choice->base?->isNewerCloud !== true;
        $run = [
            'choice' => $promise == $choice->fates ? self::name($choice) : 'kept as new',
            'faults' => $faults,
            'kinds' => count($account->kinds),
            'outcomes' => array_count_values(
                array_map(static fn (KindFate $f): string => $f->outcome->value, $promise),
            ),
            'disagreements' => self::disagreements($account, $sure),
        ];
        Storage::remove($this->folder);

        return $run;
    }

    /**
     * @param  bool  $sure  false where the base may or may not open, so that it may bring more than was promised
     *   without it
     * @return list<string>
     */
    private static function disagreements(Account $account, bool $sure): array
    {
        $words = [];
        foreach ($account->kinds as $k) {
            $wrong =
                $k->verdict !== AgainstPromise::AsPromised
                    ? $k->verdict->value
                    : ($sure && self::isStale($k) && $k->proof?->missing === []
                        ? 'nothing was out of date'
                        : null);
            $wrong === null
            ?: ($words[] =
                "{$k->promise->kind->value}: promised {$k->promise->outcome->value} from "
                .($k->promise->from->value ?? 'nowhere')
                .", {$k->there} of {$k->before} there: {$wrong}");
        }

        return $words;
    }

    /**
     * What comes back as of a time from a backup lacks what is newer. Sync may have brought more than it told; and
     * what is newest may be what the device writes by itself.
     */
    private static function isStale(KindAccount $k): bool
    {
        return $k->promise->outcome === Outcome::ReturnedAsOf
            && $k->promise->from !== Source::Sync
            && $k->proof?->changed === [];
    }

    private function makeDevice(): void
    {
        $content = new Storage("{$this->folder}/content");
        foreach (self::KINDS as $kind) {
            foreach (range(1, $this->int(1, 5)) as $n) {
                $this->chance(85)
                    ? $content->write(
                        $kind,
                        $kind === 'home-layout' ? 'layout.json' : "set-{$this->int(1, 2)}/{$kind}-{$n}.bin",
                        $kind === 'home-layout'
                            ? '{"dock":["phone","tide-table"]}'
                            : bin2hex($this->random->getBytes(6)),
                        $this->today - $this->int(1, 90) * self::DAY,
                    )
                    : null;
            }
        }
        $content->write('settings', 'user/sounds.json', '{"level":3}', $this->today - $this->int(1, 90) * self::DAY);
        $content->write('settings', 'system/about.json', '{"version":"of old"}', $this->today - self::DAY);
        $synced = $this->some(self::CAN_SYNC, 0, 4);
        $state = [
            'serial' => 'SKL-0042',
            'imei' => null,
            'hardwareId' => 'FN7-2',
            'modelName' => 'Fenn 7',
            'osLine' => 'tarn',
            'vendor' => 'brightmere',
            'version' => $this->pick(['9.3.0', '10.0.0']),
            'build' => '9D55',
            'storeSchemas' => ['messages' => $this->int(13, 15), 'photos' => $this->int(8, 10)],
            'rollbackCounter' => 1,
            'radioMinimum' => 1,
            'capacityBytes' => 64_000_000_000,
            'systemBytes' => 6_000_000_000,
            'batteryPercent' => 80,
            'charging' => true,
            'ownerLock' => 'off',
            'lockDelay' => 'off',
            'lockDelayEndsAt' => null,
            'betaEnrolled' => false,
            'accessories' => [],
            'synced' => $synced,
            'apps' => [
                ['id' => 'tide-table', 'name' => 'Tide Table', 'minimumOs' => $this->pick(['7.0.0', '8.0.0', '9.0.0'])],
            ],
            'cloudBackup' => null,
            'cloudReturn' => null,
            'air' => false,
            'port' => '1',
            'syncLate' => false,
            'mode' => 'normal',
            'paired' => true,
            'activated' => true,
            'setUp' => true,
            'nonce' => null,
            'operations' => [],
            'returns' => [],
            'bootable' => true,
            'wiped' => false,
            'hidden' => false,
            'ownerEntered' => false,
            'boxLabel' => null,
            'keysDone' => 0,
            'keysAt' => 0.0,
            'heard' => null,
            'lastPort' => null,
            'backAt' => null,
            'faults' => [],
            'fired' => [],
            'writes' => [],
        ];
        $this->device = new Handset($state, $this->folder, 0.0, $this->today, 1.0);
        $this->keepBackups();
    }

    /** The backup that the job takes, one or two older ones, and at times one in the owner's cloud. */
    private function keepBackups(): void
    {
        $encrypted = $this->chance(50);
        $this->keep(
            'own',
            'bag',
            $encrypted,
            $this->today,
            $this->device->state['version'],
            $this->device->state['storeSchemas'],
        );
        foreach (range(1, $this->int(1, 2)) as $n) {
            $this->keep(
                "old-{$n}",
                'bag',
                $this->chance(40),
                $this->today - $this->int(5, 80) * self::DAY,
                $this->pick(['8.1.0', '9.0.0', '9.3.0', '10.0.0']),
                ['messages' => $this->int(13, 15), 'photos' => $this->int(8, 10)],
            );
        }
        if ($this->chance(40)) {
            $madeOn = $this->pick(['8.1.0', '9.0.0', '10.0.0']);
            $this->keep(self::CLOUD, 'cloud', false, $this->today - $this->int(5, 60) * self::DAY, $madeOn, []);
            $this->device->state['cloudBackup'] = [
                'takenAt' => Handset::time($this->today),
                'madeOn' => $madeOn,
                'kinds' => $this->bags[self::CLOUD]['about']['kinds'],
            ];
            foreach ($this->bags[self::CLOUD]['items'] as $item) {
                (new Storage("{$this->folder}/cloud-backup"))->write(
                    $item['kind'],
                    $item['path'],
                    $item['text'],
                    $item['at'],
                );
            }
        }
    }

    /** @param  array<string, int>  $schemas */
    private function keep(string $id, string $where, bool $encrypted, int $at, string $madeOn, array $schemas): void
    {
        $carried = $encrypted ? [...self::PLAIN, 'saved-passwords', 'health', 'accessory-pairing'] : self::PLAIN;
        $kinds = $id === 'own' ? $carried : array_values($this->some($carried, 4, count($carried)));
        $items = [];
        foreach ($kinds as $kind) {
            foreach ($this->device->content()->files($kind) as $path => $file) {
                $then = $file->getMTime() <= $at;
                // what was changed since may have been there before, as it was then
                $then || $this->chance(40)
                    ? ($items["{$kind}/{$path}"] = [
                        'kind' => $kind,
                        'path' => (string) $path,
                        'text' => ($then ? '' : 'before ').file_get_contents($file->getPathname()),
                        'at' => $then ? $file->getMTime() : $at - self::DAY,
                    ])
                    : null;
            }
        }
        $this->bags[$id] = [
            'items' => $items,
            'schemas' => $schemas,
            'about' => [
                'id' => $id,
                'where' => $where,
                'takenAt' => Handset::time($at),
                'madeOn' => $madeOn,
                'declaredVersion' => $madeOn,
                'encrypted' => $encrypted,
                'passphraseProven' => $id === 'own' || $this->chance(80),
                'verified' => $id === 'own' || $this->chance(80),
                'kinds' => $kinds,
                'storeSchemas' => (object) array_intersect_key($schemas, array_flip($kinds)),
            ],
        ];
    }

    private function endBuild(): Build
    {
        $version = $this->pick(['7.4.0', '8.1.0', '8.7.0', '9.0.0']);
        $catalogue = Sample::catalogue([
            Sample::build(
                $version,
                'END',
                [['2026-05-01T00:00:00Z', null]],
                ['storeSchemas' => ['messages' => $this->int(13, 15), 'photos' => $this->int(8, 10)]],
            ),
        ]);

        return Sample::almanac($catalogue)->builds('tarn')[0];
    }

    /**
     * Kinds written out in open formats before, some of them some time ago.
     *
     * @param  array<string, mixed>  $reading
     * @return array<string, array{at: int, items: array<string, array<string, mixed>>}> by kind
     */
    private function sideExports(array $reading): array
    {
        $exports = [];
        $known = array_values(array_intersect(self::ONE_BY_ONE, array_column($reading['kinds'], 'kind')));
        foreach ($this->some($known, 0, 3) as $kind) {
            $at = $this->chance(50) ? $this->today : $this->today - $this->int(2, 40) * self::DAY;
            $items = array_filter(
                $this->bags['own']['items'],
                static fn (array $i): bool => $i['kind'] === $kind && $i['at'] <= $at,
            );
            $exports[$kind] = ['at' => $at, 'items' => $items];
        }

        return $exports;
    }

    /**
     * @return array<string, array{at: int, items: array<string, array<string, mixed>>}> kinds of the job's own bag
     *   that are brought in on a device that is kept as new
     */
    private function chosenKinds(): array
    {
        $chosen = [];
        foreach ($this->some(self::ONE_BY_ONE, 0, 4) as $kind) {
            $chosen[$kind] = [
                'at' => $this->today,
                'items' => array_filter(
                    $this->bags['own']['items'],
                    static fn (array $i): bool => $i['kind'] === $kind,
                ),
            ];
        }

        return $chosen;
    }

    /**
     * @param  array<string, mixed>  $reading
     * @param  array<string, array{at: int, items: array<string, mixed>}>  $exports
     */
    private function situation(array $reading, array $exports): Situation
    {
        $device = array_diff_key(
            $reading,
            array_flip(['imei', 'mode', 'bootable', 'activated', 'setUp', 'operation', 'cloudReturn', 'practice']),
        ) + ['ownerAccountAtHand' => true, 'passcodeKnown' => true];
        $document = Sample::situation($device, [
            'now' => Handset::time($this->today), 'planned' => ['backup' => 'none', 'sideExports' => []],
            'backups' => array_values(array_map(static fn (array $b): array => $b['about'], $this->bags)),
            'sideExports' => array_values(
                array_map(
                    static fn (string $kind, array $e): array => [
                        'kind' => $kind,
                        'takenAt' => Handset::time($e['at']),
                    ],
                    array_keys($exports),
                    $exports,
                ),
            ),
        ]);

        return SituationDocument::parse(json_encode($document, JSON_THROW_ON_ERROR));
    }

    /** @return list<Candidate> */
    private function candidates(): array
    {
        return array_values(
            array_map(
                static fn (array $b): Candidate => new Candidate(
                    self::held($b['about']),
                    'SKL-0042',
                    'tarn',
                ),
                $this->bags,
            ),
        );
    }

    /** @param  array<string, mixed>  $about */
    private static function held(array $about): HeldBackup
    {
        return Sample::read(Sample::situation([], ['backups' => [$about]]))->backups[0];
    }

    private function install(Build $end): void
    {
        $this->device
            ->works()
            ->begin('install', [
                'keepData' => false,
                'head' => [
                    'version' => (string) $end->version,
                    'build' => $end->build,
                    'storeSchemas' => $end->storeSchemas,
                    'rollbackIndex' => 1,
                ],
            ]);
        $this->later();
        $this->device->works()->begin('activate', []);
        $this->later();
        $this->device->works()->begin('pair', []);
        $this->later();
    }

    /** Time passes on the device, and what is due happens. */
    private function later(): void
    {
        $this->device = new Handset($this->device->state, $this->folder, $this->device->now + 1000, $this->today, 1.0);
        $this->device->catchUp();
    }

    /**
     * Takes one of what the core lets choose; where the device refuses it, the next that the core proposes.
     *
     * @param  list<Candidate>  $candidates
     * @return array{ReturnChoice, list<string>} what was put back, and the faults that there were
     */
    private function putBack(Situation $situation, Build $end, array $candidates): array
    {
        $faults = $this->some(['return-refused', 'item-dropped', 'sync-late', 'cable-out', 'owner-lock'], 0, 3);
        $selectable = array_values(
            array_filter(
                ReturnChoices::of($situation, $end, $candidates)->all,
                static fn (ReturnChoice $c): bool => $c->selectable(),
            ),
        );
        $choice = $this->chance(60) ? $selectable[0] : $selectable[$this->int(0, count($selectable) - 1)];
        foreach (array_intersect($faults, ['return-refused', 'item-dropped', 'sync-late']) as $kind) {
            $this->device->state['faults'][] = ['kind' => $kind, 'since' => 0];
        }
        try {
            $this->return($choice, $faults);
        } catch (Problem $refused) {
            $again = array_map(
                static fn (Candidate $c): Candidate => new Candidate(
                    $c->backup,
                    $c->serial,
                    $c->osLine,
                    false,
                    $c->backup->id === $choice->backup,
                ),
                $candidates,
            );
            $isNewerCloud = $choice->base?->isNewerCloud === true;
            $refused->reason === 'backup-not-taken'
                || $isNewerCloud
                || throw new \RuntimeException(
                    "The device refused what the core promised: {$refused->getMessage()}",
                    0,
                    $refused,
                );
            if (! $isNewerCloud) {
                $choice = self::best(ReturnChoices::of($situation, $end, $again));
                // a newer cloud backup was promised to be at risk, and this device takes none
                $choice->base?->isNewerCloud === true ? null : $this->return($choice, []);
            }
        }

        return [$choice, array_values($faults)];
    }

    /** @param  list<string>  $faults */
    private function return(ReturnChoice $choice, array $faults): void
    {
        if ($choice->base === null || $choice->base->treatment === Treatment::None) {
            return;
        }
        if ($choice->backup === self::CLOUD) {
            $this->device->returnFromCloud();
            $this->later();

            return;
        }
        $bag = $this->bags[(string) $choice->backup];
        $count = array_count_values(array_column($bag['items'], 'kind'));
        $offer = [
            'declaredVersion' => (string) $choice->base->declaredVersion,
            'kinds' => array_map(
                static fn (string $k): array => [
                    'kind' => $k,
                    'items' => $count[$k] ?? 0,
                    'storeSchema' => $bag['schemas'][$k] ?? null,
                ],
                $bag['about']['kinds'],
            ),
        ];
        if (in_array('owner-lock', $faults, true)) {
            $this->device->state['ownerLock'] = 'on';
            try {
                $this->device->offerReturn($offer);
                throw new \RuntimeException('The device took data with its owner lock on.');
            } catch (Problem) {
                $this->device->hands()->answer('owner-lock-off');
            }
        }
        $id = $this->device->offerReturn($offer);
        foreach ($bag['items'] as $item) {
            $this->device->staging($id)->write($item['kind'], $item['path'], $item['text'], $item['at']);
        }
        $this->device->commitReturn($id);
        if (in_array('cable-out', $faults, true)) {
            $this->device->hands()->unplug();
            $this->device->hands()->plugInto('2');
            foreach ($bag['items'] as $item) {
                $this->device->staging($id)->write($item['kind'], $item['path'], $item['text'], $item['at']);
            }
            $this->device->commitReturn($id);
        }
        $this->later();
    }

    /** @return list<KindFate> */
    private function promise(Situation $situation, Build $end, ReturnChoice $choice): array
    {
        return ReturnChoices::of($situation, $end, $this->candidates())->find($choice->backup)->fates ?? [];
    }

    /** @param  list<string>  $faults */
    private function setUp(array $faults): void
    {
        $this->device->start('set-up');
        $this->later();
        $this->device->state['syncLate'] ? $this->device->hands()->answer('sync-arrives') : null;
        in_array('sync-late', $faults, true) && $this->device->state['syncLate']
            ? throw new \RuntimeException('Sync did not arrive.')
            : null;
    }

    /**
     * @param  list<KindFate>  $promise
     * @param  array<string, array{at: int, items: array<string, array<string, mixed>>}>  $exports
     */
    private function bringIn(array $promise, array $exports, ReturnChoice $choice): void
    {
        foreach ($promise as $fate) {
            $has = $this->device->content()->files($fate->kind->value);
            foreach ($fate->from === Source::SideExport ? $exports[$fate->kind->value]['items'] : [] as $item) {
                isset($has[$item['path']]) && $has[$item['path']]->getMTime() >= $item['at']
                    ? null
                    : $this->device
                        ->takesIn($item['kind'])
                        ->write($item['kind'], $item['path'], $item['text'], $item['at']);
            }
        }
    }

    /**
     * @param  list<KindFate>  $promise
     * @param  array<string, mixed>  $reading
     */
    private function account(array $promise, Inventory $before, array $reading, Losses $losses): Account
    {
        $now = array_column($this->device->reading()['kinds'], 'items', 'kind');

        return Account::of(
            $promise,
            Reconciliation::compare($before, $this->listing(), RewriteRule::usual($losses->appsUnavailable !== [])),
            array_column($reading['kinds'], 'items', 'kind'),
            $now,
        );
    }

    /**
     * Puts what an item that the device dropped back, one by one, as the proof names it.
     *
     * @param  list<KindFate>  $promise
     * @param  array<string, mixed>  $reading
     */
    private function mend(Account $account, array $promise, Inventory $before, array $reading, Losses $losses): Account
    {
        foreach ($account->unexpected() as $kind) {
            foreach ($kind->proof->missing ?? [] as $item) {
                $kept = $this->bags['own']['items'][$item->key()];
                $kind->promise->asOf !== null && $item->modifiedAt > $kind->promise->asOf
                    ? null
                    : $this->device->takesIn($item->kind)->write($item->kind, $item->path, $kept['text'], $kept['at']);
            }
        }

        return $this->account($promise, $before, $reading, $losses);
    }

    private function listing(): Inventory
    {
        return Inventory::parse(iterator_to_array($this->device->listing(true), false));
    }

    /** What the core proposes; nothing, where it proposes nothing. */
    private static function best(ReturnChoices $choices): ReturnChoice
    {
        return $choices->proposed()
            ?? ($choices->find(null) ?? throw new \LogicException('To put nothing back is always among the choices.'));
    }

    private static function name(ReturnChoice $choice): string
    {
        return $choice->base === null || $choice->base->treatment === Treatment::None
            ? 'nothing'
            : ($choice->backup === self::CLOUD ? 'cloud' : ($choice->backup === 'own' ? 'its own' : 'an older one'))
                    .', '
                    .$choice->base->treatment->value;
    }
}
