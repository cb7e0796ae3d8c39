<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsValues;
use App\Ports\PortLabel;
use App\Ports\PortReading;
use Illuminate\Database\Eloquent\Model;

/**
 * A place of work with a device link of its own, the names of its ports, and what was last seen at them.
 *
 * @property int $id
 * @property string $name
 * @property string|null $link_address null for the link that the instance's own settings name
 * @property list<PortLabel> $ports
 * @property list<PortReading> $seen
 * @property \Illuminate\Support\Carbon|null $seen_at when the link last answered; null where it is silent
 */
final class Bench extends Model
{
    protected $guarded = ['id'];

    protected function casts(): array
    {
        return [
            'ports' => AsValues::class.':'.PortLabel::class,
            'seen' => AsValues::class.':'.PortReading::class,
            'seen_at' => 'datetime',
        ];
    }

    /** @return list<string> the ports that Settings name, in their order, and whatever else the link tells of */
    public function portNames(): array
    {
        return array_values(array_unique([
            ...array_map(static fn (PortLabel $l): string => $l->port, $this->ports),
            ...array_map(static fn (PortReading $p): string => $p->port, $this->seen),
        ]));
    }

    public function address(): string
    {
        return rtrim($this->link_address ?? config()->string('jade.device_link'), '/');
    }
}
