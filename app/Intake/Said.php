<?php

declare(strict_types=1);

namespace App\Intake;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Device\Answers;
use JadeStep\Core\Device\Identity;
use JadeStep\Core\Device\Imei;
use JadeStep\Core\Device\Question;

/** What people said of a device that is not plugged in. Serial or IMEI is there, and a name or a hardware id. */
final readonly class Said
{
    private const UNKNOWN = 'unknown';

    private const NOT_TOLD = [
        'rollbackCounter', 'radioMinimum', 'capacityBytes', 'freeBytes', 'batteryPercent', 'charging', 'paired', 'ownerLock', 'lockDelay',
        'lockDelayEndsAt', 'ownerAccountAtHand', 'passcodeKnown', 'betaEnrolled',
    ];

    public function __construct(
        public ?string $serial,
        public ?Imei $imei,
        public string $modelName,
        public ?string $hardwareId,
        public ?bool $carrierTied,
        public ?string $whereBought,
        public string $version,
        public string $build,
    ) {
    }

    /** @param  array<string, mixed>  $fields  validated: null or absent where nothing was said */
    public static function of(array $fields): self
    {
        $text = static fn (string $field): ?string => ($fields[$field] ?? '') === '' ? null : (string) $fields[$field];

        return new self(
            $text('serial'), $text('imei') === null ? null : Imei::parse($text('imei')), $text('modelName') ?? '', $text('hardwareId'),
            $fields['carrierTied'] ?? null, $text('whereBought'), $text('version') ?? '0.0.0', $text('build') ?? self::UNKNOWN,
        );
    }

    public function identity(Almanac $almanac): Identity
    {
        $answers = new Answers($this->carrierTied, $this->whereBought, $this->imei);

        return $this->hardwareId === null ? Identity::of($almanac, $this->modelName, $answers) : Identity::ofHardwareId($almanac, $this->hardwareId, $this->modelName, $answers);
    }

    /** What the device is held by until it is plugged in. */
    public function name(): string
    {
        return $this->serial ?? "IMEI {$this->imei}";
    }

    /** @return array<string, mixed> as a situation document has a device */
    public function device(Identity $identity): array
    {
        $first = $identity->candidates[0];

        return array_fill_keys(self::NOT_TOLD, null) + [
            'serial' => $this->name(), 'hardwareId' => $identity->model()?->hardwareId, 'modelName' => $identity->model()->name ?? ($this->modelName === '' ? $first->name : $this->modelName),
            'osLine' => $first->osLine, 'version' => $this->version, 'build' => $this->build, 'accessories' => [], 'apps' => [], 'kinds' => [],
            'identity' => [
                'candidates' => array_map(static fn (Model $m): string => $m->hardwareId, $identity->candidates),
                'answered' => array_map(static fn (Question $q): string => $q->value, (new Answers($this->carrierTied, $this->whereBought, $this->imei))->given()),
            ],
        ];
    }

    /** @return array<string, mixed> as it is kept with a job */
    public function kept(string $by): array
    {
        return [
            'serial' => $this->serial, 'imei' => $this->imei === null ? null : (string) $this->imei, 'modelName' => $this->modelName, 'hardwareId' => $this->hardwareId,
            'carrierTied' => $this->carrierTied, 'whereBought' => $this->whereBought, 'version' => $this->version, 'build' => $this->build, 'by' => $by,
        ];
    }
}
