<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\WayBack\ChosenReturn;
use JadeStep\Core\Job\WayBack\FromCloud;
use JadeStep\Core\Job\WayBack\KeepAsNew;
use JadeStep\Core\Job\WayBack\Mode;
use JadeStep\Core\Job\WayBack\NeverLeft;
use JadeStep\Core\Job\WayBack\PutBack;
use JadeStep\Core\Job\WayBack\PutNothingBack;
use JadeStep\Core\Job\WayBack\WayBack;
use JadeStep\Core\Time\Rfc3339;

/**
 * A way back that somebody chose, as it is kept.
 *
 * @implements Document<ChosenReturn>
 */
final class ChosenReturnDocument implements Document
{
    public static function write(object $value): array
    {
        return self::way($value->way) + [
            'promise' => PromiseDocument::write($value->promise),
            'by' => $value->by,
            'at' => Rfc3339::format($value->at),
        ];
    }

    public static function read(Fields $document): ChosenReturn
    {
        $promise = PromiseDocument::read($document->in('promise'));

        return new ChosenReturn(self::readWay($document), $promise, $document->string('by'), $document->time('at'));
    }

    /** @return array{mode: string, backup: string|null, kinds: list<string>} */
    public static function way(WayBack $way): array
    {
        return [
            'mode' => $way->mode()->value, 'backup' => $way->bag(),
            'kinds' => $way instanceof KeepAsNew ? array_column($way->kinds, 'value') : [],
        ];
    }

    private static function readWay(Fields $f): WayBack
    {
        return match ($f->enum('mode', Mode::class)) {
            Mode::PutBack => PutBack::ofBag($f->string('backup')),
            Mode::FromCloud => new FromCloud,
            Mode::KeepAsNew => new KeepAsNew($f->maybeString('backup'), $f->enums('kinds', Kind::class)),
            Mode::PutNothingBack => new PutNothingBack,
            Mode::NeverLeft => new NeverLeft,
        };
    }
}
