<?php

declare(strict_types=1);

namespace App\Models;

use Spatie\Activitylog\Models\Activity;

/**
 * One line of the Journal. The database itself takes no change and no deletion.
 *
 * @property int $id
 * @property string $description in words
 * @property string|null $event the act's code
 * @property string $who a person's name, the machine, or somebody who is not signed in
 * @property string|null $serial
 * @property int|null $bench_job_id
 * @property \Illuminate\Support\Collection<string, mixed>|null $properties the evidence
 * @property \Illuminate\Support\Carbon $created_at
 *
 * @method static \Illuminate\Database\Eloquent\Builder<JournalLine> query()
 */
final class JournalLine extends Activity
{
    public const MACHINE = 'Jade Step';

    public const STRANGER = 'Somebody not signed in';

    protected $dateFormat = 'Y-m-d H:i:s.v';
}
