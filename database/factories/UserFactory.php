<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\User;
use Illuminate\Database\Eloquent\Factories\Factory;
use JadeStep\Core\Job\Role;

/** @extends Factory<User> */
final class UserFactory extends Factory
{
    protected $model = User::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'name' => $this->faker->name(),
            'email' => $this->faker->unique()->safeEmail(),
            'password' => 'a-long-passphrase',
            'role' => Role::Technician,
        ];
    }

    public function viewer(): static
    {
        return $this->state(['role' => Role::Viewer]);
    }
}
