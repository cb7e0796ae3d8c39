<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** The document formats that have a JSON Schema in docs/formats/. */
enum Format: string
{
    case Catalogue = 'catalogue';
    case Situation = 'situation';
    case Plan = 'plan';

    /** As a document names its format. */
    public function name(): string
    {
        return "jade-step/{$this->value}";
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
