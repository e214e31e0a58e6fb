<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Footage\ClipMedia;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Time\Ticks;
use Illuminate\Console\Command;

/**
 * A day of nine clips with real media for the bench of the player, made as they always are: seconds of that against ffmpeg making the
 * proxy alone are printed.
 */
final class FillPlayerBench extends Command
{
    protected $signature = 'cartella:bench-player {folder}';

    protected $description = 'Fill a scratch database for the bench of the player';

    public const CLIPS = 9;

    public const SECONDS = 60;

    private const CHANNELS = 4;

    public function handle(ClipMedia $media): int
    {
        $bench = BenchDay::begin();
        if ($bench === null) {
            $this->error('This database holds a production. The bench fills only an empty one.');

            return self::FAILURE;
        }
        [$production, $day] = [$bench->production, $bench->day];
        $source = $this->source((string) $this->argument('folder'));
        $device = Device::query()->create(['production_id' => $production->id, 'letter' => 'A', 'kind' => 'camera', 'lane' => 0]);
        $seconds = $alone = 0.0;
        for ($n = 1; $n <= self::CLIPS; $n++) {
            $clip = Clip::query()
                ->create([
                    'production_id' => $production->id,
                    'shoot_day_id' => $day->id,
                    'device_id' => $device->id,
                    'kind' => 'picture',
                    'name' => "A001C00$n",
                    'path' => "A001C00$n.mov",
                    'path_hash' => md5("$n"),
                    'duration_ticks' => self::SECONDS * Ticks::PER_SECOND,
                    'rate_num' => 25,
                    'rate_den' => 1,
                    'frames' => 25 * self::SECONDS,
                    'start_ticks' => (9 * 3600 + 90 * $n) * Ticks::PER_SECOND,
                    'sample_rate' => 48_000,
                    'channels' => array_map(
                        static fn(int $index): array => ['index' => $index, 'name' => "Ch $index", 'function' => null],
                        range(1, self::CHANNELS),
                    ),
                    'facts' => ['audio_streams' => [self::CHANNELS]],
                ])
                ->refresh();
            $begin = hrtime(true);
            $media->make($clip, [$source]);
            $seconds += (hrtime(true) - $begin) / 1e9;
            // In turn, so that both meet the machine as it is.
            $alone += $this->alone($source);
            $take = Take::query()->create([
                'production_id' => $production->id,
                'shoot_day_id' => $day->id,
                'scene' => '1',
                'setup' => '1',
                'take' => $n,
                'sort_key' => sprintf('1/%02d', $n),
            ]);
            TakePart::query()->create(['take_id' => $take->id, 'clip_id' => $clip->id, 'said_by' => 'name']);
        }
        $this->line(sprintf('making %.2f alone %.2f', $seconds / self::CLIPS, $alone / self::CLIPS));

        return self::SUCCESS;
    }

    private function source(string $folder): string
    {
        $file = $folder . '/source.mov';
        if (!is_file($file)) {
            BenchDay::ffmpeg([
                ...[
                    '-f',
                    'lavfi',
                    '-i',
                    'testsrc2=size=1280x720:rate=25',
                    '-f',
                    'lavfi',
                    '-i',
                    'anoisesrc=a=0.3:c=pink:r=48000,tremolo=f=3:d=0.8',
                ],
                ...[
                    '-t',
                    (string) self::SECONDS,
                    '-filter_complex',
                    '[1:a]pan=4c|c0=c0|c1=c0|c2=c0|c3=c0[a]',
                    '-map',
                    '0:v',
                    '-map',
                    '[a]',
                ],
                ...['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le', $file],
            ]);
        }

        return $file;
    }

    /** Seconds that ffmpeg takes for a proxy with its sound and nothing else. */
    private function alone(string $source): float
    {
        $begin = hrtime(true);
        BenchDay::ffmpeg([
            ...Ffmpeg::input($source),
            ...['-map', '0:v:0', '-map', '0:a:0', '-ac', '2', '-c:a', 'aac', '-b:a', '128k', '-vf', 'scale=960:-2', '-c:v', 'libx264'],
            ...['-preset', 'ultrafast', '-crf', '21', '-bf', '0', '-g', '12', '-movflags', '+faststart', dirname($source) . '/alone.mp4'],
        ]);

        return (hrtime(true) - $begin) / 1e9;
    }
}
