<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\AccessoryRule;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Almanac\Edge;
use JadeStep\Core\Almanac\Form;
use JadeStep\Core\Almanac\KeyAction;
use JadeStep\Core\Almanac\KeyPlace;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Almanac\Sold;
use JadeStep\Core\Exchange\Exception\InvalidDocument;

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
        return self::ofFields(Fields::of(json_decode($json, true, 32, JSON_THROW_ON_ERROR)));
    }

    private static function read(\stdClass $document): Catalogue
    {
        return self::ofFields(Fields::ofChecked(Format::Catalogue, $document));
    }

    private static function ofFields(Fields $f): Catalogue
    {
        $freshUntil = $f->time('freshUntil');

        return new Catalogue(
            $f->in('vendor')->string('id'),
            $f->in('vendor')->string('name'),
            $f->time('issuedAt'),
            $freshUntil,
            $f->each('models', self::model(...)),
            $f->each('builds', static fn (Fields $b): Build => self::build($b, $freshUntil)),
            $f->each('accessories', static fn (Fields $a): AccessoryRule => new AccessoryRule(
                $a->string('type'),
                $a->range('osVersion'),
                $a->range('needsHost'),
            )),
        );
    }

    private static function model(Fields $m): Model
    {
        $sold = $m->maybeIn('sold');

        return new Model(
            $m->string('hardwareId'),
            $m->string('name'),
            $m->string('variant'),
            $m->enum('form', Form::class),
            $m->string('osLine'),
            $m->strings('tac'),
            $m->each('recoverySequence', static fn (Fields $k): KeyAction => new KeyAction(
                $k->string('action'),
                $k->string('target'),
                $k->has('seconds') ? $k->float('seconds') : null,
            )),
            $sold === null ? Sold::unknown() : new Sold($sold->strings('where'), $sold->maybeBool('carrierTied')),
            ! $m->has('keys') ? [] : $m->each('keys', static fn (Fields $k): KeyPlace => new KeyPlace(
                $k->string('name'),
                $k->enum('edge', Edge::class),
                $k->float('at'),
            )),
        );
    }

    private static function build(Fields $b, \DateTimeImmutable $freshUntil): Build
    {
        return new Build(
            $b->string('osLine'),
            $b->version('version'),
            $b->string('build'),
            $b->enum('channel', Channel::class),
            $b->time('releasedAt'),
            $b->maybeInt('rollbackIndex') ?? 0,
            $b->maybeInt('radioLevel') ?? 0,
            $b->maybeVersion('hostAgentMinimum'),
            $b->maybeBool('eraseInstall') ?? true,
            $b->maybeRange('inPlaceFrom'),
            $b->maybeRange('stepDownFrom'),
            $b->ints('storeSchemas'),
            $b->each('packages', static fn (Fields $p): Package => self::package($p, $freshUntil)),
        );
    }

    private static function package(Fields $p, \DateTimeImmutable $freshUntil): Package
    {
        return new Package(
            $p->strings('hardwareIds'),
            $p->string('fileName'),
            $p->int('bytes'),
            $p->string('sha256'),
            $p->string('url'),
            $p->each('signing', self::window(...)),
            $freshUntil,
        );
    }

    private static function window(Fields $w): SigningWindow
    {
        $from = $w->time('from');
        $until = $w->maybeTime('until');
        if ($until === null) {
            return SigningWindow::open($from);
        }

        return $until > $from
            ? SigningWindow::between($from, $until, $w->maybeBool('announced') ?? false)
            : throw $w->fault('until', 'expected a time after the window\'s start');
    }
}
