<?php

declare(strict_types=1);

namespace Tests\App\Machines;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Handoff\Back\PullJob;
use App\Domain\Handoff\Back\PullOriginals;
use App\Domain\Handoff\Delivery;
use App\Models\Handoff;
use App\Models\Role;
use App\Models\Task;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Storage;
use Tests\App\Support\RealServer;
use Tests\App\TestCase;

/** Media and packages in a bucket: made on one machine, read on another, and given to browsers by signed addresses. */
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
        $bucket = static fn(string $root): array => [
            'driver' => 's3',
            'key' => 'S3RVER',
            'secret' => 'S3RVER',
            'region' => 'us-east-1',
            'bucket' => 'cartella',
            'endpoint' => 'http://127.0.0.1:' . self::$server->port,
            'use_path_style_endpoint' => true,
            'root' => $root,
            'throw' => true,
        ];
        config(['filesystems.disks.media' => $bucket('media'), 'filesystems.disks.packages' => $bucket('packages')]);
        Storage::forgetDisk([MediaFolder::DISK, Delivery::DISK]);
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

    public function test_a_package_is_handed_off_opened_read_by_a_signed_address_and_accepted(): void
    {
        $clip = $this->clip('A001C001', 'A', 100, more: ['proxied_at' => now()]);
        file_put_contents(MediaFolder::of($clip)->write(MediaFile::Proxy), 'pictures');
        MediaFolder::of($clip)->keep();
        $choice = ['days' => [$this->day->ulid], 'bins' => []];
        $points = $this->as(Role::Admin)->postJson($this->at('handoffs/plan'), $choice)->json('points');
        $waived = array_map(static fn(array $one): array => ['day' => $one['day'], 'point' => $one['key'], 'reason' => 'known'], $points);
        $ulid = $this->postJson($this->at('handoffs'), $choice + ['waived' => $waived])
            ->assertStatus(202)
            ->json('ulid');
        $handoff = Handoff::query()->where('ulid', $ulid)->sole();
        self::assertSame('delivered', $handoff->state, json_encode(Task::query()->where('kind', 'package')->value('result')) ?: '');
        self::assertSame([], File::allFiles("$this->folder/scratch/packages"), 'nothing of it stays on this machine');
        self::assertDirectoryDoesNotExist("$this->folder/inbox/$handoff->folder");

        // Another machine has nothing of it.
        File::deleteDirectory("$this->folder/scratch");
        $files = array_column($this->getJson($this->at("handoffs/$ulid"))->assertOk()->json('files'), 'bytes', 'path');
        self::assertSame(count($files), $handoff->summary['files']);
        $proxy = array_values(preg_grep('~^proxies/~', array_keys($files)) ?: [])[0] ?? '';
        self::assertSame(8, $files[$proxy] ?? null);
        $given = fn(string $path) => $this->get($this->at("handoffs/$ulid/file?path=" . rawurlencode($path)));
        $readme = Http::get((string) $given('README.pdf')->assertStatus(302)->headers->get('Location'));
        self::assertSame(['%PDF', 'application/pdf'], [substr($readme->body(), 0, 4), $readme->header('Content-Type')]);
        self::assertStringContainsString('inline', $readme->header('Content-Disposition'));
        $given('../packages')->assertStatus(404);

        // What somebody changed in the bucket is found, though it is as long as it was.
        $place = "$handoff->folder/$proxy";
        Storage::disk(Delivery::DISK)->put($place, 'PICTURES');
        $accept = fn() => $this->postJson($this->at("handoffs/$ulid/accept"))->json('state');
        self::assertSame('delivered', $accept());
        self::assertStringContainsString(
            'A001C001.mp4',
            Task::query()->where('kind', 'accept')->latest('id')->firstOrFail()->result['message'],
        );
        Storage::disk(Delivery::DISK)->put($place, 'pictures');
        self::assertSame('accepted', $accept());
    }

    /** What lies in scratch of a run that was killed before it had sent it. */
    private static function made(Delivery $delivery): void
    {
        File::ensureDirectoryExists("{$delivery->folder()}/takes");
        $entries = [];
        foreach (['takes/one.otio' => 'one', 'two.wav' => random_bytes(100_000), 'package.json' => '{}'] as $path => $bytes) {
            file_put_contents("{$delivery->folder()}/$path", $bytes);
            $hash = HashAlgorithm::Xxh128->of($bytes);
            $entries[] = new ManifestEntry($path, strlen($bytes), 1_790_000_000, HashAlgorithm::Xxh128, $hash, 'original', 1_790_000_000);
        }
        Manifest::write($delivery->folder(), $entries, 'transfer', HashAlgorithm::Xxh128, 1_790_000_000);
    }

    public function test_a_pull_that_was_killed_while_it_was_sent_goes_on_and_ends(): void
    {
        $cut = StoredSequenceFactory::new()->createOne(['production_id' => $this->production->id, 'name' => 'Scene 3']);
        $task = Task::query()->create([
            'production_id' => $this->production->id,
            'kind' => 'pull',
            'title' => 'Pull the originals of Scene 3',
            'state' => 'waiting',
            'subject' => ['sequence' => $cut->id, 'handles' => 0, 'trimmed' => false, 'made' => '2026-10-05 190000'],
        ]);
        $delivery = PullOriginals::delivery($task, $cut);
        self::made($delivery);
        app()->call([new PullJob($task->id), 'handle']);
        self::assertSame('done', $task->refresh()->state, json_encode($task->result) ?: '');
        self::assertTrue($delivery->verify(static fn() => null)['ok']);
    }

    public function test_a_package_that_was_sent_in_part_is_no_package_and_goes_on_where_it_was(): void
    {
        $delivery = Delivery::at('Low Water/Day 1');
        self::made($delivery);
        foreach ([1, 2, 3, 4] as $die) {
            try {
                $delivery->send(static function () use (&$die): void {
                    --$die > 0 || throw new \RuntimeException('killed');
                });
                self::fail('it was to be killed');
            } catch (\RuntimeException $killed) {
                self::assertSame('killed', $killed->getMessage());
            }
            self::assertFalse($delivery->isThere());
        }
        $delivery->send(static fn(string $path) => null);
        self::assertTrue($delivery->isThere());
        self::assertDirectoryDoesNotExist($delivery->folder());
        self::assertTrue($delivery->verify(static fn() => null)['ok']);
    }

    public function test_a_store_that_is_not_there_is_said_in_a_sentence_and_leaves_the_rest(): void
    {
        $clip = $this->clip('A001C001', 'A', 100, more: ['proxied_at' => now()]);
        $handoff = Handoff::query()->create([
            'production_id' => $this->production->id,
            ...[
                'number' => 1,
                'title' => 'Day 1',
                'chosen' => [],
                'folder' => 'Low Water/Day 1',
                'state' => 'delivered',
                'delivered_at' => now(),
            ],
        ]);
        foreach ([MediaFolder::DISK, Delivery::DISK] as $disk) {
            config(["filesystems.disks.$disk.endpoint" => 'http://127.0.0.1:9', "filesystems.disks.$disk.retries" => 0]);
            Storage::forgetDisk($disk);
        }
        foreach (["clips/$clip->ulid/media/proxy", "handoffs/$handoff->ulid/file?path=README.pdf"] as $address) {
            $this->as()->get($this->at($address))->assertStatus(503)->assertJsonPath('code', 'store.away');
        }
        $this->getJson($this->at('handoffs'))->assertOk();
        $this->getJson($this->at("clips/$clip->ulid"))->assertOk();
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
