<?php

declare(strict_types=1);

namespace App\Installation;

use App\Models\User;
use App\Models\Vendor;
use Database\Seeders\DemoSeeder;
use Database\Seeders\DemoShelfSeeder;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/**
 * Loads the demo into an empty database. Where anybody can sign in already, nothing of what people have changed since
 * is touched; only the stand-ins are found again where they now listen.
 */
final class SeedDemo extends Command
{
    protected $signature = 'jade:demo';

    protected $description = 'Loads the demo data, where the database is empty';

    public function handle(): int
    {
        if (User::query()->exists()) {
            $this->followStandIns();
            $this->info('There are people here already: the demo data was not loaded.');

            return self::SUCCESS;
        }
        DB::transaction(fn (): int => $this->call('db:seed', ['--class' => DemoSeeder::class, '--force' => true]));

        return $this->call('db:seed', ['--class' => DemoShelfSeeder::class, '--force' => true]);
    }

    private function followStandIns(): void
    {
        foreach (Vendor::query()->whereIn('id', array_keys(config()->array('jade.demo_vendors')))->get() as $vendor) {
            if (preg_match("~^http://127\.0\.0\.1:\d+/{$vendor->id}$~", (string) $vendor->address) === 1) {
                $vendor->update(['address' => config()->string("jade.demo_vendors.{$vendor->id}.address")]);
            }
        }
    }
}
