<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Support;

/** A folder of its own for each test that needs one, gone afterwards. */
trait Folder
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir() . '/cartella-test-' . bin2hex(random_bytes(6));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        self::remove($this->folder);
        parent::tearDown();
    }

    private function file(string $path, string $content): string
    {
        $full = $this->folder . '/' . $path;
        if (!is_dir(dirname($full))) {
            mkdir(dirname($full), 0777, true);
        }
        file_put_contents($full, $content);

        return $full;
    }

    private static function remove(string $path): void
    {
        if (is_dir($path) && !is_link($path)) {
            foreach (array_diff(scandir($path) ?: [], ['.', '..']) as $name) {
                self::remove($path . '/' . $name);
            }
            rmdir($path);
        } else {
            unlink($path);
        }
    }
}
