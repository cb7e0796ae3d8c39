<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\SealedText;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\Internal\ContactCard;
use JadeStep\Core\Exchange\Internal\Csv;
use JadeStep\Core\Text;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\ParseException;
use Sabre\VObject\Reader;

/**
 * Writes kinds of a bag out in open formats, as a tar stream: contacts as vCard 4.0 (RFC 6350), calendars as
 * iCalendar (RFC 5545), messages as JSON Lines and CSV, the call log as CSV, notes as Markdown, photos and recordings
 * as the files that they are. What cannot be read stays as it is, below `unreadable/`, and is named: of a file with
 * several cards or messages only those that cannot.
 */
final class SideExport
{
    private const LARGEST_TEXT = 16_777_216;

    private const MESSAGE_COLUMNS = ['conversation', 'sentAt', 'from', 'text'];

    /** @var array<string, SealedText> what is gathered into one file of several items, by file name */
    private array $gathered = [];

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
            Kind::CallLog => $this->table($item, $text),
            default => $this->put($item, $text, $item->kind),
        };
    }

    private function card(Item $item, string $text): void
    {
        $torn = '';
        foreach (ContactCard::each($text) as $one) {
            $card = ContactCard::serialized($one);
            if ($card === null) {
                $torn .= "{$one}\r\n";
            } else {
                $this->gather('contacts.vcf', $card);
            }
        }
        if ($torn !== '') {
            $this->leave($item, $torn);
        }
    }

    private function calendar(Item $item, string $text): void
    {
        try {
            $calendar = Reader::read(Text::inUtf8($text));
            $calendar instanceof VCalendar || throw new ParseException('no calendar');
            $this->put($item, $calendar->serialize(), 'calendars');
        } catch (\Throwable) { // the library answers some torn texts with errors of its own
            $this->leave($item, $text);
        }
    }

    /** Each line as it is, with the conversation it belongs to; one that is no message is left, and the next read. */
    private function conversation(Item $item, string $text): void
    {
        $torn = [];
        $messages = [];
        foreach (explode("\n", $text) as $number => $line) {
            $line = trim($line);
            $fields = json_decode($line, true, 512, JSON_BIGINT_AS_STRING);
            if ($line !== '' && (! is_array($fields) || $line[0] !== '{')) {
                $torn[$number + 1] = $line;
            } elseif (is_array($fields)) {
                $value = static fn (string $name): string => is_scalar($fields[$name] ?? null)
                    ? (string) $fields[$name]
                    : '';
                $messages[] = [$item->path, $value('sentAt'), $value('from'), $value('text')];
                $this->gather('messages.jsonl', self::inConversation($item->path, $line, $fields)."\n");
            }
        }
        usort($messages, static fn (array $a, array $b): int => $a[1] <=> $b[1]);
        if ($messages !== []) {
            $isFirst = ! isset($this->gathered['messages.csv']);
            $this->gather('messages.csv', Csv::write($isFirst ? self::MESSAGE_COLUMNS : null, $messages));
        }
        if ($torn !== []) {
            $this->unreadable[] = "{$item->key()}, lines ".implode(', ', array_keys($torn));
            $this->put($item, implode("\n", $torn)."\n", "unreadable/{$item->kind}");
        }
    }

    /**
     * The message's own text is not touched, so that no number and no empty object becomes another.
     *
     * @param  array<mixed>  $fields  of the message
     */
    private static function inConversation(string $path, string $line, array $fields): string
    {
        $name = 'conversation';
        while (array_key_exists($name, $fields)) {
            $name .= 'Path';
        }
        $rest = ltrim(substr($line, 1));
        $flags = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE;

        return "{\"{$name}\":".json_encode($path, $flags).($rest[0] === '}' ? $rest : ",{$rest}");
    }

    /** A device's own table, with nothing in it that a spreadsheet would run. */
    private function table(Item $item, string $text): void
    {
        try {
            $this->put($item, Csv::lines(Csv::cells($text)), $item->kind);
        } catch (UnreadableCsv) {
            $this->leave($item, $text);
        }
    }

    private function gather(string $name, string $text): void
    {
        ($this->gathered[$name] ??= new SealedText)->append($text);
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
        foreach ($this->gathered as $name => $text) {
            $this->tar->addPieces("{$this->top}/{$name}", $text->size(), $this->now, $text->reader());
        }
        if ($this->unreadable !== []) {
            $this->tar->addText("{$this->top}/unreadable.txt", implode("\n", $this->unreadable)."\n", $this->now);
        }
        $this->tar->end();
    }
}
