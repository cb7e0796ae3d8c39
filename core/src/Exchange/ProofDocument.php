<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Proof\AgainstPromise;
use JadeStep\Core\Proof\Happened;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Proof\ProvenKind;
use JadeStep\Core\Proof\RewrittenItem;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Time\Rfc3339;

/**
 * The comparison of before and after as it is kept and told.
 *
 * @implements Document<JobProof>
 */
final class ProofDocument implements Document
{
    public static function write(object $value): array
    {
        $codes = static fn (array $kinds): array => array_map(
            static fn (ProvenKind $k): string => $k->promise->kind->value,
            $kinds,
        );

        return [
            'comparedAt' => Rfc3339::format($value->comparedAt),
            'before' => ['version' => (string) $value->beforeVersion, 'build' => $value->beforeBuild],
            'after' => ['version' => (string) $value->afterVersion, 'build' => $value->afterBuild],
            'missing' => $value->missing(),
            'unexpected' => $codes($value->unnamed()),
            'named' => $codes($value->named()),
            'kinds' => array_map(self::kind(...), $value->kinds),
        ];
    }

    public static function read(Fields $document): JobProof
    {
        [$before, $after] = [$document->in('before'), $document->in('after')];

        return new JobProof(
            $document->time('comparedAt'), $before->version('version'), $before->string('build'),
            $after->version('version'), $after->string('build'), $document->each('kinds', self::readKind(...)),
        );
    }

    /** @return array<string, mixed> */
    private static function kind(ProvenKind $k): array
    {
        return [
            'kind' => $k->promise->kind->value,
            'outcome' => $k->promise->outcome->value,
            'from' => $k->promise->from?->value,
            'asOf' => Rfc3339::formatOrNull($k->promise->asOf),
            'before' => $k->before,
            'there' => $k->there,
            'happened' => $k->happened->value,
            'verdict' => $k->verdict->value,
            'namedLater' => $k->namedLater,
            'compared' => $k->compared,
            'same' => $k->same,
            'changed' => array_map(self::rewritten(...), $k->changed),
            'missing' => array_map(self::item(...), $k->missing),
            'moreMissing' => $k->moreMissing,
            'moreUnnamed' => $k->moreUnnamed,
            'extra' => $k->extra, 'moreExtra' => $k->moreExtra,
        ];
    }

    private static function readKind(Fields $f): ProvenKind
    {
        $kind = $f->enum('kind', Kind::class);
        $promise = new KindFate(
            $kind,
            $f->enum('outcome', Outcome::class),
            $f->maybeEnum('from', Source::class),
            $f->maybeTime('asOf'),
            null,
        );

        return new ProvenKind(
            $promise,
            $f->int('before'),
            $f->int('there'),
            $f->enum('happened', Happened::class),
            $f->enum('verdict', AgainstPromise::class),
            $f->maybeBool('namedLater') ?? false,
            $f->bool('compared'),
            $f->int('same'),
            $f->each('changed', self::readRewritten(...)),
            $f->each('missing', static fn (Fields $i): Item => self::readItem($i, $kind)),
            $f->strings('extra'), $f->int('moreExtra'),
            $f->maybeInt('moreMissing') ?? 0,
            $f->maybeInt('moreUnnamed') ?? 0,
        );
    }

    /** @return array<string, string> */
    private static function rewritten(RewrittenItem $i): array
    {
        return ['path' => $i->path, 'rule' => $i->rule, 'words' => $i->words];
    }

    private static function readRewritten(Fields $f): RewrittenItem
    {
        return new RewrittenItem($f->string('path'), $f->string('rule'), $f->string('words'));
    }

    /** @return array<string, mixed> */
    private static function item(Item $i): array
    {
        return [
            'path' => $i->path,
            'bytes' => $i->bytes,
            'sha256' => $i->sha256,
            'modifiedAt' => Rfc3339::format($i->modifiedAt),
        ];
    }

    private static function readItem(Fields $f, Kind $kind): Item
    {
        return new Item(
            $kind->value,
            $f->string('path'),
            $f->int('bytes'),
            $f->string('sha256'),
            $f->time('modifiedAt'),
        );
    }
}
