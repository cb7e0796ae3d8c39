<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/**
 * Where a device's holder has put what: a dock, and pages with folders, as `home-layout/layout.json` has it:
 * `{"dock": [app id], "pages": [[app id | {"folder", "apps"}]]}`.
 *
 * @phpstan-type Icon array{name: string, missing: bool}
 */
final readonly class HomeLayout
{
    private const DEPTH = 8;

    /**
     * @param  list<string>  $dock  app ids
     * @param  list<list<array{folder: string|null, apps: list<string>}>>  $pages  a spot without a folder is one app
     */
    private function __construct(public array $dock, public array $pages)
    {
    }

    /** Of a device on which nothing has a place. */
    public static function none(): self
    {
        return new self([], []);
    }

    /** @return self|null null where it cannot be read */
    public static function parse(string $json): ?self
    {
        $told = json_decode($json, true, self::DEPTH);
        if (! is_array($told)) {
            return null;
        }
        $pages = array_filter(is_array($told['pages'] ?? null) ? $told['pages'] : [], is_array(...));

        return new self(
            self::texts($told['dock'] ?? null),
            array_values(array_map(static fn (array $page): array => self::spots($page), $pages)),
        );
    }

    /** @return list<string> the ids of all apps that have a place */
    public function apps(): array
    {
        $placed = array_map(static fn (array $spot): array => $spot['apps'], array_merge(...$this->pages));

        return array_values(array_unique([...$this->dock, ...array_merge(...$placed)]));
    }

    /**
     * As it is drawn.
     *
     * @param  array<string, string>  $names  by app id, as the device tells them
     * @param  self|null  $other  what it is held against; null where there is nothing
     * @return array{dock: list<Icon>, pages: list<list<array{folder: string|null, apps: list<Icon>}>>} what is missing
     *   has no place in the other
     */
    public function drawn(array $names, ?self $other): array
    {
        $there = $other?->apps();
        $icon = static fn (string $id): array => [
            'name' => $names[$id] ?? self::named($id),
            'missing' => $there !== null && ! in_array($id, $there, true),
        ];
        $pages = [];
        foreach ($this->pages as $page) {
            $spots = [];
            foreach ($page as $spot) {
                $spots[] = ['folder' => $spot['folder'], 'apps' => array_map($icon, $spot['apps'])];
            }
            $pages[] = $spots;
        }

        return ['dock' => array_map($icon, $this->dock), 'pages' => $pages];
    }

    /**
     * @param  array<mixed>  $page
     * @return list<array{folder: string|null, apps: list<string>}>
     */
    private static function spots(array $page): array
    {
        $spots = [];
        foreach ($page as $told) {
            if (is_string($told)) {
                $spots[] = ['folder' => null, 'apps' => [$told]];
            } elseif (is_array($told) && is_string($told['folder'] ?? null)) {
                $spots[] = ['folder' => $told['folder'], 'apps' => self::texts($told['apps'] ?? null)];
            }
        }

        return $spots;
    }

    /** @return list<string> */
    private static function texts(mixed $told): array
    {
        return is_array($told) ? array_values(array_filter($told, is_string(...))) : [];
    }

    /** "tide-table" is "Tide table" where the device tells no name. */
    private static function named(string $id): string
    {
        return ucfirst(str_replace(['-', '_'], ' ', $id));
    }
}
