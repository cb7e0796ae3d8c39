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

    public function __construct(private string $folder)
    {
        is_dir($folder) || mkdir($folder, 0o755, true);
    }

    /**
     * @param  array<string, mixed>  $head
     * @return array{fileName: string, bytes: int, sha256: string}
     */
    public function package(string $fileName, array $head, int $mebibytes): array
    {
        $file = "{$this->folder}/{$fileName}";
        if (! is_file($file) || ! is_file("{$file}.sha256")) {
            $this->make($file, $head, $mebibytes);
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
    private function make(string $file, array $head, int $mebibytes): void
    {
        $part = $file.'.'.getmypid();
        $out = fopen($part, 'wb') ?: throw new \RuntimeException('The package folder is not writable.');
        $hash = hash_init('sha256');
        $put = static function (string $bytes) use ($out, $hash): void {
            fwrite($out, $bytes);
            hash_update($hash, $bytes);
        };
        $put("FWP1\n".json_encode($head, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES)."\n");
        $key = hash('sha256', basename($file), true);
        for ($i = 0; $i < $mebibytes; $i++) {
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
