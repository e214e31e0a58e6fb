<?php

declare(strict_types=1);

namespace Tests\App\Machines;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Storage;
use Tests\App\Support\RealServer;
use Tests\App\TestCase;

/** Media in a bucket: made on one machine, read on another, and given to browsers by signed addresses. */
final class BucketTest extends TestCase
{
    private static ?RealServer $server = null;

    public static function tearDownAfterClass(): void
    {
        self::$server?->end();
        self::$server = null;
        parent::tearDownAfterClass();
    }

    protected function setUp(): void
    {
        parent::setUp();
        self::$server ??= RealServer::s3();
        config([
            'filesystems.disks.media' => [
                'driver' => 's3',
                'key' => 'S3RVER',
                'secret' => 'S3RVER',
                'region' => 'us-east-1',
                'bucket' => 'cartella',
                'endpoint' => 'http://127.0.0.1:' . self::$server->port,
                'use_path_style_endpoint' => true,
                'root' => 'media',
                'throw' => true,
            ],
        ]);
        Storage::forgetDisk(MediaFolder::DISK);
    }

    public function test_what_one_machine_made_another_reads_and_a_browser_gets_by_a_signed_address(): void
    {
        $clip = $this->clip('A001C001', 'A', 100);
        $media = MediaFolder::of($clip);
        self::assertFalse($media->has(MediaFile::Proxy));
        $bytes = random_bytes(200_000);
        file_put_contents($media->write(MediaFile::Proxy), $bytes);
        $media->keep();
        // Another machine has nothing of it in its scratch folder.
        File::deleteDirectory($this->folder . '/scratch');
        self::assertTrue($media->has(MediaFile::Proxy));
        self::assertSame($bytes, file_get_contents($media->read(MediaFile::Proxy)));

        $answer = $this->as()->get($this->at("clips/$clip->ulid/media/proxy"))->assertStatus(302);
        $address = (string) $answer->headers->get('Location');
        self::assertSame($bytes, Http::get($address)->body());
        self::assertSame(
            substr($bytes, 1000, 500),
            Http::withHeaders(['Range' => 'bytes=1000-1499'])
                ->get($address)
                ->body(),
        );
        self::assertMatchesRegularExpression('/X-Amz-Expires=3600\b.*X-Amz-Signature=[0-9a-f]{64}/', $address);
    }

    public function test_a_file_that_was_made_anew_elsewhere_is_fetched_anew(): void
    {
        $clip = $this->clip('A001C001', 'A', 100);
        $media = MediaFolder::of($clip);
        file_put_contents($media->write(MediaFile::Points), 'old');
        $media->keep();
        touch($media->read(MediaFile::Points), time() - 3600);
        Storage::disk(MediaFolder::DISK)->put(substr($clip->ulid, -2) . "/$clip->ulid/points.json", 'new');
        self::assertSame('new', file_get_contents($media->read(MediaFile::Points)));
    }

    public function test_a_store_that_is_too_busy_is_asked_again_until_it_keeps_what_was_made(): void
    {
        $store = RealServer::busyStore(3);
        try {
            $config = static fn(): array => require base_path('config/filesystems.php');
            self::assertSame('local', $config()['disks']['media']['driver'], 'a desk keeps its media on its own disk by itself');
            putenv('CARTELLA_MEDIA=s3');
            $_ENV['CARTELLA_MEDIA'] = $_SERVER['CARTELLA_MEDIA'] = 's3';
            $own = $config()['disks']['media'];
            config([
                'filesystems.disks.media' => [...$own, ...['key' => 'x', 'secret' => 'x', 'endpoint' => "http://127.0.0.1:$store->port"]],
            ]);
            Storage::forgetDisk(MediaFolder::DISK);
            $media = MediaFolder::of($this->clip('A001C001', 'A', 100));
            file_put_contents($media->write(MediaFile::Points), 'found');
            $media->keep();
            File::deleteDirectory($this->folder . '/scratch');
            self::assertSame('found', file_get_contents($media->read(MediaFile::Points)));
        } finally {
            putenv('CARTELLA_MEDIA=local');
            $_ENV['CARTELLA_MEDIA'] = $_SERVER['CARTELLA_MEDIA'] = 'local';
            $store->end();
        }
    }
}
