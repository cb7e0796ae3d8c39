<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/**
 * Takes the SHA-256 of what passes by: with OpenSSL's library where it can be called (on the command line, and so in
 * the workers), which is ten times as fast as the hash extension that takes its place elsewhere.
 */
final class RunningDigest
{
    private const LIBRARY = 'libcrypto.so.3';

    private const DECLARED = <<<'C'
        void *EVP_MD_CTX_new(void);
        void EVP_MD_CTX_free(void *ctx);
        const void *EVP_sha256(void);
        int EVP_DigestInit_ex(void *ctx, const void *type, void *engine);
        int EVP_DigestUpdate(void *ctx, const char *data, size_t bytes);
        int EVP_DigestFinal_ex(void *ctx, unsigned char *digest, unsigned int *size);
        C;

    private static \FFI|false|null $library = null;

    private function __construct(private ?\HashContext $hash, private ?\FFI\CData $context)
    {
    }

    /** @param  string  $algorithm  another than SHA-256 is always the extension's */
    public static function begin(string $algorithm = 'sha256'): self
    {
        $library = $algorithm === 'sha256' ? self::library() : null;
        $context = $library?->EVP_MD_CTX_new();

        return $library === null
            || $context === null
            || $library->EVP_DigestInit_ex($context, $library->EVP_sha256(), null) !== 1
            ? new self(hash_init($algorithm), null)
            : new self(null, $context);
    }

    public function add(string $text): void
    {
        if ($this->context !== null) {
            self::library()?->EVP_DigestUpdate($this->context, $text, strlen($text));
        } elseif ($this->hash !== null) {
            hash_update($this->hash, $text);
        }
    }

    /** @return string hex digits, of SHA-256 64; it can be asked for once */
    public function end(): string
    {
        $library = self::library();
        if ($this->context !== null && $library !== null) {
            $digest = $library->new('unsigned char[32]') ?? throw new \LogicException('32 bytes are there.');
            $library->EVP_DigestFinal_ex($this->context, $digest, null);

            return bin2hex(\FFI::string($digest, 32));
        }
        $hash = $this->hash ?? throw new \LogicException('A digest is asked for once.');
        $this->hash = null;

        return hash_final($hash);
    }

    public function __destruct()
    {
        if ($this->context !== null) {
            self::library()?->EVP_MD_CTX_free($this->context);
        }
    }

    private static function library(): ?\FFI
    {
        if (self::$library === null) {
            try {
                self::$library = PHP_SAPI === 'cli' && class_exists(\FFI::class)
                    ? \FFI::cdef(self::DECLARED, self::LIBRARY)
                    : false;
            } catch (\FFI\Exception) {
                self::$library = false;
            }
        }

        return self::$library === false ? null : self::$library;
    }
}
