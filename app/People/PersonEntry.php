<?php

declare(strict_types=1);

namespace App\People;

use JadeStep\Core\Job\Role;

/** A person as a lead enters them. */
final readonly class PersonEntry
{
    /**
     * @param  string  $email  in its normal form
     * @param  string|null  $password  null where it stays as it is
     */
    public function __construct(
        public string $name,
        public string $email,
        public Role $role,
        #[\SensitiveParameter] public ?string $password,
    ) {
    }
}
