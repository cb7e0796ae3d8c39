<?php

declare(strict_types=1);

namespace Standins\Rig;

/** Made-up content that is real in form: pictures, cards, rosters, notes, messages. The same for the same device. */
final class DemoContent
{
    private const CREW = [
        'Una Marsh',
        'Teo Lind',
        'Brit Hale',
        'Oskar Rey',
        'Maren Dow',
        'Ivo Stone',
        'Signe Park',
        'Lars Quay',
        'Nell Ferris',
        'Aud Holm',
        'Per Wick',
        'Ina Strand',
    ];

    private const PLACES = ['North Skerry', 'Gull Pier', 'Harbour Light', 'West Sound', 'Otter Bay', 'Kelp Landing'];

    private Dice $dice;

    private function __construct(
        private readonly Album $album,
        private readonly string $folder,
        string $seed,
        private readonly int $now,
    ) {
        $this->dice = new Dice(crc32($seed));
    }

    /**
     * Fills the folder with every kind that the device holds.
     *
     * @param  float  $share  of how much there usually is of the other kinds
     */
    public static function make(
        Album $album,
        string $folder,
        string $seed,
        int $photos,
        int $now,
        float $share = 1.0,
    ): void {
        $maker = new self($album, $folder, $seed, $now);
        $many = static fn (int $usual): int => max(1, (int) round($usual * $share));
        $maker->photos($photos);
        $maker->contacts($many(64));
        $maker->calendars($many(10));
        $maker->notes($many(24));
        $maker->messages($many(18));
        $maker->recordings($many(5));
        $maker->others();
    }

    private function photos(int $count): void
    {
        for ($i = 1; $i <= $count; $i++) {
            $album = 1 + intdiv($i, 60);
            $this->put('photos', sprintf('album-%02d/deck-%04d.jpg', $album, $i), $this->picture(480, 320));
        }
        $this->put('wallpaper', 'home.jpg', $this->picture(720, 1280));
    }

    private function picture(int $width, int $height): string
    {
        return $this->album->picture($width, $height, $this->dice->next(PHP_INT_MAX));
    }

    private function contacts(int $count): void
    {
        for ($i = 1; $i <= $count; $i++) {
            [$first, $last] = explode(' ', self::CREW[$i % 12]);
            $this->put(
                'contacts',
                sprintf('card-%03d.vcf', $i),
                implode("\r\n", [
                    'BEGIN:VCARD',
                    'VERSION:4.0',
                    sprintf('UID:urn:skl:%04d', $i),
                    "FN:{$first} {$last} {$i}",
                    "N:{$last};{$first};;;",
                    sprintf('TEL;TYPE=cell:+00 555 01%03d', $i),
                    'ORG:Skerry Line',
                    'END:VCARD',
                    '',
                ]),
            );
        }
    }

    private function calendars(int $count): void
    {
        for ($i = 1; $i <= $count; $i++) {
            $lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Skerry Line//Roster//EN'];
            for ($day = 1; $day <= 12; $day++) {
                $date = gmdate('Ymd', $this->now + (($i - 5) * 14 + $day) * 86_400);
                array_push(
                    $lines,
                    'BEGIN:VEVENT',
                    "UID:roster-{$i}-{$day}@skerry.example",
                    "DTSTAMP:{$date}T050000Z",
                    "DTSTART:{$date}T060000Z",
                    "DTEND:{$date}T140000Z",
                    'SUMMARY:Deck watch '.$this->place(),
                    'END:VEVENT',
                );
            }
            $this->put('calendars', sprintf('roster-%02d.ics', $i), implode("\r\n", [...$lines, 'END:VCALENDAR', '']));
        }
    }

    private function notes(int $count): void
    {
        for ($i = 1; $i <= $count; $i++) {
            $this->put(
                'notes',
                sprintf('note-%02d.md', $i),
                "# {$this->place()}\n\n- Lines checked by {$this->crew()}\n- Ramp hydraulics: "
                    .(180 + $this->dice->next(20))
                    ." bar\n- Ask {$this->crew()} about locker {$i}\n",
            );
        }
    }

    private function messages(int $count): void
    {
        for ($i = 1; $i <= $count; $i++) {
            $lines = '';
            for ($m = 0, $many = 10 + $this->dice->next(40); $m < $many; $m++) {
                $lines
                    .= json_encode(
                        [
                            'from' => $this->crew(),
                            'sentAt' => gmdate('Y-m-d\TH:i:s\Z', $this->now - $this->dice->next(90 * 86_400)),
                            'text' => 'Crossing to '
                                .$this->place()
                                .' at '
                                .sprintf('%02d:%02d', $this->dice->next(24), $this->dice->next(60))
                                .', berth '
                                .$this->dice->next(9),
                        ],
                        JSON_THROW_ON_ERROR,
                    )."\n";
            }
            $this->put('messages', sprintf('thread-%02d.jsonl', $i), $lines);
        }
    }

    private function recordings(int $count): void
    {
        for ($i = 1; $i <= $count; $i++) {
            $samples = '';
            for ($n = 0; $n < 16_000; $n++) {
                $samples .= chr(128 + (int) (60 * sin($n / (10 + $i))));
            }
            $head =
                'RIFF'
                .pack('V', 36 + strlen($samples))
                .'WAVEfmt '
                .pack('VvvVVvv', 16, 1, 1, 8000, 8000, 1, 8)
                .'data'
                .pack('V', strlen($samples));
            $this->put('recordings', sprintf('bridge-%02d.wav', $i), $head.$samples);
        }
    }

    private function others(): void
    {
        $calls = "when,direction,number,seconds\r\n";
        for ($i = 0; $i < 120; $i++) {
            $calls
                .= gmdate('Y-m-d\TH:i:s\Z', $this->now - $i * 7_000)
                .($i % 3 === 0 ? ',in' : ',out')
                .sprintf(',+00 555 01%03d,%d', $this->dice->next(64), $this->dice->next(600))
                ."\r\n";
        }
        $this->put('call-log', 'calls.csv', $calls);
        foreach (['tide-table', 'ticket-scanner'] as $app) {
            for ($i = 1; $i <= 8; $i++) {
                $this->put('app-data', "{$app}/record-{$i}.bin", $this->noise(6_000));
            }
        }
        foreach (['sounds', 'display', 'keyboard', 'network'] as $name) {
            $this->put(
                'settings',
                "user/{$name}.json",
                json_encode(['area' => $name, 'level' => $this->dice->next(100)], JSON_THROW_ON_ERROR),
            );
        }
        $this->put('saved-passwords', 'vault.bin', $this->noise(2_000));
        $this->put('health', 'steps.bin', $this->noise(3_000));
        $this->put('payment-cards', 'card-1.bin', $this->noise(256));
        $this->put('sign-ins', 'harbour-bank.json', '{"account":"crew"}');
        $this->put('sign-ins', 'mail.json', '{"account":"deck"}');
        $this->put('esim', 'profile-1.bin', $this->noise(512));
    }

    private function put(string $kind, string $path, string $content): void
    {
        $file = "{$this->folder}/{$kind}/{$path}";
        is_dir(dirname($file)) || mkdir(dirname($file), 0o755, true);
        file_put_contents($file, $content);
        touch($file, $this->now - 3_600 - $this->dice->next(200 * 86_400));
    }

    private function noise(int $bytes): string
    {
        $text = '';
        while (strlen($text) < $bytes) {
            $text .= hash('sha256', (string) $this->dice->next(PHP_INT_MAX), true);
        }

        return substr($text, 0, $bytes);
    }

    private function crew(): string
    {
        return self::CREW[$this->dice->next(12)];
    }

    private function place(): string
    {
        return self::PLACES[$this->dice->next(6)];
    }
}
