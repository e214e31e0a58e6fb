<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Sequences\ClipSource;
use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\Role;
use App\Models\SequenceKind;
use App\Models\ShootDay;
use App\Models\User;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Media\Peaks;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Time\Ticks;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Fills a scratch database for the benches: 20 000 clips, 2 000 takes on one of the days, with notes of three files; or for
 * `map` one day of twelve devices with 34 clips each, placed, with waveforms; for `bins` takes of five clips each and 400 bins, one of them
 * with 20 000 of the clips.
 */
final class FillForBench extends Command
{
    protected $signature = 'cartella:bench-fill {--clips=20000} {--map} {--bins}';

    private const MAP_TAKES = 34;

    /** When the notes came in; seconds since 1970. */
    private const SAID_AT = 1_790_000_000;

    private const CUT_TRACKS = 12;

    private const CUT_ITEMS = 2000;

    private const OWN_BINS = 400;

    private const LARGE_BIN = 20_000;

    protected $description = 'Fill a scratch database for the bench';

    public function handle(): int
    {
        if (Production::query()->exists()) {
            $this->error('This database holds a production. The bench fills only an empty one.');

            return self::FAILURE;
        }
        $production = Production::query()->create(['name' => 'Bench', 'rate_num' => 25, 'rate_den' => 1]);
        $user = User::query()->create([
            'name' => 'Bench Person',
            'email' => 'bench@lowwater.test',
            'password' => 'tide-mill',
            'role' => Role::Assistant,
        ]);
        $production->users()->attach($user);
        foreach (['Second', 'Third'] as $name) {
            $production->users()->attach(
                User::query()->create([
                    'name' => "$name Person",
                    'email' => strtolower($name) . '@lowwater.test',
                    'password' => 'tide-mill',
                    'role' => Role::Assistant,
                ]),
            );
        }
        if ($this->option('map')) {
            $this->map($production);

            return self::SUCCESS;
        }
        $devices = [];
        $more = $this->option('bins') ? ['C' => 'camera', 'D' => 'camera'] : [];
        foreach (['A' => 'camera', 'B' => 'camera', 'S' => 'recorder'] + $more as $letter => $kind) {
            $devices[$letter] = Device::query()->create([
                'production_id' => $production->id,
                'letter' => $letter,
                'kind' => $kind,
                'lane' => count($devices),
            ])->id;
        }
        $total = (int) $this->option('clips');
        $made = 0;
        for ($number = 1; $made < $total; $number++) {
            $day = ShootDay::query()->create([
                'production_id' => $production->id,
                'number' => $number,
                'date' => now()->addDays($number)->toDateString(),
            ]);
            $made += $this->fill(
                $production->id,
                $day->id,
                $devices,
                min($number === 1 ? 2000 : 600, intdiv($total - $made, count($devices)) + 1),
                $made,
                $this->option('bins') ? 3 * $number : 1,
            );
        }
        $this->cut($production->refresh());
        if ($this->option('bins')) {
            $this->bins($production);
            $this->long($production, ShootDay::query()->where('production_id', $production->id)->orderBy('number')->firstOrFail());
        }
        $this->line("$made clips on " . ($number - 1) . ' days.');

        return self::SUCCESS;
    }

    /** A cut of 2 000 items over the first of its clips, a picture and a sound track. */
    private function cut(Production $production): void
    {
        $rate = $production->rate();
        $frame = $rate->ticksPerFrame();
        $items = [];
        foreach ($production->clips()->where('kind', 'picture')->orderBy('id')->limit(self::CUT_ITEMS)->get() as $n => $clip) {
            $items[] = new Item($clip->name, ClipSource::of($clip, $rate), 10 * $frame, 40 * $frame, 40 * $n * $frame);
        }
        app(SequenceStore::class)->create(
            $production,
            null,
            SequenceKind::Cut,
            new Sequence('Long cut', $rate, 0, [new Track(TrackKind::Picture, 'V', $items), new Track(TrackKind::Sound, 'A', [])]),
        );
        // As many on twelve tracks, as they are cut: sound of many clips under pictures that follow each other.
        $tracks = [];
        for ($track = 0; $track < self::CUT_TRACKS; $track++) {
            $own = [];
            $at = 0;
            for ($n = $track; $n < count($items); $n += self::CUT_TRACKS) {
                $length = (20 + (($n * 7) % 60)) * $frame;
                $own[] = $items[$n]->with(duration: $length, recordStart: $at);
                $at += $length + ($track === 0 ? 0 : (($n * 11) % 40) * $frame);
            }
            $tracks[] = new Track($track < 3 ? TrackKind::Picture : TrackKind::Sound, "Track $track", $own, $track === 0 ? 'picture' : '');
        }
        app(SequenceStore::class)->create($production, null, SequenceKind::StringOut, new Sequence('Wide cut', $rate, 0, $tracks));
    }

    /** Own bins: the first with very many clips, the others with some dozens. */
    private function bins(Production $production): void
    {
        $clips = DB::table('clips')
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->limit(self::LARGE_BIN)
            ->pluck('ulid', 'id')
            ->all();
        $ids = array_keys($clips);
        for ($n = 0; $n < self::OWN_BINS; $n++) {
            $bin = DB::table('bins')->insertGetId([
                'ulid' => (string) Str::ulid(),
                'production_id' => $production->id,
                'name' => $n === 0 ? 'Very many' : "Bin $n",
                'place' => $n,
            ]);
            $own = $n === 0 ? $ids : array_slice($ids, 40 * $n, 20 + ($n % 60));
            foreach (array_chunk($own, 2000) as $chunk) {
                DB::table('bin_items')->insert(
                    array_map(static fn(int $id): array => ['bin_id' => $bin, 'clip_id' => $id, 'ref' => "clip:$clips[$id]"], $chunk),
                );
            }
        }
    }

    /** Two hours of 64 channels: what is drawn of them, and nothing of the sound itself. */
    private function long(Production $production, ShootDay $day): void
    {
        $clip = Clip::query()->create([
            'production_id' => $production->id,
            'shoot_day_id' => $day->id,
            'kind' => 'sound',
            'import_kind' => 'music',
            'name' => 'sixty-four channels',
            'path' => 'sixty-four.wav',
            'path_hash' => md5('sixty-four'),
            'duration_ticks' => 7200 * Ticks::PER_SECOND,
            'sample_rate' => 48_000,
            'channels' => array_map(static fn(int $n): array => ['index' => $n, 'name' => "track $n", 'function' => null], range(1, 64)),
            'facts' => [],
            'proxied_at' => now(),
            'media_recipe' => MediaFile::RECIPE,
        ]);
        $counts = [intdiv(7200 * 48_000, Peaks::BUCKET_SAMPLES)];
        while (end($counts) > 1) {
            $counts[] = intdiv(end($counts), 2);
        }
        $out = fopen(MediaFolder::of($clip)->write(MediaFile::Peaks), 'wb') ?: throw new \RuntimeException('The peaks cannot be written.');
        fwrite($out, 'CPK1' . pack('vvVVP', 64, count($counts), Peaks::BUCKET_SAMPLES, 48_000, 7200 * 48_000));
        fwrite($out, pack('V*', ...$counts));
        $noise = '';
        for ($n = 0; $n < 4096; $n++) {
            $noise .= pack('vvv', (-200 * ($n % 97)) & 0xffff, 200 * ($n % 89), 3000);
        }
        foreach ($counts as $level => $count) {
            $bytes = 6 * 64 * $count;
            // The finest levels are holes in the file: nobody looks at two hours so closely.
            if ($level < 6) {
                fseek($out, $bytes, SEEK_CUR);
            } else {
                fwrite($out, substr(str_repeat($noise, intdiv($bytes, strlen($noise)) + 1), 0, $bytes));
            }
        }
        fclose($out);
    }

    /** @param  array<string, int>  $devices */
    private function fill(int $production, int $day, array $devices, int $takes, int $from, int $firstScene): int
    {
        $rows = [];
        for ($n = 0; $n < $takes; $n++) {
            $scene = (string) ($firstScene + intdiv($n, 200));
            $setup = $scene . ['', 'A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'J'][intdiv($n, 20) % 10];
            $rows[] = [
                'ulid' => (string) Str::ulid(),
                'production_id' => $production,
                'shoot_day_id' => $day,
                'scene' => $scene,
                'setup' => $setup,
                'take' => ($n % 20) + 1,
                'sort_key' => SlateOrder::key($setup, ($n % 20) + 1),
                'description' => "What happens in $setup",
                'size' => 'Wide',
                'status' => $n % 5 === 0 ? 'circled' : 'none',
                'notes' => "gull in frame $n\nlens 32",
                'set_by' => json_encode(
                    array_fill_keys(['description', 'size', 'notes'], ['by' => 'script', 'at' => self::SAID_AT, 'place' => 'script.csv']),
                    JSON_THROW_ON_ERROR,
                ),
            ];
        }
        foreach (array_chunk($rows, 500) as $chunk) {
            DB::table('takes')->insert($chunk);
        }
        $takeIds = DB::table('takes')->where('shoot_day_id', $day)->orderBy('id')->pluck('id');
        $this->notes($takeIds->all(), $rows);
        $clips = [];
        foreach ($takeIds as $n => $take) {
            foreach ($devices as $letter => $device) {
                $name = sprintf('%s%03dC%04d', $letter, $day % 1000, $n);
                $clips[] = [
                    'ulid' => (string) Str::ulid(),
                    'production_id' => $production,
                    'shoot_day_id' => $day,
                    'device_id' => $device,
                    'kind' => $letter === 'S' ? 'sound' : 'picture',
                    'name' => $name,
                    'path' => $name . '.mov',
                    'path_hash' => md5($name . $from),
                    'duration_ticks' => 20 * Ticks::PER_SECOND,
                    'rate_num' => 25,
                    'rate_den' => 1,
                    'frames' => 500,
                    'start_ticks' => (8 * 3600 + 20 * $n) * Ticks::PER_SECOND,
                    'channels' => '[]',
                    'facts' => '{}',
                ];
            }
        }
        foreach (array_chunk($clips, 500) as $chunk) {
            DB::table('clips')->insert($chunk);
        }
        $ids = DB::table('clips')->where('shoot_day_id', $day)->orderBy('id')->pluck('id')->all();
        $parts = [];
        foreach ($ids as $n => $clip) {
            $parts[] = ['take_id' => $takeIds[intdiv($n, count($devices))], 'clip_id' => $clip, 'said_by' => 'ixml'];
        }
        foreach (array_chunk($parts, 2000) as $chunk) {
            DB::table('take_parts')->insert($chunk);
        }
        DB::statement(
            'INSERT INTO placements (clip_id, shoot_day_id, `group`, start_ticks, way, confidence, is_sure) ' .
                "SELECT id, shoot_day_id, 0, start_ticks, 'sound', 0.95, 1 FROM clips WHERE shoot_day_id = ?",
            [$day],
        );

        return count($clips);
    }

    /**
     * What three files of notes and the recorder say of each take; on a third of the takes they do not agree.
     *
     * @param  list<int>  $takes
     * @param  list<array<string, mixed>>  $rows  their own fields
     */
    private function notes(array $takes, array $rows): void
    {
        $facts = [];
        foreach ($takes as $n => $take) {
            $differs = $n % 3 === 0;
            $said = [
                ['script', 'script.csv', ['description' => $rows[$n]['description'], 'size' => 'Wide', 'notes' => "gull in frame $n"]],
                ['script', 'camera.csv', ['size' => $differs ? 'Close' : 'Wide', 'notes' => 'lens 32']],
                ['script', 'slate-log.csv', ['description' => $differs ? "Another word for $n" : $rows[$n]['description']]],
                ['ixml', "S{$n}", ['status' => $differs ? 'ng' : $rows[$n]['status']]],
            ];
            foreach ($said as [$source, $place, $fields]) {
                foreach ($fields as $field => $value) {
                    $facts[] = [
                        'take_id' => $take,
                        'field' => $field,
                        'source' => $source,
                        'place' => $place,
                        'value' => json_encode($value, JSON_THROW_ON_ERROR),
                        'said_at' => gmdate('Y-m-d H:i:s', self::SAID_AT),
                    ];
                }
            }
        }
        foreach (array_chunk($facts, 2000) as $chunk) {
            DB::table('take_facts')->insert($chunk);
        }
    }

    private function map(Production $production): void
    {
        $day = ShootDay::query()->create(['production_id' => $production->id, 'number' => 1, 'date' => now()->toDateString()]);
        $random = new Randomizer(new Mt19937(1));
        foreach (['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I', 'J', 'K', 'S'] as $lane => $letter) {
            $device = Device::query()->create([
                'production_id' => $production->id,
                'letter' => $letter,
                'kind' => $letter === 'S' ? 'recorder' : 'camera',
                'lane' => $lane,
            ]);
            for ($n = 0; $n < self::MAP_TAKES; $n++) {
                $name = sprintf('%s001C%03d', $letter, $n + 1);
                $clip = Clip::query()->create([
                    'ulid' => (string) Str::ulid(),
                    'production_id' => $production->id,
                    'shoot_day_id' => $day->id,
                    'device_id' => $device->id,
                    'kind' => $letter === 'S' ? 'sound' : 'picture',
                    'name' => $name,
                    'path' => $name . '.mov',
                    'path_hash' => md5($name),
                    'duration_ticks' => 60 * Ticks::PER_SECOND,
                    'rate_num' => 25,
                    'rate_den' => 1,
                    'frames' => 1500,
                    'start_ticks' => (9 * 3600 + 90 * $n + $lane) * Ticks::PER_SECOND,
                    'channels' => [['name' => '1']],
                    'sample_rate' => 48_000,
                    'facts' => [],
                    'proxied_at' => now(),
                    'media_recipe' => MediaFile::RECIPE,
                ]);
                $clip->placement()->create([
                    'shoot_day_id' => $day->id,
                    'group' => 0,
                    'start_ticks' => $clip->start_ticks,
                    'way' => 'sound',
                    'confidence' => 0.95,
                    'is_sure' => true,
                ]);
                $peaks = new Peaks(1, 48_000);
                for ($second = 0; $second < 60; $second++) {
                    $level = $random->getInt(100, 12_000);
                    $peaks->feed(
                        str_repeat(pack('s*', ...array_map(static fn(): int => $random->getInt(-$level, $level), range(1, 4_800))), 10),
                    );
                }
                $peaks->finish(MediaFolder::of($clip)->write(MediaFile::Peaks));
            }
        }
        $this->line((string) Clip::query()->count() . ' clips on 12 lanes.');
    }
}
