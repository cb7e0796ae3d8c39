<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsEnums;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Watch\Alarm;

/**
 * An address of another program that is told of alarms, with what both know to sign with.
 *
 * @property int $id
 * @property string $name
 * @property string $address
 * @property string $secret encrypted in the database
 * @property list<Alarm> $alarms
 * @property int $hand_minutes
 * @property string $made_by
 */
final class Webhook extends Model
{
    protected $guarded = ['id'];

    protected $hidden = ['secret'];

    protected function casts(): array
    {
        return ['alarms' => AsEnums::class.':'.Alarm::class, 'secret' => 'encrypted', 'hand_minutes' => 'integer'];
    }
}
