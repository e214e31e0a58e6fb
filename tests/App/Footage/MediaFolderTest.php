<?php

declare(strict_types=1);

namespace Tests\App\Footage;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use Illuminate\Filesystem\FilesystemAdapter;
use Illuminate\Support\Facades\Storage;
use League\Flysystem\Filesystem;
use League\Flysystem\Local\LocalFilesystemAdapter;
use Tests\App\TestCase;

/** The media of a clip on this machine, and on a disk that is elsewhere: what is no local disk is handled as one that is not. */
final class MediaFolderTest extends TestCase
{
    /** A disk of which only streams go in and out, as of one that is far away. */
    private function elsewhere(): void
    {
        $far = new class ($this->folder . '/far') implements \League\Flysystem\FilesystemAdapter {
            private readonly LocalFilesystemAdapter $files;

            public function __construct(string $root)
            {
                $this->files = new LocalFilesystemAdapter($root);
            }

            public function fileExists(string $path): bool
            {
                return $this->files->fileExists($path);
            }

            public function directoryExists(string $path): bool
            {
                return $this->files->directoryExists($path);
            }

            public function write(string $path, string $contents, \League\Flysystem\Config $config): void
            {
                $this->files->write($path, $contents, $config);
            }

            public function writeStream(string $path, $contents, \League\Flysystem\Config $config): void
            {
                $this->files->writeStream($path, $contents, $config);
            }

            public function read(string $path): string
            {
                return $this->files->read($path);
            }

            public function readStream(string $path)
            {
                return $this->files->readStream($path);
            }

            public function delete(string $path): void
            {
                $this->files->delete($path);
            }

            public function deleteDirectory(string $path): void
            {
                $this->files->deleteDirectory($path);
            }

            public function createDirectory(string $path, \League\Flysystem\Config $config): void
            {
                $this->files->createDirectory($path, $config);
            }

            public function setVisibility(string $path, string $visibility): void {}

            public function visibility(string $path): \League\Flysystem\FileAttributes
            {
                return $this->files->visibility($path);
            }

            public function mimeType(string $path): \League\Flysystem\FileAttributes
            {
                return $this->files->mimeType($path);
            }

            public function lastModified(string $path): \League\Flysystem\FileAttributes
            {
                return $this->files->lastModified($path);
            }

            public function fileSize(string $path): \League\Flysystem\FileAttributes
            {
                return $this->files->fileSize($path);
            }

            public function listContents(string $path, bool $deep): iterable
            {
                return $this->files->listContents($path, $deep);
            }

            public function move(string $source, string $destination, \League\Flysystem\Config $config): void
            {
                $this->files->move($source, $destination, $config);
            }

            public function copy(string $source, string $destination, \League\Flysystem\Config $config): void
            {
                $this->files->copy($source, $destination, $config);
            }
        };
        $disk = new FilesystemAdapter(new Filesystem($far), $far, ['throw' => true]);
        $disk->buildTemporaryUrlsUsing(fn(string $path): string => "https://far.example/$path?signed");
        Storage::set(MediaFolder::DISK, $disk);
    }

    public function test_on_this_machine_a_file_is_where_it_was_written_and_nginx_is_told(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $media = MediaFolder::of($clip);
        self::assertFalse($media->has(MediaFile::Proxy));
        file_put_contents($media->write(MediaFile::Proxy), 'pictures');
        self::assertSame('pictures', file_get_contents($media->read(MediaFile::Proxy)));
        $this->as()
            ->get($this->at("clips/$clip->ulid/media/proxy"))
            ->assertOk()
            ->assertHeader('X-Accel-Redirect', '/protected/' . substr($clip->ulid, -2) . "/$clip->ulid/proxy.2.mp4");
    }

    public function test_elsewhere_it_is_made_in_scratch_sent_on_and_fetched_again_by_a_machine_that_has_it_not(): void
    {
        $this->elsewhere();
        $clip = $this->clip('A001C001', 'A', 0);
        $media = MediaFolder::of($clip);
        file_put_contents($media->write(MediaFile::Guide), 'sound');
        file_put_contents($media->folder() . '/guide.shape', 'shape');
        file_put_contents($media->folder() . '/proxy.part.mp4', 'half');
        self::assertFalse($media->has(MediaFile::Guide), 'nobody else has it yet');
        $media->keep();
        self::assertTrue($media->has(MediaFile::Guide));
        array_map(unlink(...), glob($media->folder() . '/*') ?: []);
        self::assertSame('sound', file_get_contents($media->read(MediaFile::Guide)));
        self::assertSame('shape', file_get_contents($media->folder() . '/guide.shape'));
        self::assertFileDoesNotExist($this->folder . '/far/' . substr($clip->ulid, -2) . "/$clip->ulid/proxy.part.mp4");
        self::assertFileDoesNotExist($this->folder . '/proxies/' . substr($clip->ulid, -2) . "/$clip->ulid/guide");
    }

    public function test_a_browser_is_sent_to_a_signed_address_of_a_disk_that_is_elsewhere(): void
    {
        $this->elsewhere();
        $clip = $this->clip('A001C001', 'A', 0);
        $media = MediaFolder::of($clip);
        $this->as()->get($this->at("clips/$clip->ulid/media/proxy"))->assertNotFound();
        file_put_contents($media->write(MediaFile::Proxy), 'pictures');
        $media->keep();
        $this->get($this->at("clips/$clip->ulid/media/proxy"))
            ->assertStatus(302)
            ->assertHeader('Location', 'https://far.example/' . substr($clip->ulid, -2) . "/$clip->ulid/proxy.2.mp4?signed");
    }
}
