<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Jose;
use Standins\Http\Problem;

/** What a device holds against an install: the permit first, then the package. */
final class InstallJudge
{
    /**
     * @param  array<string, mixed>  $state
     * @param  array<string, string>  $vendorKeys
     * @return array<string, mixed> what the package says it installs
     */
    public static function check(array $state, string $permit, string $packageFile, array $vendorKeys, int $now): array
    {
        $claims = Jose::open($permit, $vendorKeys) ?? throw new Problem(409, 'permit-untrusted', 'The permit is not signed by the vendor.');
        ($claims['exp'] ?? 0) > $now || throw new Problem(409, 'permit-expired', 'The permit has run out.');
        ($claims['sub'] ?? null) === $state['serial'] || throw new Problem(409, 'permit-other-device', 'The permit is for another device.');
        ($claims['hardwareId'] ?? null) === $state['hardwareId'] || throw new Problem(409, 'permit-other-model', 'The permit is for another model.');
        $state['nonce'] !== null && ($claims['nonce'] ?? null) === $state['nonce'] || throw new Problem(409, 'permit-other-nonce', 'The permit answers another question.');
        hash_file('sha256', $packageFile) === ($claims['packageSha256'] ?? null) || throw new Problem(409, 'package-altered', 'The package is not the one that the permit names.');

        return self::head($state, $packageFile, $claims);
    }

    /**
     * @param  array<string, mixed>  $state
     * @param  array<string, mixed>  $claims
     * @return array<string, mixed>
     */
    private static function head(array $state, string $packageFile, array $claims): array
    {
        $file = fopen($packageFile, 'rb') ?: throw new Problem(409, 'package-missing', 'The package cannot be opened.');
        $magic = fgets($file);
        $head = json_decode((string) fgets($file, 65_536), true);
        fclose($file);
        $magic === "FWP1\n" && is_array($head) || throw new Problem(409, 'package-unreadable', 'This is no package.');
        in_array($state['hardwareId'], $head['hardwareIds'], true) || throw new Problem(409, 'wrong-model', 'The package is for another model.');
        $head['build'] === ($claims['build'] ?? null) || throw new Problem(409, 'permit-other-build', 'The permit is for another build.');
        $head['rollbackIndex'] >= $state['rollbackCounter'] || throw new Problem(409, 'rollback-floor', 'The build is below the device\'s rollback counter.');

        return $head;
    }
}
