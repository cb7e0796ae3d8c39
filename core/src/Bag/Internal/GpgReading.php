<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\Unopened;

/** What GnuPG tells of a key, in its own lines of fields. */
final class GpgReading
{
    /**
     * @return list<list<string>> the fields of each line; empty where it is no key
     *
     * @throws Unopened where the program does not run
     */
    public static function ofKey(string $armored, string $home): array
    {
        is_dir($home) || mkdir($home, 0o700, true);
        $process = proc_open(
            ['gpg', '--homedir', $home, '--batch', '--quiet', '--no-options', '--with-colons', '--show-keys'],
            [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
            null,
            ['LC_ALL' => 'C', 'PATH' => (string) getenv('PATH')],
        );
        is_resource($process) || throw Unopened::withoutProgram('it could not be started');
        fwrite($pipes[0], $armored);
        fclose($pipes[0]);
        $said = (string) stream_get_contents($pipes[1]);
        fclose($pipes[1]);
        proc_close($process);

        return array_map(
            static fn (string $line): array => explode(':', $line),
            array_values(array_filter(explode("\n", $said), static fn (string $l): bool => $l !== '')),
        );
    }
}
