<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Footage\ClipMedia;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Time\Ticks;
use Illuminate\Console\Command;

/**
 * A take that nine cameras saw at once for the bench of the angle wall. Each picture carries its number; the media are made once and
 * shared, each clip under an address of its own.
 */
final class FillWallBench extends Command
{
    protected $signature = 'cartella:bench-wall {folder}';

    protected $description = 'Fill a scratch database for the bench of the angle wall';

    private const CAMERAS = 9;

    private const SECONDS = 90;

    /** Columns of the number. */
    private const BITS = 12;

    public function handle(ClipMedia $media): int
    {
        $bench = BenchDay::begin();
        if ($bench === null) {
            $this->error('This database holds a production. The bench fills only an empty one.');

            return self::FAILURE;
        }
        [$production, $day] = [$bench->production, $bench->day];
        $source = self::source((string) $this->argument('folder'));
        $ours = ['production_id' => $production->id, 'shoot_day_id' => $day->id];
        $take = Take::query()->create($ours + ['scene' => '1', 'setup' => '1', 'take' => 1, 'sort_key' => SlateOrder::key('1', 1)]);
        $first = null;
        $begins = 9 * 3600 * Ticks::PER_SECOND;
        for ($n = 0; $n < self::CAMERAS; $n++) {
            $letter = chr(ord('A') + $n);
            $device = Device::query()->create(['production_id' => $production->id, 'letter' => $letter, 'kind' => 'camera', 'lane' => $n]);
            $clip = Clip::query()
                ->create(
                    $ours + [
                        'device_id' => $device->id,
                        'kind' => 'picture',
                        'name' => "{$letter}001C001",
                        'path' => "$letter.mov",
                        'path_hash' => md5($letter),
                        'duration_ticks' => self::SECONDS * Ticks::PER_SECOND,
                        'rate_num' => 25,
                        'rate_den' => 1,
                        'frames' => 25 * self::SECONDS,
                        'start_ticks' => $begins,
                        'channels' => [],
                        'facts' => ['audio_streams' => []],
                        'proxied_at' => $first->proxied_at ?? now(),
                    ],
                )
                ->refresh();
            if ($first === null) {
                $first = $clip;
                $media->make($clip, [$source]);
            } else {
                BenchDay::share($first, $clip);
            }
            TakePart::query()->create(['take_id' => $take->id, 'clip_id' => $clip->id, 'said_by' => 'name']);
            $clip->placement()->create([
                'shoot_day_id' => $day->id,
                'group' => 0,
                'start_ticks' => $begins,
                'way' => 'timecode',
                'confidence' => 0.9,
                'is_sure' => true,
            ]);
        }
        $this->line('day ' . $day->ulid);

        return self::SUCCESS;
    }

    /** Pictures that move as real ones do, with a strip through their middle that carries the number. */
    private static function source(string $folder): string
    {
        $file = $folder . '/numbered-wall.mov';
        if (!is_file($file)) {
            $columns = BenchDay::columns(self::BITS);
            BenchDay::ffmpeg([
                ...['-f', 'lavfi', '-i', 'testsrc2=size=960x540:rate=25'],
                ...['-f', 'lavfi', '-i', 'color=black:size=960x2:rate=25'],
                '-filter_complex',
                "[1:v]geq=lum='$columns':cb=128:cr=128,scale=960:40:flags=neighbor[n];[0:v][n]overlay=0:250",
                ...['-t', (string) self::SECONDS, '-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p', $file],
            ]);
        }

        return $file;
    }
}
