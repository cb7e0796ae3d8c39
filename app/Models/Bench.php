<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A place of work with a device link of its own, and the names of its ports.
 *
 * @property int $id
 * @property string $name
 * @property string|null $link_address null for the link that the instance's own settings name
 * @property list<array{port: string, label: string}> $ports
 */
final class Bench extends Model
{
    protected $fillable = ['name', 'link_address', 'ports'];

    protected function casts(): array
    {
        return ['ports' => 'array'];
    }

    public function address(): string
    {
        return rtrim($this->link_address ?? (string) config('jade.device_link'), '/');
    }
}
