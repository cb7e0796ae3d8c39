<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Almanac\RefreshAlmanac;
use App\Almanac\VendorKeys;
use App\Models\Bench;
use App\Models\KeyState;
use App\Models\User;
use App\Models\Vendor;
use App\Models\VendorKey;
use App\Ports\Exception\LinkLost;
use App\Ports\PortLabel;
use Illuminate\Database\Seeder;
use JadeStep\Core\Job\Role;

/** The depot of the ferry company Skerry Line: its people, and the vendors of its devices. Safe to run again. */
final class DemoSeeder extends Seeder
{
    public const PASSWORD = 'tide-table-9';

    public function run(RefreshAlmanac $refresh, VendorKeys $keys): void
    {
        $people = [
            ['Maren Dow', 'lead', Role::Lead],
            ['Teo Lind', 'bench', Role::Technician],
            ['Nell Ferris', 'viewer', Role::Viewer],
        ];
        foreach ($people as [$name, $address, $role]) {
            User::query()
                ->where('email', "{$address}@skerry.example")
                ->exists()
                || User::query()->create([
                    'name' => $name,
                    'email' => "{$address}@skerry.example",
                    'password' => self::PASSWORD,
                    'role' => $role,
                ]);
        }
        Bench::query()->exists()
            || Bench::query()->create([
                'name' => 'Depot bench',
                'link_address' => null,
                'ports' => array_map(static fn (int $n): PortLabel => new PortLabel((string) $n, ''), range(1, 10)),
            ]);
        foreach (config('jade.demo_vendors') as $id => $about) {
            $vendor = Vendor::query()->updateOrCreate(['id' => $id], $about);
            try {
                $this->acceptFirstKeys($vendor, $keys);
            } catch (LinkLost $e) {
                $this->command->warn($e->getMessage().' The almanac can be refreshed later.');
            }
            $refresh->of($vendor->refresh());
        }
    }

    /** The stand-ins' own keys are known from the start; any that they show later is to be accepted by a person. */
    private function acceptFirstKeys(Vendor $vendor, VendorKeys $keys): void
    {
        if ($vendor->keys()->exists()) {
            return;
        }
        $keys->look($vendor);
        $lead = User::query()->where('role', Role::Lead)->firstOrFail();
        $vendor
            ->keys()
            ->get()
            ->each(
                static fn (VendorKey $key) => $keys->decide(
                    $key,
                    KeyState::Accepted,
                    "{$vendor->name}, first key",
                    $lead,
                ),
            );
    }
}
