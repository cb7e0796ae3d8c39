<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** What is told beside a route of the window that is the least likely to hold, as it was worked out at a moment. */
final readonly class ToldChance implements Kept
{
    /**
     * @param  string  $route  its id in the plan
     * @param  string  $build  whose window it is
     * @param  string  $version  the build's, as it is shown
     * @param  float  $chance  0 to 1, that it is open when its permit will be asked for
     * @param  float|null  $low  of the 95 % interval; null where nothing tells
     * @param  bool  $atMost  whether no window was watched for so long
     * @param  \DateTimeImmutable|null  $halfClosedBy  by when half of such windows were closed; null where not
     * @param  \DateTimeImmutable|null  $startBy  when the work should begin to be there by then
     */
    public function __construct(
        public string $route,
        public string $build,
        public string $version,
        public float $chance,
        public ?float $low,
        public ?float $high,
        public bool $atMost,
        public \DateTimeImmutable $permitAt,
        public ?\DateTimeImmutable $halfClosedBy,
        public ?\DateTimeImmutable $startBy,
        public int $closings,
        public string $restsOn,
        public string $words,
        public bool $isLittle,
    ) {
    }

    public static function of(string $route, RouteChance $chance): ?self
    {
        $least = $chance->least();
        $forecast = $least?->forecast;

        return $least?->chance === null || ! $forecast instanceof Forecast ? null : new self(
            $route,
            $least->to->build,
            $least->to->version->label(),
            $least->chance->share,
            $least->chance->interval?->low,
            $least->chance->interval?->high,
            $least->chance->atMost,
            $least->permitAt,
            $forecast->halfClosedBy(),
            $chance->startBy(),
            $forecast->closings,
            $forecast->restsOn(),
            $least->chance->words(),
            $least->chance->isLittle(),
        );
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->string('route'),
            $fields->string('build'),
            $fields->string('version'),
            $fields->float('chance'),
            $fields->has('low') ? $fields->float('low') : null,
            $fields->has('high') ? $fields->float('high') : null,
            $fields->bool('atMost'),
            $fields->time('permitAt'),
            $fields->maybeTime('halfClosedBy'),
            $fields->maybeTime('startBy'),
            $fields->int('closings'),
            $fields->string('restsOn'),
            $fields->string('words'),
            $fields->bool('isLittle'),
        );
    }

    public function fields(): array
    {
        return [
            'route' => $this->route,
            'build' => $this->build,
            'version' => $this->version,
            'chance' => $this->chance,
            'low' => $this->low,
            'high' => $this->high,
            'atMost' => $this->atMost,
            'permitAt' => Rfc3339::format($this->permitAt),
            'halfClosedBy' => Rfc3339::formatOrNull($this->halfClosedBy),
            'startBy' => Rfc3339::formatOrNull($this->startBy),
            'closings' => $this->closings,
            'restsOn' => $this->restsOn,
            'words' => $this->words,
            'isLittle' => $this->isLittle,
        ];
    }
}
