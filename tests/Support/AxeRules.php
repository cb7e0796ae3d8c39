<?php

declare(strict_types=1);

namespace Tests\Support;

/** Which rules axe-core looks by. Contrast takes most of its time, and depends on colours, not on a screen's size. */
enum AxeRules
{
    case All;
    case Colours;
    case AllButColours;

    private const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

    private const OF_COLOURS = ['color-contrast', 'link-in-text-block'];

    /** @return array<string, mixed> for axe.run */
    public function options(): array
    {
        return match ($this) {
            self::All => ['runOnly' => self::TAGS],
            self::Colours => ['runOnly' => ['type' => 'rule', 'values' => self::OF_COLOURS]],
            self::AllButColours => [
                'runOnly' => self::TAGS,
                'rules' => array_fill_keys(self::OF_COLOURS, ['enabled' => false]),
            ],
        };
    }
}
