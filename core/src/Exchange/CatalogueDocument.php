<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\AccessoryRule;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Almanac\Form;
use JadeStep\Core\Almanac\KeyAction;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Almanac\Sold;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Internal\Reader;

/** Reads `jade-step/catalogue` documents. */
final class CatalogueDocument
{
    /** @throws InvalidDocument */
    public static function parse(string $json): Catalogue
    {
        return self::read(Gate::parse(Format::Catalogue, $json));
    }

    /** @throws InvalidDocument */
    public static function fromPayload(\stdClass $payload): Catalogue
    {
        return self::read(Gate::check(Format::Catalogue, $payload));
    }

    /** Reads a document that passed the gate when it was taken in, without holding it against the schema again. */
    public static function ofHeld(string $json): Catalogue
    {
        $document = json_decode($json, false, 32, JSON_THROW_ON_ERROR);
        assert($document instanceof \stdClass);

        return self::read($document);
    }

    private static function read(\stdClass $d): Catalogue
    {
        $r = new Reader(Format::Catalogue->value);

        return new Catalogue(
            $d->vendor->id,
            $d->vendor->name,
            $r->time($d->issuedAt, '/issuedAt'),
            $r->time($d->freshUntil, '/freshUntil'),
            $r->each($d->models, '/models', self::model(...)),
            $r->each($d->builds, '/builds', static fn (\stdClass $b, string $at): Build => self::build($b, $at, $r)),
            $r->each($d->accessories ?? [], '/accessories', static fn (\stdClass $a, string $at): AccessoryRule => new AccessoryRule(
                $a->type,
                $r->range($a->osVersion, "{$at}/osVersion"),
                $r->range($a->needsHost, "{$at}/needsHost"),
            )),
        );
    }

    private static function model(\stdClass $m): Model
    {
        return new Model(
            $m->hardwareId, $m->name, $m->variant, Form::from($m->form), $m->osLine, $m->tac,
            array_map(static fn (\stdClass $k): KeyAction => new KeyAction($k->action, $k->target, $k->seconds ?? null), $m->recoverySequence),
            isset($m->sold) ? new Sold($m->sold->where ?? [], $m->sold->carrierTied ?? null) : Sold::unknown(),
        );
    }

    private static function build(\stdClass $b, string $at, Reader $r): Build
    {
        return new Build(
            $b->osLine,
            $r->version($b->version, "{$at}/version"),
            $b->build,
            Channel::from($b->channel),
            $r->time($b->releasedAt, "{$at}/releasedAt"),
            $b->rollbackIndex ?? 0,
            $b->radioLevel ?? 0,
            $r->maybe($b->hostAgentMinimum ?? null, "{$at}/hostAgentMinimum", $r->version(...)),
            $b->eraseInstall ?? true,
            $r->maybe($b->inPlaceFrom ?? null, "{$at}/inPlaceFrom", $r->range(...)),
            $r->maybe($b->stepDownFrom ?? null, "{$at}/stepDownFrom", $r->range(...)),
            (array) ($b->storeSchemas ?? new \stdClass),
            $r->each($b->packages, "{$at}/packages", static fn (\stdClass $p, string $at): Package => new Package(
                $p->hardwareIds, $p->fileName, $p->bytes, $p->sha256, $p->url,
                $r->each($p->signing, "{$at}/signing", static fn (\stdClass $w, string $at): SigningWindow => self::window($w, $at, $r)),
            )),
        );
    }

    private static function window(\stdClass $w, string $at, Reader $r): SigningWindow
    {
        $from = $r->time($w->from, "{$at}/from");
        if ($w->until === null) {
            return SigningWindow::open($from);
        }
        $until = $r->time($w->until, "{$at}/until");
        if ($until <= $from) {
            throw InvalidDocument::at(Format::Catalogue->value, "{$at}/until", 'expected a time after the window\'s start');
        }

        return SigningWindow::between($from, $until, $w->announced ?? false);
    }
}
