<?php

declare(strict_types=1);

namespace Tests\App;

use App\Domain\Footage\Stores;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\Store;
use App\Models\Take;
use App\Models\User;
use Cartella\Core\Time\Ticks;
use Database\Factories\ClipFactory;
use Database\Factories\DeviceFactory;
use Database\Factories\ProductionFactory;
use Database\Factories\ShootDayFactory;
use Database\Factories\TakeFactory;
use Database\Factories\UserFactory;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\RefreshDatabase;
use Illuminate\Foundation\Testing\TestCase as Base;
use Illuminate\Support\Facades\File;

/** The application on a database of its own, with a bench, stores and an inbox in a folder that goes afterwards. */
abstract class TestCase extends Base
{
    use RefreshDatabase;

    protected string $folder;

    protected Production $production;

    protected ShootDay $day;

    /** @var array<string, Device> by letter */
    protected array $devices = [];

    public function createApplication(): Application
    {
        /** @var Application $app */
        $app = require __DIR__ . '/../../bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();

        return $app;
    }

    protected function setUp(): void
    {
        parent::setUp();
        // In memory where there is room: offloads flush whole file systems, and what else writes on this machine's disk is no matter of the
        // tests.
        $root = (float) @disk_free_space('/dev/shm') > 2e9 && is_writable('/dev/shm') ? '/dev/shm' : sys_get_temp_dir();
        $this->folder = $root . '/cartella-app-' . bin2hex(random_bytes(6));
        foreach (['bench', 'one', 'two', 'proxies', 'inbox'] as $name) {
            mkdir($this->folder . '/' . $name, 0777, true);
        }
        config([
            'cartella.var' => $this->folder,
            'cartella.database' => $this->folder,
            'cartella.floor_bytes' => 0,
            'cartella.bench' => $this->folder . '/bench',
            'cartella.proxies' => $this->folder . '/proxies',
            'cartella.scratch' => $this->folder . '/scratch',
            'cartella.uploads' => $this->folder . '/uploads',
            'filesystems.disks.media.root' => $this->folder . '/proxies',
            'cartella.inbox' => $this->folder . '/inbox',
            'cartella.stores' => [
                'one' => ['name' => 'One', 'path' => $this->folder . '/one'],
                'two' => ['name' => 'Two', 'path' => $this->folder . '/two'],
            ],
            'queue.default' => 'sync',
            'cache.default' => 'array',
            'session.driver' => 'array',
            'app.debug' => false,
        ]);
        $this->production = ProductionFactory::new()->createOne();
        $this->day = ShootDayFactory::new()->createOne(['production_id' => $this->production->id]);
        foreach (['A' => 'camera', 'B' => 'camera', 'S' => 'recorder'] as $letter => $kind) {
            $this->devices[$letter] = DeviceFactory::new()->createOne([
                'production_id' => $this->production->id,
                'letter' => $letter,
                'kind' => $kind,
                'lane' => count($this->devices),
            ]);
        }
        // Its volumes are there and marked before anything of a test pulls one out.
        app(Stores::class)->known($this->production);
    }

    /** Puts another folder in the place of one of the production's volumes, as a mounted volume would be. */
    protected function storeAt(string $key, string $path): void
    {
        Store::query()
            ->where('production_id', $this->production->id)
            ->where('key', $key)
            ->sole()
            ->update(['path' => $path, 'mark' => Stores::mark($path, $key)]);
    }

    protected function tearDown(): void
    {
        File::deleteDirectory($this->folder);
        parent::tearDown();
    }

    protected function person(Role $role = Role::Assistant, bool $isMember = true): User
    {
        $user = UserFactory::new()->as($role)->createOne();
        if ($isMember) {
            $this->production->users()->attach($user);
        }

        return $user;
    }

    protected function as(Role $role = Role::Assistant): static
    {
        return $this->actingAs($this->person($role));
    }

    /** An address below the test's production. */
    protected function at(string $path): string
    {
        return "/api/productions/{$this->production->ulid}/$path";
    }

    /** An address below the test's day. */
    protected function onDay(string $path): string
    {
        return $this->at("days/{$this->day->ulid}/$path");
    }

    /** @param  array<string, mixed>  $more */
    protected function take(string $setup, int $take, array $more = []): Take
    {
        return TakeFactory::new()
            ->slate($setup, $take)
            ->createOne($more + $this->ours())
            ->refresh();
    }

    /**
     * @param  float  $at  seconds since midnight
     * @param  array<string, mixed>  $more
     */
    protected function clip(string $name, string $device, float $at, float $seconds = 10, ?Take $take = null, array $more = []): Clip
    {
        $clip = ClipFactory::new()
            ->named($name)
            ->of($this->devices[$device])
            ->ran($at, $seconds)
            ->createOne($more + $this->ours())
            ->refresh();
        if ($take !== null) {
            $clip->parts()->create(['take_id' => $take->id, 'said_by' => 'name']);
        }

        return $clip;
    }

    /** @return array{production_id: int, shoot_day_id: int} */
    protected function ours(): array
    {
        return ['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id];
    }

    protected function place(Clip $clip, float $at, string $way = 'sound', bool $isSure = true): void
    {
        $clip->placement()->create([
            'shoot_day_id' => $this->day->id,
            'group' => 0,
            'start_ticks' => (int) ($at * Ticks::PER_SECOND),
            'way' => $way,
            'confidence' => 0.9,
            'is_sure' => $isSure,
        ]);
    }
}
