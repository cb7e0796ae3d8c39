<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Bench\HeldAlmanac;
use App\Bench\Role;
use App\Models\User;
use App\Ports\Exception\LinkLost;
use Illuminate\Database\Seeder;

/** The depot of the ferry company Skerry Line: its people, and the vendor's catalogue. Safe to run again. */
final class DemoSeeder extends Seeder
{
    public const PASSWORD = 'tide-table-9';

    public function run(HeldAlmanac $almanac): void
    {
        $people = [['Maren Dow', 'lead', Role::Lead], ['Teo Lind', 'bench', Role::Technician], ['Nell Ferris', 'viewer', Role::Viewer]];
        foreach ($people as [$name, $address, $role]) {
            User::query()->where('email', "{$address}@skerry.example")->exists()
                || User::query()->create(['name' => $name, 'email' => "{$address}@skerry.example", 'password' => self::PASSWORD, 'role' => $role]);
        }
        try {
            $almanac->refresh();
        } catch (LinkLost $e) {
            $this->command->warn($e->getMessage().' The almanac can be refreshed later.');
        }
    }
}
