<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Models\BagImport;
use App\Models\User;
use App\Shelf\Importing;
use Illuminate\Database\Seeder;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Support\Facades\Http;
use JadeStep\Core\Job\Role;

/**
 * Brings a backup from before the upgrade in, as the depot has kept one. Done once; a real device link has none to
 * give.
 */
final class DemoShelfSeeder extends Seeder
{
    private const SERIAL = 'SKL-0063';

    public function run(Importing $importing): void
    {
        if (BagImport::query()->exists()) {
            return;
        }
        try {
            $answer = Http::post(config('jade.device_link').'/practice/devices/'.self::SERIAL.'/old-backup', [
                'daysAgo' => 60,
                'madeOn' => '8.6.0',
            ]);
        } catch (ConnectionException) {
            return; // without the rig the shelf begins empty
        }
        if ($answer->successful()) {
            $importing->receive(
                self::SERIAL.'-before-the-upgrade.zip',
                $answer->toPsrResponse()->getBody()->detach() ?? throw new \LogicException('An answer has a body.'),
                User::query()->where('role', Role::Lead)->firstOrFail(),
            );
        }
    }
}
