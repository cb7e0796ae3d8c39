<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Http\Client\Response;
use Illuminate\Support\Facades\Http;
use Symfony\Component\Process\Process;

/** The vendor's service as a stranger sees it: over HTTP, against the standards that it claims. */
final class VendorServiceTest extends FeatureTestCase
{
    /** OpenSSL, which shares no code with us, verifies the catalogue's signature (RFC 7515, RFC 8037). */
    public function test_openssl_verifies_the_signed_catalogue(): void
    {
        [$head, $payload, $signature] = explode('.', $this->vendor('/catalogue')->body());
        $x = $this->vendor('/jwks.json')->json('keys.0.x');
        $folder = self::system()->folder;
        // an Ed25519 public key in DER is this fixed head (RFC 8410) and the 32 bytes of the key
        file_put_contents("{$folder}/key.der", hex2bin('302a300506032b6570032100').self::decode($x));
        file_put_contents("{$folder}/input", "{$head}.{$payload}");
        file_put_contents("{$folder}/signature", self::decode($signature));
        $verify = new Process(
            [
                'openssl',
                'pkeyutl',
                '-verify',
                '-pubin',
                '-inkey',
                'key.der',
                '-keyform',
                'DER',
                '-rawin',
                '-in',
                'input',
                '-sigfile',
                'signature',
            ],
            $folder,
        );

        self::assertSame(0, $verify->run(), $verify->getErrorOutput().$verify->getOutput());
        file_put_contents("{$folder}/input", "{$head}.{$payload}x");
        self::assertNotSame(0, $verify->run());
    }

    /** RFC 9110 section 14: a range gives 206 with its place, one past the end 416; parts make up the whole. */
    public function test_packages_answer_byte_ranges(): void
    {
        $package = $this->heldBuild('8E172')->packages[0];
        $at = substr((string) parse_url($package->url, PHP_URL_PATH), strlen('/brightmere'));
        $whole = $this->vendor((string) $at);
        $half = intdiv($package->bytes, 2);
        $first = $this->vendor((string) $at, ['Range' => 'bytes=0-'.($half - 1)]);
        $rest = $this->vendor((string) $at, ['Range' => "bytes={$half}-"]);

        self::assertSame([200, 206, 206], [$whole->status(), $first->status(), $rest->status()]);
        self::assertSame("bytes {$half}-".($package->bytes - 1).'/'.$package->bytes, $rest->header('Content-Range'));
        self::assertSame($package->sha256, hash('sha256', $first->body().$rest->body()));
        self::assertSame("\"{$package->sha256}\"", $whole->header('ETag'));
        self::assertSame(416, $this->vendor((string) $at, ['Range' => 'bytes='.$package->bytes.'-'])->status());
        self::assertSame(304, $this->vendor((string) $at, ['If-None-Match' => $whole->header('ETag')])->status());
        self::assertSame(404, $this->vendor('/packages/../vault.json')->status());
    }

    /** RFC 9457: a refusal is problem details, with the reason code. */
    public function test_permits_are_refused_with_a_reason(): void
    {
        $package = fn (string $build): string => $this->heldBuild($build)->packages[0]->sha256;
        $ask = static fn (array $change): Response => Http::asJson()->post(
            config('jade.demo_vendors.brightmere.address').'/permits',
            $change + [
                'deviceSerial' => 'SKL-0042',
                'hardwareId' => 'FN7-2',
                'build' => '8G210',
                'packageSha256' => $package('8G210'),
                'nonce' => 'n',
            ],
        );

        self::assertSame(200, $ask([])->status());
        self::assertSame(
            [403, 'wrong-model', 'application/problem+json'],
            [
                $ask(['hardwareId' => 'FN6-1'])->status(),
                $ask(['hardwareId' => 'FN6-1'])->json('code'),
                $ask(['hardwareId' => 'FN6-1'])->header('Content-Type'),
            ],
        );
        self::assertSame(
            'window-closed',
            $ask(['build' => '8F190', 'packageSha256' => $package('8F190')])->json('code'),
        );
        self::assertSame('unknown-package', $ask(['packageSha256' => str_repeat('0', 64)])->json('code'));
        self::assertSame(400, $ask(['nonce' => ''])->status());
    }

    /** @param  array<string, string>  $headers */
    private function vendor(string $path, array $headers = []): Response
    {
        return Http::withHeaders($headers)->get(config('jade.demo_vendors.brightmere.address').$path);
    }

    private static function decode(string $text): string
    {
        return (string) base64_decode(strtr($text, '-_', '+/'), true);
    }
}
