<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\AlmanacChange;
use App\Models\HeldCatalogue;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Almanac\Changes;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * Takes a catalogue in, keeps what it changed in the almanac's history, and has the jobs that it touches planned
 * again.
 */
final readonly class TakeCatalogue
{
    public function __construct(private HeldAlmanac $held, private TouchedJobs $touched, private ClockInterface $clock)
    {
    }

    /** @return list<Change> */
    public function vouched(\stdClass $document, Catalogue $catalogue): array
    {
        return $this->take($document, $catalogue, new HeldCatalogue(['vouched' => true]));
    }

    /** @return list<Change> */
    public function fromFile(
        \stdClass $document,
        Catalogue $catalogue,
        bool $vouched,
        string $fileName,
        string $by,
    ): array {
        return $this->take(
            $document,
            $catalogue,
            new HeldCatalogue(['vouched' => $vouched, 'file_name' => $fileName, 'taken_by' => $by]),
        );
    }

    /** A file's word is taken back; what was held before counts again. */
    public function withdraw(HeldCatalogue $row): void
    {
        $changes = DB::connection()->transaction(function () use ($row): array {
            $before = $this->held->of($row->vendor);
            $row->update(['withdrawn_at' => $this->clock->now()]);

            return $this->note($before, $this->held->of($row->vendor));
        });
        $this->touched->by($changes);
    }

    /**
     * @param  HeldCatalogue  $origin  a row that says whose word it is, and no more
     * @return list<Change>
     */
    private function take(\stdClass $document, Catalogue $catalogue, HeldCatalogue $origin): array
    {
        $changes = DB::connection()->transaction(function () use ($document, $catalogue, $origin): array {
            $before = $this->held->of($catalogue->vendorId);
            $text = json_encode(
                $document,
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
            );
            $row = $origin->fill([
                'vendor' => $catalogue->vendorId,
                'issued_at' => Rfc3339::format($catalogue->issuedAt),
                'fresh_until' => Rfc3339::format($catalogue->freshUntil),
                'document' => $text,
                'turns' => $catalogue->turns(),
            ]);
            // where only the dates are new, the held row gets them; so a quiet vendor does not fill the disk
            if (
                $before !== null
                && $before->vouched
                && $row->vouched
                && $row->file_name === null
                && self::content($before->document) === self::content($text)
            ) {
                $before->update($row->only(['vouched', 'vendor', 'issued_at', 'fresh_until', 'document', 'turns']));

                return [];
            }
            $row->save();

            return $this->note($before, $this->held->of($catalogue->vendorId));
        });
        $this->touched->by($changes);

        return $changes;
    }

    /** @return list<Change> */
    private function note(?HeldCatalogue $before, ?HeldCatalogue $after): array
    {
        if ($before === null || $after === null || $before->id === $after->id) {
            return [];
        }
        $changes = Changes::between($before->catalogue(), $after->catalogue());
        foreach ($changes as $c) {
            AlmanacChange::query()->create([
                'vendor' => $after->vendor,
                'code' => $c->code->value,
                'os_line' => $c->osLine,
                'version' => $c->version,
                'build' => $c->build,
                'hardware_ids' => $c->hardwareIds,
                'words' => mb_substr($c->words, 0, 500),
                'vouched' => $after->vouched,
                'noticed_at' => $this->clock->now(),
            ]);
        }

        return $changes;
    }

    private static function content(string $json): string
    {
        $document = Fields::of(json_decode($json, true, 32, JSON_THROW_ON_ERROR))->all();

        return json_encode(array_diff_key($document, ['issuedAt' => 1, 'freshUntil' => 1]), JSON_THROW_ON_ERROR);
    }
}
