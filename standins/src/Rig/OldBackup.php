<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;
use Symfony\Component\HttpFoundation\Response;

/**
 * A backup of a device from some time ago, as somebody may have kept it: a ZIP of a BagIt bag, written here and not by
 * the program under test. It holds what was on the device then.
 */
final class OldBackup
{
    private const KINDS = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'recordings',
        'call-log',
        'app-data',
        'home-layout',
        'settings',
        'wallpaper',
    ];

    /** @param  array<string, mixed>  $body  daysAgo; madeOn, a version; label */
    public static function of(Handset $device, array $body): Response
    {
        $days = $body['daysAgo'] ?? 60;
        $madeOn = $body['madeOn'] ?? '8.6.0';
        (is_numeric($days) && is_string($madeOn))
            || throw new Problem(400, 'bad-field', 'An older backup has daysAgo and madeOn.');
        $at = $device->today - (int) ((float) $days * 86_400);
        $file = tempnam(sys_get_temp_dir(), 'old-backup') ?: throw new \RuntimeException('No room for a file.');
        $zip = new \ZipArchive;
        $zip->open($file, \ZipArchive::OVERWRITE);
        self::fill(
            $zip,
            $device,
            $at,
            $madeOn,
            is_string($body['label'] ?? null)
                ? $body['label']
                : "{$device->state['modelName']} {$device->state['serial']}, before the upgrade",
        );
        $zip->close();
        $bytes = (string) file_get_contents($file);
        unlink($file);

        return new Response($bytes, 200, ['Content-Type' => 'application/zip']);
    }

    private static function fill(\ZipArchive $zip, Handset $device, int $at, string $madeOn, string $label): void
    {
        $top = strtolower($device->state['serial']).'-'.gmdate('Ymd-His', $at);
        [$manifest, $inventory, $octets, $files] = ['', '', 0, 0];
        foreach (self::KINDS as $kind) {
            $lines = [];
            foreach ($device->content()->files($kind) as $path => $item) {
                if ($item->getMTime() <= $at) {
                    $text = (string) file_get_contents($item->getPathname());
                    $zip->addFromString("{$top}/data/{$kind}/{$path}", $text);
                    $manifest .= hash('sha256', $text)."  data/{$kind}/{$path}\n";
                    $lines[] = Handset::json([
                        'kind' => $kind,
                        'path' => (string) $path,
                        'bytes' => strlen($text),
                        'sha256' => hash('sha256', $text),
                        'modifiedAt' => Handset::time($item->getMTime()),
                    ]);
                    [$octets, $files] = [$octets + strlen($text), $files + 1];
                }
            }
            $inventory
                .= implode("\n", [
                    Handset::json([
                        'kind' => $kind,
                        'items' => count($lines),
                        'storeSchema' => $device->state['storeSchemas'][$kind] ?? null,
                    ]),
                    ...$lines,
                ])."\n";
        }
        $info =
            implode("\n", [
                'Bag-Software-Agent: depot script',
                'Bagging-Date: '.gmdate('Y-m-d', $at),
                "External-Identifier: {$top}",
                "Payload-Oxum: {$octets}.{$files}",
                "Device-Serial: {$device->state['serial']}",
                "Hardware-Id: {$device->state['hardwareId']}",
                "OS-Line: {$device->state['osLine']}",
                "Made-On-Version: {$madeOn}",
                "Declared-Version: {$madeOn}",
                'Taken-At: '.Handset::time($at),
                'Encryption: none',
                "Label: {$label}",
            ])."\n";
        $tags = [
            'bagit.txt' => "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n",
            'bag-info.txt' => $info,
            'inventory.jsonl' => $inventory,
            'manifest-sha256.txt' => $manifest,
        ];
        $tagManifest = '';
        foreach ($tags as $name => $text) {
            $zip->addFromString("{$top}/{$name}", $text);
            $tagManifest .= hash('sha256', $text)."  {$name}\n";
        }
        $zip->addFromString("{$top}/tagmanifest-sha256.txt", $tagManifest);
    }
}
