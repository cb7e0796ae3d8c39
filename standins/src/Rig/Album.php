<?php

declare(strict_types=1);

namespace Standins\Rig;

/** Made-up pictures of sea and rocks. Painting takes its time, so that each is kept in a folder once it was made. */
final readonly class Album
{
    /** @param  string  $folder  may be shared by several rigs */
    public function __construct(private string $folder)
    {
    }

    /** @return string a JPEG file's bytes, the same for the same seed */
    public function picture(int $width, int $height, int $seed): string
    {
        $file = "{$this->folder}/{$width}x{$height}-{$seed}.jpg";
        $kept = @file_get_contents($file);
        if ($kept !== false) {
            return $kept;
        }
        $made = self::paint($width, $height, new Dice($seed));
        is_dir($this->folder) || @mkdir($this->folder, 0o755, true);
        $part = $file.'.'.getmypid();
        file_put_contents($part, $made);
        rename($part, $file);

        return $made;
    }

    private static function paint(int $width, int $height, Dice $dice): string
    {
        $image = imagecreatetruecolor($width, $height) ?: throw new \RuntimeException('No picture could be made.');
        $horizon = (int) ($height * (0.4 + $dice->next(25) / 100));
        $dawn = $dice->next(60);
        for ($y = 0; $y < $height; $y++) {
            $sky = $y < $horizon;
            $depth = $sky ? $y / max(1, $horizon) : ($y - $horizon) / max(1, $height - $horizon);
            $colour = $sky
                ? imagecolorallocate(
                    $image,
                    min(255, 120 + $dawn + (int) (70 * $depth)),
                    150 + (int) (60 * $depth),
                    190 + (int) (20 * $depth),
                )
                : imagecolorallocate(
                    $image,
                    30 + (int) (20 * $depth),
                    90 - (int) (40 * $depth),
                    100 - (int) (40 * $depth),
                );
            imageline($image, 0, $y, $width, $y, (int) $colour);
        }
        $rock = (int) imagecolorallocate($image, 60, 62, 58);
        for ($i = 0; $i < 5; $i++) {
            imagefilledellipse(
                $image,
                $dice->next($width),
                $horizon + $dice->next(20),
                30 + $dice->next(150),
                12 + $dice->next(40),
                $rock,
            );
        }
        $foam = (int) imagecolorallocate($image, 220, 230, 228);
        for ($i = 0; $i < 120; $i++) {
            $x = $dice->next($width);
            $y = $horizon + $dice->next($height - $horizon);
            imageline($image, $x, $y, $x + 4 + $dice->next(14), $y, $foam);
        }
        ob_start();
        imagejpeg($image, null, 85);

        return (string) ob_get_clean();
    }
}
