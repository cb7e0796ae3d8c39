<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsValue;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Problem;

/**
 * A sealed bag at the second place, or on its way there or back.
 *
 * @property string $bag_id
 * @property SecondCopyState $state
 * @property string|null $digest of the whole bag, as it was read back there
 * @property float|null $progress 0 to 1, while it is carried
 * @property int $tries without success, since it last went well
 * @property \Illuminate\Support\Carbon|null $not_before
 * @property \Illuminate\Support\Carbon|null $read_back_at when every byte was last read back there
 * @property Problem|null $problem why it is not there yet, or not back
 * @property \Illuminate\Support\Carbon|null $updated_at
 * @property \Illuminate\Support\Carbon|null $beat_at when whoever carries it was last heard of
 */
final class SecondCopy extends Model
{
    public $incrementing = false;

    protected $primaryKey = 'bag_id';

    protected $keyType = 'string';

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'state' => SecondCopyState::class,
            'progress' => 'float',
            'tries' => 'integer',
            'not_before' => 'datetime',
            'read_back_at' => 'datetime',
            'problem' => AsValue::class.':'.ProblemDocument::class,
            'beat_at' => 'datetime',
        ];
    }
}
