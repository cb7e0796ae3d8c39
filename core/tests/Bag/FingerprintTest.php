<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fingerprint;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use PHPUnit\Framework\TestCase;

final class FingerprintTest extends TestCase
{
    use TemporaryFolder;

    public function test_it_is_the_digest_of_the_tag_manifests_lines_as_coreutils_write_them(): void
    {
        Sample::bag("{$this->folder}/a");
        $lines = (string) shell_exec("cd {$this->folder}/a && sha256sum tagmanifest-sha256.txt");
        self::assertSame(hash('sha256', $lines), Fingerprint::of("{$this->folder}/a"));
    }

    public function test_a_copy_has_the_same_and_one_byte_of_a_tag_file_listed_anew_another(): void
    {
        Sample::bag("{$this->folder}/a");
        exec("cp -a {$this->folder}/a {$this->folder}/b");
        self::assertSame(Fingerprint::of("{$this->folder}/a"), Fingerprint::of("{$this->folder}/b"));

        exec("chmod -R u+w {$this->folder}/b");
        file_put_contents("{$this->folder}/b/tagmanifest-sha512.txt", str_repeat('0', 128)."  bag-info.txt\n");
        self::assertNotSame(Fingerprint::of("{$this->folder}/a"), Fingerprint::of("{$this->folder}/b"));
    }

    public function test_a_folder_that_lists_nothing_has_none(): void
    {
        $this->expectException(NotABag::class);
        Fingerprint::of($this->folder);
    }
}
