<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/** Who is there for a batch and how many ports it has, as a lead sets it. */
final readonly class ShopPlan implements Kept
{
    /** What there is of these where nobody says (common practice, no source). */
    public const WORKERS = 4;

    public const LINES = 1;

    public const DISK_STREAMS = 4;

    /**
     * @param  list<string>  $technicians  their names; at least one
     * @param  list<string>  $days  on which people work, as "mon"; none: always
     * @param  string  $from  as "08:00"
     * @param  string  $until  as "17:00"
     */
    public function __construct(
        public int $ports,
        public array $technicians,
        public array $days,
        public string $from,
        public string $until,
        public int $workers = self::WORKERS,
        public int $diskStreams = self::DISK_STREAMS,
    ) {
    }

    public function workshop(\DateTimeZone $zone): Workshop
    {
        return Workshop::of(
            $this->ports,
            count($this->technicians),
            $this->workers,
            self::LINES,
            $this->diskStreams,
            $this->hours($zone),
        );
    }

    private function hours(\DateTimeZone $zone): WorkingHours
    {
        return $this->days === []
            ? WorkingHours::always()
            : WorkingHours::of([Shift::named($this->days, $this->from, $this->until)], $zone);
    }

    /** @param  int  $technicians  so many, whoever they are */
    public function with(int $ports, int $technicians): self
    {
        $names = array_slice($this->technicians, 0, $technicians);
        for ($i = count($names); $i < $technicians; $i++) {
            $names[] = 'Technician '.($i + 1);
        }

        return new self($ports, $names, $this->days, $this->from, $this->until, $this->workers, $this->diskStreams);
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->int('ports'),
            $fields->strings('technicians'),
            $fields->strings('days'),
            $fields->string('from'),
            $fields->string('until'),
            $fields->maybeInt('workers') ?? self::WORKERS,
            $fields->maybeInt('diskStreams') ?? self::DISK_STREAMS,
        );
    }

    public function fields(): array
    {
        return [
            'ports' => $this->ports,
            'technicians' => $this->technicians,
            'days' => $this->days,
            'from' => $this->from,
            'until' => $this->until,
            'workers' => $this->workers,
            'diskStreams' => $this->diskStreams,
        ];
    }
}
