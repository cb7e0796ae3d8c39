<?php

declare(strict_types=1);

namespace App\People;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;

/**
 * Signing in by address and password. Wrong tries are held back where they come from: for one address from one origin,
 * for everything from one origin, and for one address from anywhere. A browser in which the person has signed in before
 * is counted by itself, so that nobody is locked out by what others try.
 *
 * An address that nobody has is answered in the same words, and takes as long.
 */
final readonly class SignIns
{
    /** Tries, and the seconds after which they are forgotten. */
    private const ADDRESS_HERE = [6, 60];

    private const ORIGIN = [30, 300];

    private const ADDRESS = [60, 3_600];

    private const BROWSER = [10, 120];

    private const CODES = [6, 300];

    private const CONFIRMATIONS = [6, 120];

    public function __construct(private Journal $journal, private SecondFactor $secondFactor)
    {
    }

    /**
     * @param  string  $origin  the network address that the request came from
     * @param  KnownBrowser|null  $browser  where somebody has signed in before
     *
     * @throws WrongPassword
     * @throws TooManyTries
     */
    public function person(
        string $address,
        #[\SensitiveParameter] string $password,
        string $origin,
        ?KnownBrowser $browser,
    ): User {
        $address = SignInAddress::normal($address);
        $person = User::query()->where('email', $address)->where('removed_at', null)->first();
        $known = $browser !== null && $person !== null && $browser->person === $person->id;
        $limits = $known
            ? ["browser:{$browser->id}" => self::BROWSER]
            : [
                'here:'.sha1("{$address}|{$origin}") => self::ADDRESS_HERE,
                "origin:{$origin}" => self::ORIGIN,
                'address:'.sha1($address) => self::ADDRESS,
            ];
        $this->assertFew($limits, $origin, $person);
        // the work is the same whether there is such a person or not
        $right = Hash::check($password, $person?->getAuthPassword() ?? self::nobodysPassword());
        if ($person === null || ! $right) {
            self::count($limits);
            $this->journal->noteStranger(Deed::FailSignIn, self::evidence($origin, $person));

            throw new WrongPassword;
        }
        RateLimiter::clear((string) array_key_first($limits));
        if (Hash::needsRehash($person->getAuthPassword())) {
            $person->update(['password' => $password]);
        }

        return $person;
    }

    /**
     * The second factor of somebody whose password was right.
     *
     * @throws WrongCode
     * @throws TooManyTries
     */
    public function assertCode(User $person, #[\SensitiveParameter] string $code, string $origin): void
    {
        $limits = ["code:{$person->id}" => self::CODES];
        $this->assertFew($limits, $origin, $person);
        if (! $this->secondFactor->takes($person, $code)) {
            self::count($limits);
            $this->journal->noteStranger(Deed::FailSecondFactor, self::evidence($origin, $person));

            throw new WrongCode;
        }
        RateLimiter::clear("code:{$person->id}");
    }

    /**
     * The password once more, of somebody who is signed in.
     *
     * @throws WrongPassword
     * @throws TooManyTries
     */
    public function assertPassword(User $person, #[\SensitiveParameter] string $password, string $origin): void
    {
        $limits = ["confirm:{$person->id}" => self::CONFIRMATIONS];
        $this->assertFew($limits, $origin, $person);
        if (! Hash::check($password, $person->getAuthPassword())) {
            self::count($limits);
            $this->journal->noteDeed(Deed::FailConfirmation, $person, self::evidence($origin, $person));

            throw new WrongPassword;
        }
        RateLimiter::clear("confirm:{$person->id}");
    }

    public function noteIn(User $person, string $origin): void
    {
        $this->journal->noteDeed(Deed::SignIn, $person, self::evidence($origin, $person));
    }

    public function noteOut(User $person, string $origin): void
    {
        $this->journal->noteDeed(Deed::SignOut, $person, self::evidence($origin, $person));
    }

    /** @param  array<string, array{int, int}>  $limits */
    private function assertFew(array $limits, string $origin, ?User $person): void
    {
        foreach ($limits as $key => [$tries, $seconds]) {
            if (RateLimiter::tooManyAttempts($key, $tries)) {
                if (Cache::add("told:{$key}", true, $seconds)) { // once for each time that it is shut
                    $this->journal->noteStranger(Deed::HoldBackSignIn, self::evidence($origin, $person));
                }

                throw new TooManyTries(max(1, RateLimiter::availableIn($key)));
            }
        }
    }

    /** @param  array<string, array{int, int}>  $limits */
    private static function count(array $limits): void
    {
        foreach ($limits as $key => [, $seconds]) {
            RateLimiter::hit($key, $seconds);
        }
    }

    /** What was typed for an address is not kept where nobody has it: it may be a password in the wrong field. */
    private static function evidence(string $origin, ?User $person): Evidence
    {
        return new Evidence(['from' => $origin] + ($person === null ? [] : ['person' => $person->email]));
    }

    /** A hash as costly as the others', of a password that nobody knows. */
    private static function nobodysPassword(): string
    {
        $cost = sha1((string) json_encode(config()->array('hashing.argon')));
        $hash = Cache::rememberForever("nobody:{$cost}", static fn (): string => Hash::make(bin2hex(random_bytes(24))));

        return is_string($hash) ? $hash : Hash::make(bin2hex(random_bytes(24)));
    }
}
