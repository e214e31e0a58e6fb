<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Footage\ClipMedia;
use App\Domain\Lineup\CheckPoints;
use App\Domain\Screening\BuildReel;
use App\Domain\Screening\ReelBegin;
use App\Domain\Screening\ReelFrom;
use App\Domain\Screening\ReelRecipe;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Time\Ticks;
use Illuminate\Console\Command;

/**
 * A reel of two hundred takes for the bench of the screening. Their pictures carry their frame's number below and flash above, and
 * beep with the flash; the media are made once and shared, each clip under an address of its own.
 */
final class FillScreeningBench extends Command
{
    protected $signature = 'cartella:bench-screening {folder}';

    protected $description = 'Fill a scratch database for the bench of the screening';

    public const TAKES = 200;

    public const FRAMES = 225;

    /** Frame at which a take flashes and beeps. */
    public const FLASH = 100;

    private const BITS = 12;

    public function handle(ClipMedia $media, CheckPoints $points, BuildReel $build): int
    {
        $bench = BenchDay::begin();
        if ($bench === null) {
            $this->error('This database holds a production. The bench fills only an empty one.');

            return self::FAILURE;
        }
        [$production, $day, $user] = [$bench->production, $bench->day, $bench->user];
        $source = $this->source((string) $this->argument('folder'));
        $device = Device::query()->create(['production_id' => $production->id, 'letter' => 'A', 'kind' => 'camera', 'lane' => 0]);
        $first = null;
        for ($n = 1; $n <= self::TAKES; $n++) {
            $clip = Clip::query()
                ->create([
                    'production_id' => $production->id,
                    'shoot_day_id' => $day->id,
                    'device_id' => $device->id,
                    'kind' => 'picture',
                    'name' => sprintf('A001C%03d', $n),
                    'path' => "$n.mov",
                    'path_hash' => md5("$n"),
                    'duration_ticks' => Ticks::ofFrames(self::FRAMES, $production->rate()),
                    'rate_num' => 25,
                    'rate_den' => 1,
                    'frames' => self::FRAMES,
                    'start_ticks' => (9 * 3600 + 20 * $n) * Ticks::PER_SECOND,
                    'sample_rate' => 48_000,
                    'channels' => [['index' => 1, 'name' => 'Mic', 'function' => null]],
                    'facts' => $first === null ? ['audio_streams' => [1]] : $first->facts,
                    // As on a day: what was looked for in the media is newer than they are.
                    'proxied_at' => $first->proxied_at ?? now(),
                ])
                ->refresh();
            if ($first === null) {
                $first = $clip;
                $media->make($clip, [$source]);
                // As the desk does when media are made.
                $points->find($clip);
            } else {
                BenchDay::share($first, $clip);
            }
            $setup = (string) (1 + intdiv($n - 1, 5));
            $number = 1 + (($n - 1) % 5);
            $take = Take::query()->create([
                'production_id' => $production->id,
                'shoot_day_id' => $day->id,
                'scene' => $setup,
                'setup' => $setup,
                'take' => $number,
                'sort_key' => SlateOrder::key($setup, $number),
            ]);
            TakePart::query()->create(['take_id' => $take->id, 'clip_id' => $clip->id, 'said_by' => 'name']);
        }
        $begin = hrtime(true);
        $reel = $build($day, $user, 'Two hundred', new ReelRecipe(ReelFrom::Days, [$day->ulid], false, begin: ReelBegin::Whole));
        $this->line(sprintf('reel %s built %.0f', $reel->ulid, (hrtime(true) - $begin) / 1e6));

        return self::SUCCESS;
    }

    private function source(string $folder): string
    {
        // Noise over a room that moves: a tone, and a room where nothing happens, would not be heard.
        $file = $folder . '/numbered-3.mov';
        if (!is_file($file)) {
            $columns = BenchDay::columns(self::BITS);
            $flash = sprintf('if(between(N\\,%d\\,%d)\\,235\\,16)', self::FLASH, self::FLASH + 1);
            $at = self::FLASH / 25;
            BenchDay::ffmpeg([
                ...['-f', 'lavfi', '-i', 'color=black:size=960x540:rate=25'],
                ...['-f', 'lavfi', '-i', "aevalsrc='(random(0)-0.5)*(0.07*abs(sin(7*t))+1.2*between(t\\,$at\\,$at+0.08))':s=48000"],
                ...['-vf', "geq=lum='if(lt(Y\\,H/4)\\,$flash\\,$columns)':cb=128:cr=128", '-frames:v', (string) self::FRAMES, '-shortest'],
                ...['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le', $file],
            ]);
        }

        return $file;
    }
}
