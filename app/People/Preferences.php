<?php

declare(strict_types=1);

namespace App\People;

/** What a person has chosen for themselves, wherever they sign in. */
final readonly class Preferences
{
    public function __construct(
        public bool $shortcuts = true,
        public bool $sound = false,
        public Density $density = Density::Roomy,
        public bool $guided = true,
    ) {
    }

    /** @param  array<array-key, mixed>|null  $kept */
    public static function of(?array $kept): self
    {
        $density = $kept['density'] ?? null;

        return new self(
            (bool) ($kept['shortcuts'] ?? true),
            (bool) ($kept['sound'] ?? false),
            is_string($density) ? Density::from($density) : Density::Roomy,
            (bool) ($kept['guided'] ?? true),
        );
    }

    /** @return array{shortcuts: bool, sound: bool, density: string, guided: bool} */
    public function told(): array
    {
        return [
            'shortcuts' => $this->shortcuts,
            'sound' => $this->sound,
            'density' => $this->density->value,
            'guided' => $this->guided,
        ];
    }
}
