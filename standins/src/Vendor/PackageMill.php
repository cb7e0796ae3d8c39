<?php

declare(strict_types=1);

namespace Standins\Vendor;

/**
 * Makes firmware packages: a line that names the format, a line of JSON that says what the package installs, then
 * bytes that are the same each time for one name. Made when first needed; digests are kept beside them.
 */
final readonly class PackageMill
{
    private const CHUNK = 1_048_576;

    /** @param  float  $share  of the size that is usual, for who has no time to wait for it */
    public function __construct(private string $folder, private float $share = 1.0)
    {
        is_dir($folder) || @mkdir($folder, 0o755, true); // another process may be quicker
    }

    /**
     * @param  array<string, mixed>  $head
     * @return array{fileName: string, bytes: int, sha256: string}
     */
    public function package(string $fileName, array $head, int $mebibytes): array
    {
        $file = "{$this->folder}/{$fileName}";
        $begin = self::begin($head);
        $chunks = max(1, (int) round($mebibytes * $this->share));
        if (! $this->has($file, $begin, $chunks)) {
            $this->makeOnce($file, $begin, $chunks);
        }

        return [
            'fileName' => $fileName,
            'bytes' => (int) filesize($file),
            'sha256' => trim((string) file_get_contents("{$file}.sha256")),
        ];
    }

    public function file(string $fileName): ?string
    {
        $file = "{$this->folder}/".basename($fileName);

        return str_ends_with($file, '.fwp') && is_file($file) ? $file : null;
    }

    public function sha256(string $fileName): string
    {
        return trim((string) file_get_contents("{$this->folder}/".basename($fileName).'.sha256'));
    }

    /** @param  array<string, mixed>  $head */
    private static function begin(array $head): string
    {
        return "FWP1\n".json_encode($head, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES)."\n";
    }

    private function has(string $file, string $begin, int $chunks): bool
    {
        return is_file("{$file}.sha256")
            && is_file($file)
            && filesize($file) === strlen($begin) + $chunks * self::CHUNK
            && file_get_contents($file, false, null, 0, strlen($begin)) === $begin;
    }

    private function makeOnce(string $file, string $begin, int $chunks): void
    {
        $lock =
            fopen("{$this->folder}/.lock", 'c') ?: throw new \RuntimeException('The package folder is not writable.');
        flock($lock, LOCK_EX);
        clearstatcache();
        if (! $this->has($file, $begin, $chunks)) {
            $this->make($file, $begin, $chunks);
        }
        fclose($lock);
    }

    private function make(string $file, string $begin, int $chunks): void
    {
        $part = $file.'.'.getmypid();
        $out = fopen($part, 'wb') ?: throw new \RuntimeException('The package folder is not writable.');
        $hash = hash_init('sha256');
        $put = static function (string $bytes) use ($out, $hash): void {
            fwrite($out, $bytes);
            hash_update($hash, $bytes);
        };
        $put($begin);
        $key = hash('sha256', basename($file), true);
        for ($i = 0; $i < $chunks; $i++) {
            $put(
                (string) openssl_encrypt(
                    str_repeat("\0", self::CHUNK),
                    'aes-256-ctr',
                    $key,
                    OPENSSL_RAW_DATA,
                    pack('J2', 0, $i * 65_536),
                ),
            );
        }
        fclose($out);
        file_put_contents("{$file}.sha256", hash_final($hash)."\n");
        rename($part, $file);
    }
}
