<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Device;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\User;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Time\Ticks;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Fills a scratch database with rows for `./cartella bench lists`: 20 000 clips, 2 000 takes on one of the days. */
final class FillForBench extends Command
{
    protected $signature = 'cartella:bench-fill {--clips=20000}';

    protected $description = 'Fill a scratch database for the bench';

    public function handle(): int
    {
        if (Production::query()->exists()) {
            $this->error('This database holds a production. The bench fills only an empty one.');

            return self::FAILURE;
        }
        $production = Production::query()->create(['name' => 'Bench', 'rate_num' => 25, 'rate_den' => 1]);
        $user = User::query()->create(['name' => 'Bench Person', 'email' => 'bench@lowwater.test', 'password' => 'tide-mill', 'role' => Role::Assistant]);
        $production->users()->attach($user);
        $devices = [];
        foreach (['A' => 'camera', 'B' => 'camera', 'S' => 'recorder'] as $letter => $kind) {
            $devices[$letter] = Device::query()->create(['production_id' => $production->id, 'letter' => $letter, 'kind' => $kind, 'lane' => count($devices)])->id;
        }
        $total = (int) $this->option('clips');
        $made = 0;
        for ($number = 1; $made < $total; $number++) {
            $day = ShootDay::query()->create(['production_id' => $production->id, 'number' => $number, 'date' => now()->addDays($number)->toDateString()]);
            $made += $this->fill($production->id, $day->id, $devices, min($number === 1 ? 2000 : 600, intdiv($total - $made, 3) + 1), $made);
        }
        $this->line("$made clips on ".($number - 1).' days.');

        return self::SUCCESS;
    }

    /** @param  array<string, int>  $devices */
    private function fill(int $production, int $day, array $devices, int $takes, int $from): int
    {
        $rows = [];
        for ($n = 0; $n < $takes; $n++) {
            $scene = (string) (1 + intdiv($n, 200));
            $setup = $scene.['', 'A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'J'][intdiv($n, 20) % 10];
            $rows[] = ['ulid' => (string) Str::ulid(), 'production_id' => $production, 'shoot_day_id' => $day, 'scene' => $scene, 'setup' => $setup, 'take' => $n % 20 + 1, 'sort_key' => SlateOrder::key($setup, $n % 20 + 1), 'description' => "What happens in $setup", 'size' => 'Wide', 'status' => $n % 5 === 0 ? 'circled' : 'none'];
        }
        foreach (array_chunk($rows, 500) as $chunk) {
            DB::table('takes')->insert($chunk);
        }
        $takeIds = DB::table('takes')->where('shoot_day_id', $day)->orderBy('id')->pluck('id');
        $clips = [];
        foreach ($takeIds as $n => $take) {
            foreach ($devices as $letter => $device) {
                $name = sprintf('%s%03dC%04d', $letter, $day % 1000, $n);
                $clips[] = ['ulid' => (string) Str::ulid(), 'production_id' => $production, 'shoot_day_id' => $day, 'device_id' => $device, 'take_id' => $take, 'slate_from' => 'ixml', 'kind' => $letter === 'S' ? 'sound' : 'picture',
                    'name' => $name, 'path' => $name.'.mov', 'path_hash' => md5($name.$from), 'duration_ticks' => 20 * Ticks::PER_SECOND, 'rate_num' => 25, 'rate_den' => 1, 'frames' => 500, 'start_ticks' => (8 * 3600 + 20 * $n) * Ticks::PER_SECOND, 'channels' => '[]', 'facts' => '{}'];
            }
        }
        foreach (array_chunk($clips, 500) as $chunk) {
            DB::table('clips')->insert($chunk);
        }
        DB::statement("INSERT INTO placements (clip_id, shoot_day_id, `group`, start_ticks, way, confidence, is_sure) SELECT id, shoot_day_id, 0, start_ticks, 'sound', 0.95, 1 FROM clips WHERE shoot_day_id = ?", [$day]);

        return count($clips);
    }
}
