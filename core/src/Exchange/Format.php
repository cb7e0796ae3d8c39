<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** The document formats that have a JSON Schema in docs/formats/. */
enum Format: string
{
    case Catalogue = 'catalogue';
    case Situation = 'situation';
    case Plan = 'plan';
    case Batch = 'batch';
    case Schedule = 'schedule';

    /** As a document names its format. */
    public function name(): string
    {
        return "jade-step/{$this->value}";
    }

    /**
     * What is larger is refused before it is read: an almanac of 20,000 packages has some 10 MB.
     *
     * @return int<1, max>
     */
    public function mostBytes(): int
    {
        return match ($this) {
            self::Catalogue, self::Batch => 64_000_000,
            self::Situation, self::Plan, self::Schedule => 8_000_000,
        };
    }

    public static function folder(): string
    {
        return dirname(__DIR__, 3).'/docs/formats';
    }

    public function schemaId(): string
    {
        return "urn:jade-step:format:{$this->value}:1";
    }

    public function schemaFile(): string
    {
        return self::folder()."/{$this->value}.schema.json";
    }
}
