<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\User;
use App\Models\Vendor;
use App\Refusal\Refusal;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Almanac\Changes;
use JadeStep\Core\Exchange\BuildsCsv;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\LineFault;
use JadeStep\Core\Permit\Exception\PermitException;
use JadeStep\Core\Permit\Jws;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * Takes a vendor's word from a file: a catalogue as JSON, a signed one as the network gives it, or builds as a table.
 * Only a signed one is vouched for. First a preview, which stores nothing.
 */
final readonly class ImportCatalogue
{
    private const TABLE_IS_FRESH_HOURS = 24;

    public function __construct(
        private HeldAlmanac $held,
        private VendorKeys $keys,
        private TakeCatalogue $take,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param  string|null  $vendor  whose builds a table names; a catalogue says so itself
     *
     * @throws UnreadableCsv|PermitException|InvalidDocument where nothing of the file can be shown
     */
    public function preview(string $text, ?string $vendor): FilePreview
    {
        $text = trim($text);

        return match (true) {
            preg_match('/\A[\w-]+\.[\w-]+\.[\w-]+\z/', $text) === 1 => $this->signed($text),
            str_starts_with($text, '{') => $this->document($text),
            default => $this->table($text, $vendor),
        };
    }

    /** @return list<Change> */
    public function take(string $text, ?string $vendor, string $fileName, User $by): array
    {
        $preview = $this->preview($text, $vendor);
        if ($preview->faults !== [] || $preview->catalogue === null) {
            throw Refusal::notNow('The file has faults, so nothing of it is taken. Look at the preview.');
        }
        $by->actingRole()->leads()
            || Vendor::query()->whereKey($preview->catalogue->vendorId)->exists()
            || throw Refusal::notNow(
                "{$preview->catalogue->vendorName} is no vendor here yet. A lead adds it in Settings, or takes this "
                    .'in.',
            );
        Vendor::query()->firstOrCreate(
            ['id' => $preview->catalogue->vendorId],
            ['name' => $preview->catalogue->vendorName],
        );

        return $this->take->fromFile($preview->document, $preview->catalogue, $preview->vouched, $fileName, $by->name);
    }

    private function document(string $json): FilePreview
    {
        $catalogue = CatalogueDocument::parse($json);
        $document = json_decode($json);
        assert($document instanceof \stdClass);

        return $this->shown($document, $catalogue, false, []);
    }

    private function signed(string $compact): FilePreview
    {
        $claimed = json_decode((string) base64_decode(strtr(explode('.', $compact)[1], '-_', '+/'), true), true);
        $named = is_array($claimed) ? $claimed['vendor'] ?? null : null;
        $id = is_array($named) ? $named['id'] ?? null : null;
        $vendor =
            Vendor::query()->whereKey(is_string($id) ? $id : '')->first()
            ?? throw Refusal::notNow(
                'No vendor here has accepted keys for this file. Name the vendor in Settings first, or take its '
                    .'catalogue in as plain JSON.',
            );

        $document = Jws::open($compact, $this->keys->accepted($vendor), $this->clock->now());

        return $this->shown($document, CatalogueDocument::fromPayload($document), true, []);
    }

    /** The builds of the table take the place of the held ones of the same name; the others, and all models, stay. */
    private function table(string $csv, ?string $vendor): FilePreview
    {
        $held = $vendor === null ? null : $this->held->of($vendor);
        if ($held === null) {
            throw Refusal::notNow(
                'Say whose builds the table names: a vendor whose catalogue is held, since the models come from there.',
            );
        }
        $now = $this->clock->now();
        $fresh = $now->modify('+'.self::TABLE_IS_FRESH_HOURS.' hours');
        $frame = Fields::of(json_decode($held->document, true, 32, JSON_THROW_ON_ERROR));
        $read = BuildsCsv::read(
            $csv,
            $frame->with('issuedAt', Rfc3339::format($now))->with('freshUntil', Rfc3339::format($fresh)),
        );
        $builds = [...self::byName($frame), ...self::byName($read->document)];
        $json = json_encode($read->document->with('builds', array_values($builds))->all(), JSON_THROW_ON_ERROR);
        $faults = $read->faults;
        unset($builds, $frame, $read);
        $document = json_decode($json);
        assert($document instanceof \stdClass);

        // what is held has passed the gate, and so has each build of the table: together they do
        return $this->shown($document, $faults === [] ? CatalogueDocument::ofHeld($json) : null, false, $faults);
    }

    /** @return array<string, mixed> the builds of a catalogue document */
    private static function byName(Fields $catalogue): array
    {
        $name = static fn (Fields $b): string => "{$b->string('osLine')} {$b->string('version')} {$b->string('build')}";

        return array_combine($catalogue->each('builds', $name), $catalogue->array('builds'));
    }

    /** @param  list<LineFault>  $faults */
    private function shown(\stdClass $document, ?Catalogue $catalogue, bool $vouched, array $faults): FilePreview
    {
        $held = $catalogue === null ? null : $this->held->of($catalogue->vendorId);
        $counts = $catalogue !== null && ($held === null || $catalogue->issuedAt >= $held->issued_at);

        return new FilePreview(
            $document,
            $catalogue,
            $vouched,
            $faults,
            $catalogue === null || $held === null ? [] : Changes::between($held->catalogue(), $catalogue),
            $counts,
        );
    }
}
