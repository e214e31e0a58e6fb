<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Footage\ClipMedia;
use App\Domain\Words\PassageWords;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\Transcript;
use App\Models\User;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Fills a scratch database with 500 hours of words, and a recording of two hours with its words and its sound. */
final class FillWords extends Command
{
    protected $signature = 'cartella:bench-words {folder}';

    protected $description = 'Fill a scratch database with words for the bench';

    private const HOURS = 500;

    private const CLIPS = 1000;

    private const PASSAGE_WORDS = 12;

    /** Ticks of a word, so that an hour has 9 000. */
    private const WORD = (2 * Ticks::PER_SECOND) / 5;

    private const COMMON = [
        ...['the', 'and', 'you', 'to', 'of', 'a', 'i', 'it', 'in', 'that', 'is', 'was', 'for', 'on', 'with', 'he', 'she', 'they', 'we'],
        ...['not', 'have', 'what', 'this', 'be', 'at', 'so', 'there', 'all', 'but', 'do'],
    ];

    public function handle(): int
    {
        if (Production::query()->exists()) {
            $this->error('This database holds a production. The bench fills only an empty one.');

            return self::FAILURE;
        }
        $random = new Randomizer(new Mt19937(41));
        $production = Production::query()->create(['name' => 'Bench', 'rate_num' => 25, 'rate_den' => 1]);
        $user = User::query()->create([
            'name' => 'Bench',
            'email' => 'bench@lowwater.test',
            'password' => 'tide-mill',
            'role' => Role::Assistant,
        ]);
        $production->users()->attach($user);
        $day = ShootDay::query()->create(['production_id' => $production->id, 'number' => 1, 'date' => '2026-10-05']);
        $device = Device::query()->create(['production_id' => $production->id, 'letter' => 'S', 'kind' => 'recorder', 'lane' => 0]);
        $rare = array_map(static fn(int $n): string => self::made($n), range(1, 20_000));
        $seconds = intdiv(self::HOURS * 3600, self::CLIPS);
        for ($n = 0; $n < self::CLIPS; $n++) {
            $this->words($this->clip($production, $day, $device, sprintf('T%04d', $n), $seconds), $seconds, $rare, $random);
        }
        $long = $this->clip($production, $day, $device, 'two hours', 7200);
        $this->words($long, 7200, $rare, $random);
        $wav = $this->argument('folder') . '/two-hours.wav';
        $made = Process::run(
            [...['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'anoisesrc=r=48000:a=0.05:d=7200', '-c:a', 'pcm_s16le'], $wav],
            null,
            600,
        );
        if ($made['status'] !== 0) {
            $this->error($made['error']);

            return self::FAILURE;
        }
        (new ClipMedia())->make($long, [$wav]);
        unlink($wav);
        DB::statement('ANALYZE TABLE passages');
        $this->line("words $long->ulid");

        return self::SUCCESS;
    }

    private function clip(Production $production, ShootDay $day, Device $device, string $name, int $seconds): Clip
    {
        return Clip::query()->create([
            'production_id' => $production->id,
            'shoot_day_id' => $day->id,
            'device_id' => $device->id,
            'kind' => 'sound',
            'name' => $name,
            'path' => "$name.wav",
            'path_hash' => md5($name),
            'duration_ticks' => $seconds * Ticks::PER_SECOND,
            'start_ticks' => 0,
            'sample_rate' => 48_000,
            'channels' => [['index' => 1, 'name' => 'lav Mara', 'function' => null]],
            'facts' => ['audio_streams' => [1]],
            'proxied_at' => now(),
        ]);
    }

    /** @param  list<string>  $rare */
    private function words(Clip $clip, int $seconds, array $rare, Randomizer $random): void
    {
        $transcript = Transcript::query()->create([
            'production_id' => $clip->production_id,
            'clip_id' => $clip->id,
            'language' => 'en-us',
            'source' => 'recognised',
            'engine' => 'bench',
            'model' => 'general',
        ]);
        $rows = [];
        $known = [];
        $at = 0;
        $end = $seconds * Ticks::PER_SECOND;
        while ($at + self::PASSAGE_WORDS * self::WORD < $end) {
            $words = [];
            for ($n = 0; $n < self::PASSAGE_WORDS; $n++) {
                // Half of all words are a few common ones; of the others some are said far oftener than most.
                $text =
                    $random->getInt(0, 1) === 0
                        ? self::COMMON[$random->getInt(0, count(self::COMMON) - 1)]
                        : $rare[(int) (count($rare) * ($random->getInt(0, 9999) / 10_000) ** 3)];
                $words[] = [$text, (int) $at, (int) ($at + self::WORD * 0.9), $random->getInt(30, 100) / 100];
                $at += self::WORD;
            }
            $said = PassageWords::said(array_column($words, 0));
            $known[] = $said;
            $rows[] = [
                'ulid' => (string) Str::ulid(),
                'production_id' => $clip->production_id,
                'transcript_id' => $transcript->id,
                'clip_id' => $clip->id,
                'start_ticks' => $words[0][1],
                'end_ticks' => $words[self::PASSAGE_WORDS - 1][2],
                'speaker' => ['Mara', 'Tobias', 'Edda'][count($rows) % 3],
                'words' => json_encode($words, JSON_THROW_ON_ERROR),
                'said' => $said,
                'pairs' => PassageWords::pairs($said),
            ];
        }
        foreach (array_chunk($rows, 800) as $chunk) {
            DB::table('passages')->insert($chunk);
        }
        PassageWords::remember($clip->production_id, $known);
    }

    /** A made-up word of a few syllables. */
    private static function made(int $number): string
    {
        $text = '';
        for ($left = $number * 7919; $left > 0; $left = intdiv($left, 45)) {
            $text .= 'bdfghklmnprstvw'[$left % 15] . 'aeo'[intdiv($left % 45, 15)];
        }

        return $text;
    }
}
