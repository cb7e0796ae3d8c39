<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Source;

/** How the backup of a job is taken, and which kinds are written out in open formats too. */
final readonly class BackupChoice implements Kept
{
    /**
     * @param  list<Kind>  $sideExports
     * @param  string|null  $name  what people call this backup; null where the device, its version and the time say it
     */
    public function __construct(
        public PlannedBackup $encryption,
        public array $sideExports,
        public ?string $name = null,
    ) {
    }

    /** Plain, until somebody says otherwise. */
    public static function usual(): self
    {
        return new self(PlannedBackup::Plain, []);
    }

    public function encryption(): Encryption
    {
        return $this->encryption === PlannedBackup::Encrypted ? Encryption::OpenPgp : Encryption::None;
    }

    /**
     * The kinds that are to be written out before the erase line: those that the ledger counts on, and those that
     * somebody has ticked and the device holds.
     *
     * @param  Promise|null  $promise  null where nothing comes back through a return
     * @return list<Kind>
     */
    public function exportsWanted(?Promise $promise, ?Device $device): array
    {
        if ($promise === null) {
            return [];
        }
        $held = array_filter($this->sideExports, static fn (Kind $k): bool => $device?->itemsOf($k) > 0);
        $counted = $promise->from(Source::SideExport);
        $more = array_filter($held, static fn (Kind $k): bool => ! in_array($k, $counted, true));

        return [...$counted, ...array_values($more)];
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->enum('encryption', PlannedBackup::class),
            $fields->enums('sideExports', Kind::class),
            $fields->maybeString('name'),
        );
    }

    public function fields(): array
    {
        return [
            'encryption' => $this->encryption->value,
            'sideExports' => array_column($this->sideExports, 'value'),
            'name' => $this->name,
        ];
    }
}
