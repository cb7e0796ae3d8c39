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
    public static function check(
        array $state,
        string $permit,
        string $packageFile,
        bool $keepData,
        array $vendorKeys,
        int $now,
    ): array {
        $claims =
            Jose::open($permit, $vendorKeys)
            ?? throw new Problem(409, 'permit-untrusted', 'The permit is not signed by the vendor.');
        ($claims['exp'] ?? 0) > $now || throw new Problem(409, 'permit-expired', 'The permit has run out.');
        ($claims['sub'] ?? null) === $state['serial']
            || throw new Problem(409, 'permit-other-device', 'The permit is for another device.');
        ($claims['hardwareId'] ?? null) === $state['hardwareId']
            || throw new Problem(409, 'permit-other-model', 'The permit is for another model.');
        ($state['nonce'] !== null && ($claims['nonce'] ?? null) === $state['nonce'])
            || throw new Problem(409, 'permit-other-nonce', 'The permit answers another question.');
        hash_file('sha256', $packageFile) === ($claims['packageSha256'] ?? null)
            || throw new Problem(409, 'package-altered', 'The package is not the one that the permit names.');

        $head = self::head($state, $packageFile, $claims);
        $keepData
            ? self::inPlace($state, $head)
            : ($head['eraseInstall'] ?? true)
                || throw new Problem(409, 'in-place-only', 'The build is installed in place only.');

        return $head;
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
        ($magic === "FWP1\n" && is_array($head)) || throw new Problem(409, 'package-unreadable', 'This is no package.');
        in_array($state['hardwareId'], $head['hardwareIds'], true)
            || throw new Problem(409, 'wrong-model', 'The package is for another model.');
        $head['build'] === ($claims['build'] ?? null)
            || throw new Problem(409, 'permit-other-build', 'The permit is for another build.');
        $head['rollbackIndex'] >= $state['rollbackCounter']
            || throw new Problem(409, 'rollback-floor', 'The build is below the device\'s rollback counter.');

        return $head;
    }

    /**
     * @param  array<string, mixed>  $state
     * @param  array<string, mixed>  $head
     */
    private static function inPlace(array $state, array $head): void
    {
        $state['wiped']
            && ! $state['bootable']
            && throw new Problem(
                409,
                'not-bootable',
                'The device runs nothing that a build could be put in the place of.',
            );
        $up = version_compare($head['version'], $state['version'], '>');
        $range = $up ? $head['inPlaceFrom'] ?? null : $head['stepDownFrom'] ?? null;
        ($range !== null && self::within($state['version'], $range))
            || throw new Problem(
                409,
                $up ? 'not-accepted-in-place' : 'not-accepted-step-down',
                "The build does not go in the place of {$state['version']}.",
            );
    }

    /** The ranges of the stand-ins are comparisons that all have to hold, for instance `>=8.0 <8.7`. */
    private static function within(string $version, string $range): bool
    {
        $full = static fn (string $v): string => (string) preg_replace_callback(
            '/\A\d+(\.\d+){0,2}/',
            static fn (array $m): string => $m[0].str_repeat('.0', 2 - substr_count($m[0], '.')),
            $v,
        );
        foreach (preg_split('/\s+/', trim($range)) ?: [] as $part) {
            preg_match('/\A(>=|<=|>|<|=)?(.+)\z/', $part, $m);
            if (! version_compare($full($version), $full($m[2] ?? ''), ($m[1] ?? '') === '' ? '=' : $m[1])) {
                return false;
            }
        }

        return true;
    }
}
