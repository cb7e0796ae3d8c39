<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Internal;

use JadeStep\Core\Text;
use Sabre\VObject\Component\VCard;
use Sabre\VObject\Document;
use Sabre\VObject\Property;
use Sabre\VObject\Reader;

/** Contact cards of any version as vCard 4.0 (RFC 6350). */
final class ContactCard
{
    /** @return list<string> the cards of a file, one by one */
    public static function each(string $text): array
    {
        $cards = preg_split('/(?<=END:VCARD)\s+/i', trim($text));

        return $cards === false ? [] : $cards;
    }

    /** @return string|null null where it is no card, or cannot be made a valid one */
    public static function serialized(string $text): ?string
    {
        try {
            $card = Reader::read(Text::inUtf8($text));
            if (! $card instanceof VCard) {
                return null;
            }
            $card = $card->convert(Document::VCARD40);
            assert($card instanceof VCard);
            self::name($card);
            self::identify($card, $text);
            $faults = $card->validate(VCard::REPAIR);

            return array_filter($faults, static fn (array $f): bool => ($f['level'] ?? 3) >= 3) === []
                ? $card->serialize()
                : null;
        } catch (\Throwable) { // the library answers some torn texts with errors of its own
            return null;
        }
    }

    /** Every card of version 4.0 has a formatted name (RFC 6350 section 6.2.1): made of what the card tells. */
    private static function name(VCard $card): void
    {
        if (self::text($card, 'FN') !== '') {
            return;
        }
        $card->remove('FN');
        $parts = $card->__get('N');
        $parts = $parts instanceof Property ? array_map(strval(...), $parts->getParts()) : [];
        $named = trim(implode(' ', array_filter(
            [$parts[3] ?? '', $parts[1] ?? '', $parts[2] ?? '', $parts[0] ?? '', $parts[4] ?? ''],
            static fn (string $p): bool => trim($p) !== '',
        )));
        foreach (['NICKNAME', 'ORG', 'EMAIL', 'TEL'] as $other) {
            $named = $named === '' ? self::text($card, $other) : $named;
        }
        $card->add('FN', $named === '' ? 'Without a name' : $named);
    }

    private static function text(VCard $card, string $property): string
    {
        $value = $card->__get($property);

        return $value instanceof Property ? trim(implode(' ', array_map(strval(...), $value->getParts()))) : '';
    }

    /**
     * A card without a UID gets one that is the same for the same card, so that it is not doubled when it is brought
     * in twice.
     */
    private static function identify(VCard $card, string $text): void
    {
        if (! $card->__isset('UID')) {
            $pattern = '/\A(.{8})(.{4}).(.{3}).(.{3})(.{12}).*\z/';
            $card->add('UID', 'urn:uuid:'.preg_replace($pattern, '$1-$2-8$3-8$4-$5', hash('sha256', $text)));
        }
    }
}
