<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Internal\Csv;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Component\VCard;
use Sabre\VObject\Document;
use Sabre\VObject\ParseException;
use Sabre\VObject\Reader;

/**
 * Writes kinds of a bag out in open formats, as a tar stream: contacts as vCard 4.0 (RFC 6350), calendars as
 * iCalendar (RFC 5545), messages as JSON Lines and CSV, the call log as CSV, notes as Markdown, photos and recordings
 * as the files that they are. What cannot be read stays as it is, below `unreadable/`, and is named.
 */
final class SideExport
{
    private const LARGEST_TEXT = 16_777_216;

    /** @var array<string, string> what is gathered into one file of several items, by file name */
    private array $gathered = [];

    /** @var list<list<string>> */
    private array $messages = [];

    /** @var list<string> */
    private array $unreadable = [];

    /** @param  list<Kind>  $kinds */
    private function __construct(
        private readonly TarWriter $tar,
        private readonly array $kinds,
        private readonly string $top,
        private readonly int $now,
    ) {
    }

    /**
     * @param  list<Kind>  $kinds
     * @return list<string> the items that could not be read in their format
     */
    public static function write(
        BagContent $content,
        array $kinds,
        string $top,
        \DateTimeImmutable $now,
        TarWriter $tar,
    ): array {
        $export = new self($tar, $kinds, $top, $now->getTimestamp());
        $content->each($export->item(...));
        $export->end();

        return $export->unreadable;
    }

    /** @param  callable(int): string  $read */
    private function item(Item $item, callable $read): void
    {
        $kind = Kind::from($item->kind);
        if (! in_array($kind, $this->kinds, true) || ! $kind->hasSideExport()) {
            return;
        }
        if (in_array($kind, [Kind::Photos, Kind::Recordings], true) || $item->bytes > self::LARGEST_TEXT) {
            $this->asItIs($item, $read, $item->kind);

            return;
        }
        $text = '';
        while (($piece = $read(262_144)) !== '') {
            $text .= $piece;
        }
        match ($kind) {
            Kind::Contacts => $this->card($item, $text),
            Kind::Calendars => $this->calendar($item, $text),
            Kind::Messages => $this->conversation($item, $text),
            default => $this->put($item, $text, $item->kind),
        };
    }

    /** @return list<string> the cards of a file, one by one */
    private static function cards(string $text): array
    {
        $cards = preg_split('/(?<=END:VCARD)\s+/i', trim($text));

        return $cards === false ? [] : $cards;
    }

    private function card(Item $item, string $text): void
    {
        $cards = '';
        try {
            foreach (self::cards($text) as $one) {
                $card = Reader::read($one);
                $card instanceof VCard || throw new ParseException('no card');
                $cards .= self::named($card->convert(Document::VCARD40), $one)->serialize();
            }
            $this->gathered['contacts.vcf'] = ($this->gathered['contacts.vcf'] ?? '').$cards;
        } catch (ParseException|\InvalidArgumentException) {
            $this->leave($item, $text);
        }
    }

    /**
     * A card without a UID gets one that is the same for the same card, so that it is not doubled when it is brought
     * in twice.
     */
    private static function named(Document $card, string $text): Document
    {
        if (! $card->__isset('UID')) {
            $card->add(
                'UID',
                'urn:uuid:'
                    .preg_replace(
                        '/\A(.{8})(.{4}).(.{3}).(.{3})(.{12}).*\z/',
                        '$1-$2-8$3-8$4-$5',
                        hash('sha256', $text),
                    ),
            );
        }

        return $card;
    }

    private function calendar(Item $item, string $text): void
    {
        try {
            $calendar = Reader::read($text);
            $calendar instanceof VCalendar || throw new ParseException('no calendar');
            $this->put($item, $calendar->serialize(), 'calendars');
        } catch (ParseException) {
            $this->leave($item, $text);
        }
    }

    private function conversation(Item $item, string $text): void
    {
        $rows = [];
        foreach (explode("\n", trim($text)) as $line) {
            $fields = json_decode($line, true, 8);
            if (! is_array($fields)) {
                $this->leave($item, $text);

                return;
            }
            $value = static fn (string $name): string => is_scalar($fields[$name] ?? null)
                ? (string) $fields[$name]
                : '';
            $rows[] = [
                [$item->path, $value('sentAt'), $value('from'), $value('text')],
                ['conversation' => $item->path] + $fields,
            ];
        }
        array_push($this->messages, ...array_column($rows, 0));
        $this->gathered['messages.jsonl'] =
            ($this->gathered['messages.jsonl'] ?? '')
            .implode(
                '',
                array_map(
                    static fn (array $r): string => json_encode(
                        $r[1],
                        JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
                    )."\n",
                    $rows,
                ),
            );
    }

    private function leave(Item $item, string $text): void
    {
        $this->unreadable[] = $item->key();
        $this->put($item, $text, "unreadable/{$item->kind}");
    }

    private function put(Item $item, string $text, string $folder): void
    {
        $this->tar->addText($this->place($item, $folder), $text, $item->modifiedAt->getTimestamp());
    }

    /** Under the name by which the bag stores it, since a device may call it something that leads elsewhere. */
    private function place(Item $item, string $folder): string
    {
        return "{$this->top}/{$folder}/".substr($item->stored(), strlen($item->kind) + 1);
    }

    /** @param  callable(int): string  $read */
    private function asItIs(Item $item, callable $read, string $folder): void
    {
        $this->tar->addPieces(
            $this->place($item, $folder),
            $item->bytes,
            $item->modifiedAt->getTimestamp(),
            $read,
        );
    }

    private function end(): void
    {
        if ($this->messages !== []) {
            usort($this->messages, static fn (array $a, array $b): int => [$a[0], $a[1]] <=> [$b[0], $b[1]]);
            $this->gathered['messages.csv'] = Csv::write(['conversation', 'sentAt', 'from', 'text'], $this->messages);
        }
        foreach ($this->gathered as $name => $text) {
            $this->tar->addText("{$this->top}/{$name}", $text, $this->now);
        }
        if ($this->unreadable !== []) {
            $this->tar->addText("{$this->top}/unreadable.txt", implode("\n", $this->unreadable)."\n", $this->now);
        }
        $this->tar->end();
    }
}
