<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'bag',
        'Writes, verifies and lowers bags of many small and of some large files, beside openssl and cp on the '
            .'same files',
    ),
]
final class BagMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption('small', null, InputOption::VALUE_REQUIRED, 'How many files of 4 kB', '20000')
            ->addOption('large', null, InputOption::VALUE_REQUIRED, 'How many files of 64 MB', '40');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        ini_set('memory_limit', '128M');
        $folder = sys_get_temp_dir().'/jade-step-measure-'.getmypid();
        mkdir($folder);
        try {
            $this->tree($output, $folder, 'small', (int) $input->getOption('small'), 4096);
            $this->lowering($output, $folder);
            $this->tree($output, $folder, 'large', (int) $input->getOption('large'), 64 * 1024 * 1024);
            $this->encrypted($output, $folder);
        } finally {
            exec('chmod -R u+w '.escapeshellarg($folder).'; rm -rf '.escapeshellarg($folder));
        }
        $output->writeln(sprintf('peak memory of all of it: %.0f MB', memory_get_peak_usage(true) / 1e6));

        return 0;
    }

    private function tree(OutputInterface $output, string $folder, string $name, int $files, int $bytes): void
    {
        $megabytes = $files * $bytes / 1e6;
        exec("head -c {$bytes} /dev/urandom > {$folder}/source");
        $write = self::seconds(static function () use ($folder, $name, $files): void {
            $writer = BagWriter::open("{$folder}/{$name}");
            for ($i = 0; $i < $files; $i++) {
                $stream = fopen("{$folder}/source", 'rb');
                assert($stream !== false);
                $writer->put(
                    'photos',
                    sprintf('%03d/item-%05d', $i % 200, $i),
                    Rfc3339::parse('2026-11-01T12:00:00Z'),
                    $stream,
                );
                fclose($stream);
            }
            $writer->finish(Sample::description($name), ['photos' => 9]);
        });
        $output->writeln(
            sprintf(
                '%s: %d files of %d kB, %.0f MB; backed up in %.1f s: %.0f MB/s, %.0f files/s',
                $name,
                $files,
                $bytes / 1024,
                $megabytes,
                $write,
                $megabytes / $write,
                $files / $write,
            ),
        );
        $cores = (int) shell_exec('nproc');
        // one after the other and twice, so that neither finds a warmer cache
        [$ours, $theirs] = [INF, INF];
        for ($round = 0; $round < 2; $round++) {
            $theirs = min(
                $theirs,
                self::seconds(
                    static fn () => exec(
                        "cd {$folder}/{$name} && find data -type f -print0 | xargs -0 -P {$cores} -n "
                            .max(1, min(400, intdiv($files, $cores * 2)))
                            .' openssl dgst -sha256 > /dev/null',
                    ),
                ),
            );
            $ours = min(
                $ours,
                self::seconds(
                    static fn () => BagVerifier::verify("{$folder}/{$name}")->isSound()
                        || throw new \RuntimeException('The bag is not sound.'),
                ),
            );
        }
        $output->writeln(
            sprintf(
                '  verified in %.2f s: %.0f MB/s, %.0f files/s; openssl dgst on %d cores %.2f s; ratio %.2f',
                $ours,
                $megabytes / $ours,
                $files / $ours,
                $cores,
                $theirs,
                $theirs / $ours,
            ),
        );
    }

    private function lowering(OutputInterface $output, string $folder): void
    {
        [$ours, $theirs] = [INF, INF];
        for ($round = 0; $round < 5; $round++) {
            exec("rm -rf {$folder}/cp {$folder}/low");
            $theirs = min($theirs, self::seconds(static fn () => exec("cp -al {$folder}/small {$folder}/cp")));
            $ours = min(
                $ours,
                self::seconds(
                    static fn () => Lowering::lower(
                        "{$folder}/small",
                        "{$folder}/low",
                        Version::parse('8.7.0'),
                        'low',
                        Rfc3339::parse(Sample::NOW),
                    ),
                ),
            );
        }
        $copied = (int) shell_exec("find {$folder}/low/data -type f -links 1 | wc -l");
        $output->writeln(
            sprintf(
                '  lowered in %.2f s; cp -al %.2f s: %.2f times as long; %d payload files copied',
                $ours,
                $theirs,
                $ours / $theirs,
                $copied,
            ),
        );
        exec("rm -rf {$folder}/cp {$folder}/low");
    }

    private function encrypted(OutputInterface $output, string $folder): void
    {
        $pgp = new OpenPgp("{$folder}/gnupg", Passphrase::parse('harbour light at low tide'));
        $source = "{$folder}/large/data/photos";
        $bytes = 0;
        $write = self::seconds(static function () use ($folder, $pgp, $source, &$bytes): void {
            $writer = EncryptedBagWriter::open("{$folder}/encrypted", $pgp);
            foreach (array_slice(glob("{$source}/*/*") ?: [], 0, 8) as $file) {
                $item = new Item(
                    'photos',
                    basename($file),
                    (int) filesize($file),
                    (string) hash_file('sha256', $file),
                    Rfc3339::parse('2026-11-01T12:00:00Z'),
                );
                $stream = fopen($file, 'rb');
                assert($stream !== false);
                $writer->put($item, $stream);
                $bytes += $item->bytes;
            }
            $writer->finish(Sample::description('encrypted'), ['photos' => 9]);
        });
        $prove = self::seconds(
            static fn () => (new EncryptedContent("{$folder}/encrypted", $pgp))->prove() === []
                || throw new \RuntimeException('The bag does not open whole.'),
        );
        $output->writeln(
            sprintf(
                'encrypted: %.0f MB written in %.1f s: %.0f MB/s; opened and proven in %.1f s: %.0f MB/s',
                $bytes / 1e6,
                $write,
                $bytes / 1e6 / $write,
                $prove,
                $bytes / 1e6 / $prove,
            ),
        );
    }

    /** @param  callable(): mixed  $do */
    private static function seconds(callable $do): float
    {
        $started = microtime(true);
        $do();

        return microtime(true) - $started;
    }
}
