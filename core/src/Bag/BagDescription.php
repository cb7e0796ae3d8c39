<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\TagLines;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** What a bag says of itself in bag-info.txt: which device, when, on which version, and the version it declares. */
final readonly class BagDescription
{
    public const AGENT = 'Jade Step';

    public function __construct(
        public string $id,
        public string $deviceSerial,
        public string $hardwareId,
        public string $osLine,
        public Version $madeOn,
        public Version $declaredVersion,
        public \DateTimeImmutable $takenAt,
        public Encryption $encryption,
        public string $label,
        public ?string $loweredFrom = null,
        public ?\DateTimeImmutable $loweredAt = null,
        public ?PayloadSharing $loweredPayload = null,
    ) {
    }

    /** The working copy's description: only the declared version differs, and where it comes from is said. */
    public function lowered(string $id, Version $to, \DateTimeImmutable $at, PayloadSharing $payload): self
    {
        return new self($id, $this->deviceSerial, $this->hardwareId, $this->osLine, $this->madeOn, $to, $this->takenAt,
            $this->encryption, $this->label, $this->id, $at, $payload);
    }

    /** @param  string  $oxum octets and files of the payload, as RFC 8493 section 2.2.2 writes them */
    public function render(string $oxum): string
    {
        return TagLines::render([
            ['Bag-Software-Agent', self::AGENT],
            ['Bagging-Date', ($this->loweredAt ?? $this->takenAt)->format('Y-m-d')],
            ['External-Identifier', $this->id],
            ['Payload-Oxum', $oxum],
            ['Device-Serial', $this->deviceSerial],
            ['Hardware-Id', $this->hardwareId],
            ['OS-Line', $this->osLine],
            ['Made-On-Version', (string) $this->madeOn],
            ['Declared-Version', (string) $this->declaredVersion],
            ['Taken-At', Rfc3339::format($this->takenAt)],
            ['Encryption', $this->encryption->value],
            ['Label', $this->label],
            ...($this->loweredFrom === null ? [] : [['Lowered-From', $this->loweredFrom]]),
            ...($this->loweredAt === null ? [] : [['Lowered-At', Rfc3339::format($this->loweredAt)]]),
            ...($this->loweredPayload === null ? [] : [['Lowered-Payload', $this->loweredPayload->value]]),
        ]);
    }

    /** The labels that are this program's own, and the standard's where it relies on them: each stands once at most. */
    public const LABELS = [
        'External-Identifier',
        'Payload-Oxum',
        'Device-Serial',
        'Hardware-Id',
        'OS-Line',
        'Made-On-Version',
        'Declared-Version',
        'Taken-At',
        'Encryption',
        'Label',
        'Lowered-From',
        'Lowered-At',
        'Lowered-Payload',
    ];

    /** What a lowered copy tells of itself, beside the version that it declares; a device asks for none of it. */
    public const OF_A_COPY = [
        'External-Identifier',
        'Bagging-Date',
        'Lowered-From',
        'Lowered-At',
        'Lowered-Payload',
    ];

    /** Any of them tells that the bag means to be the backup of a device. */
    private const OF_A_BACKUP = ['Device-Serial', 'Made-On-Version', 'Declared-Version', 'Taken-At'];

    /** @param  list<array{string, string}>  $lines */
    public static function isMeant(array $lines): bool
    {
        $labels = array_map(static fn (array $l): string => strtolower($l[0]), $lines);

        return array_intersect(array_map(strtolower(...), self::OF_A_BACKUP), $labels) !== [];
    }

    /** @throws NotABag where a line that a backup needs is missing or unreadable */
    public static function parse(string $bagInfo): self
    {
        $info = [];
        foreach (TagLines::parse($bagInfo) as [$label, $value]) {
            $info[strtolower($label)] ??= $value;
        }
        $text = static fn (string $value): string => $value === '' ? throw new \ValueError : $value;
        $isLowered = isset($info['lowered-from']);
        $hasTime = isset($info['lowered-at']);

        return new self(
            self::line($info, 'External-Identifier', $text),
            self::line($info, 'Device-Serial', $text),
            self::line($info, 'Hardware-Id', $text),
            self::line($info, 'OS-Line', $text),
            self::line($info, 'Made-On-Version', Version::parse(...)),
            self::line($info, 'Declared-Version', Version::parse(...)),
            self::line($info, 'Taken-At', Rfc3339::parse(...)),
            self::line($info, 'Encryption', Encryption::from(...)),
            $info['label'] ?? '',
            $isLowered ? self::line($info, 'Lowered-From', $text) : null,
            $hasTime ? self::line($info, 'Lowered-At', Rfc3339::parse(...)) : null,
            PayloadSharing::tryFrom($info['lowered-payload'] ?? ''),
        );
    }

    /**
     * @template T
     *
     * @param  array<string, string>  $info  by label in small letters
     * @param  callable(string): T  $as
     * @return T
     *
     * @throws NotABag
     */
    private static function line(array $info, string $label, callable $as): mixed
    {
        try {
            return $as($info[strtolower($label)] ?? throw NotABag::undescribed($label));
        } catch (\InvalidArgumentException|\ValueError) {
            throw NotABag::undescribed($label);
        }
    }
}
