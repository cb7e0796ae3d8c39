<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Copied;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Version\Version;

/** What people said of a device that is not plugged in. Serial or IMEI is there, and a name or a hardware id. */
final readonly class Said implements Kept
{
    private const UNKNOWN = 'unknown';

    /** @param  string|null  $by  who said so; null while nobody has signed it */
    public function __construct(
        public ?string $serial,
        public ?Imei $imei,
        public string $modelName,
        public ?string $hardwareId,
        public ?bool $carrierTied,
        public ?string $whereBought,
        public Version $version,
        public string $build,
        public ?string $by = null,
    ) {
    }

    public static function of(
        ?string $serial,
        ?Imei $imei,
        ?string $modelName,
        ?string $hardwareId,
        ?bool $carrierTied,
        ?string $whereBought,
        ?Version $version,
        ?string $build,
    ): self {
        return new self(
            $serial,
            $imei,
            $modelName ?? '',
            $hardwareId,
            $carrierTied,
            $whereBought,
            $version ?? Version::parse('0.0.0'),
            $build ?? self::UNKNOWN,
        );
    }

    public function signedBy(string $person): self
    {
        return Copied::with($this, by: $person);
    }

    public function identity(Almanac $almanac): Identity
    {
        return $this->hardwareId === null
            ? Identity::of($almanac, $this->modelName, $this->answers())
            : Identity::ofHardwareId($almanac, $this->hardwareId, $this->modelName, $this->answers());
    }

    /** What the device is held by until it is plugged in. */
    public function name(): string
    {
        return $this->serial ?? "IMEI {$this->imei}";
    }

    /** As far as it is known until it is plugged in. */
    public function device(Identity $identity): Device
    {
        $first = $identity->candidates[0];
        $model = $identity->model();
        $candidates = array_map(static fn (Model $m): string => $m->hardwareId, $identity->candidates);

        return new Device(
            $this->name(),
            $model?->hardwareId,
            $model->name ?? ($this->modelName === '' ? $first->name : $this->modelName),
            $first->osLine,
            $this->version,
            $this->build,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            null,
            [],
            [],
            [],
            new Unresolved($candidates, $this->answers()->given()),
        );
    }

    /** @return array<string, string|null> by field, null where nothing was said */
    public function told(): array
    {
        return [
            'serial' => $this->serial, 'imei' => $this->imei === null ? null : (string) $this->imei,
            'version' => (string) $this->version, 'build' => $this->build,
        ];
    }

    public static function ofFields(Fields $fields): self
    {
        $imei = $fields->maybeString('imei');

        return new self(
            $fields->maybeString('serial'), $imei === null ? null : Imei::parse($imei), $fields->string('modelName'),
            $fields->maybeString('hardwareId'), $fields->maybeBool('carrierTied'), $fields->maybeString('whereBought'),
            $fields->version('version'), $fields->string('build'), $fields->maybeString('by'),
        );
    }

    public function fields(): array
    {
        return $this->told() + [
            'modelName' => $this->modelName, 'hardwareId' => $this->hardwareId, 'carrierTied' => $this->carrierTied,
            'whereBought' => $this->whereBought, 'by' => $this->by,
        ];
    }

    private function answers(): Answers
    {
        return new Answers($this->carrierTied, $this->whereBought, $this->imei);
    }
}
