<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Support;

use JadeStep\Core\Bag\Internal\Tree;

/** A folder that is gone after the test. */
trait TemporaryFolder
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/jade-step-test-'.bin2hex(random_bytes(6));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        exec('chmod -R u+w '.escapeshellarg($this->folder));
        Tree::remove($this->folder);
        parent::tearDown();
    }
}
