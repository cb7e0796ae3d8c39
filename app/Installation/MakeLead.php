<?php

declare(strict_types=1);

namespace App\Installation;

use App\Models\User;
use App\People\GoodPassword;
use App\People\People;
use App\People\PersonEntry;
use App\People\SignInAddress;
use App\Ports\WeakPasswords;
use Illuminate\Console\Command;
use JadeStep\Core\Job\Role;

/** Makes a lead at the prompt: the first of an installation, or one more when nobody else can get in. */
final class MakeLead extends Command
{
    protected $signature = 'jade:lead
        {--name= : what the person is called}
        {--address= : what the person signs in with}
        {--password-from-input : read the password from the input, one line}
        {--unless-there-is-one : do nothing where there is a lead}';

    protected $description = 'Makes a lead, who signs in and adds the others';

    public function handle(People $people, WeakPasswords $weak): int
    {
        $leads = User::query()->where('role', Role::Lead)->where('removed_at', null);
        if ($this->option('unless-there-is-one') === true && $leads->exists()) {
            $this->info('There is a lead already.');

            return self::SUCCESS;
        }
        $name = $this->given('name', 'Name');
        $address = SignInAddress::normal($this->given('address', 'Address to sign in with'));
        $problem = match (true) {
            $name === '' || mb_strlen($name) > 100 => 'A name has 1 to 100 characters.',
            filter_var($address, FILTER_VALIDATE_EMAIL, FILTER_FLAG_EMAIL_UNICODE) === false => 'The address is one '
                .'as for mail: name@shop.example.',
            User::query()->where('email', $address)->exists() => 'Somebody signs in with this address already.',
            default => null,
        };
        $password = $problem === null ? $this->password() : '';
        $problem ??= $password === null
            ? 'The two passwords are not the same.'
            : (new GoodPassword($weak, [(string) strtok($address, '@'), $name]))->problem($password);
        if ($problem !== null) {
            $this->error($problem);

            return self::FAILURE;
        }
        $people->add(new PersonEntry($name, $address, Role::Lead, $password));
        $this->info("{$name} signs in with {$address}.");

        return self::SUCCESS;
    }

    private function given(string $option, string $question): string
    {
        $value = $this->option($option);
        $asked = is_string($value) ? $value : $this->ask($question);

        return trim(is_string($asked) ? $asked : '');
    }

    /** @return string|null null where the second time was another */
    private function password(): ?string
    {
        if ($this->option('password-from-input') === true) {
            return rtrim((string) fgets(STDIN), "\r\n");
        }
        $once = $this->secret('Password (at least '.GoodPassword::SHORTEST.' characters; several words, for instance)');
        $again = $this->secret('The password once more');

        return is_string($once) && $once === $again ? $once : null;
    }
}
