<?php

declare(strict_types=1);

namespace Tests\App\Assembly;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Screening\ExportReel;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Task;
use Cartella\Core\Time\Ticks;
use Tests\App\Support\NumberedMedia;
use Tests\App\TestCase;

/** A cut as a file: its frames, its holes, its sound over cuts of the picture, its tracks, its looks. */
final class CutFileTest extends TestCase
{
    use NumberedMedia;

    private const FRAME = Ticks::PER_SECOND / 25;

    private string $cut;

    /** @param  array<string, mixed>  $more */
    private function bring(Clip $clip, int $from, int $to, array $more = []): void
    {
        $this->postJson($this->at("cuts/$this->cut/pieces"), [
            'pieces' => [['clip' => $clip->ulid, 'in_ticks' => $from * self::FRAME, 'out_ticks' => $to * self::FRAME]],
            'label' => 'Put',
            ...$more + ['at_ticks' => null],
        ])->assertOk();
    }

    private function written(bool $tracks = false): Task
    {
        $ulid = $this->postJson($this->at("sequences/$this->cut/exports"), [
            ...['slate' => false, 'timecode' => false, 'originals' => false, 'height' => 540],
            'tracks' => $tracks,
        ])
            ->assertStatus(201)
            ->json('ulid');
        $task = Task::query()->where('ulid', $ulid)->sole();
        self::assertSame('done', $task->state, json_encode($task->result));

        return $task;
    }

    /** @return list<int> samples of the left ear, or of the one there is */
    private static function left(string $file, int $channels = 2): array
    {
        $raw = self::ffmpeg(['-i', $file, '-f', 's16le', '-ac', (string) $channels, '-']);

        return array_values(
            array_filter(array_values(unpack('s*', $raw) ?: []), static fn(int $n): bool => $n % $channels === 0, ARRAY_FILTER_USE_KEY),
        );
    }

    public function test_each_frame_of_the_cut_is_one_of_the_file_and_sound_goes_on_over_cuts_of_the_picture(): void
    {
        [$first, $second] = [$this->shot('one', 'A', 10, 1), $this->shot('two', 'A', 60, 2)];
        $this->cut = $this->as()
            ->postJson($this->at('cuts'), ['name' => 'Opening'])
            ->json('ulid');
        $this->bring($first, 10, 40);
        $this->bring($second, 50, 60, ['how' => 'lay_over', 'at_ticks' => 10 * self::FRAME, 'takes' => 'picture']);
        $this->bring($second, 70, 80);
        $this->postJson($this->at("sequences/$this->cut/edit"), [
            'step' => 3,
            'label' => 'A hole, and softer',
            'operations' => [
                ['op' => 'lift', 'track' => 0, 'from_ticks' => 35 * self::FRAME, 'to_ticks' => 38 * self::FRAME],
                ['op' => 'level', 'track' => 3, 'index' => 1, 'gain_millibels' => -602],
            ],
        ])->assertOk();
        $task = $this->written(true);
        $folder = ExportReel::folder($task);
        $numbers = self::numbers("$folder/reel.mp4");
        self::assertCount(40, $numbers);
        self::assertSame([...range(10, 19), ...range(50, 59), ...range(30, 39), ...range(70, 74)], array_slice($numbers, 0, 35));
        self::assertSame([78, 79], array_slice($numbers, 38));
        $heard = self::left("$folder/reel.wav");
        self::assertCount(40 * 1920, $heard);
        $own = self::left(MediaFolder::of($first)->read(MediaFile::Channel, 1), 1);
        // All around the cut to the other picture and back: the recording, sample for sample.
        foreach ([10, 20] as $cut) {
            for ($n = -200; $n < 200; $n += 5) {
                self::assertEqualsWithDelta($own[(10 + $cut) * 1920 + $n], $heard[$cut * 1920 + $n], 2, "$n samples from the cut at $cut");
            }
        }
        $other = self::left(MediaFolder::of($second)->read(MediaFile::Channel, 1), 1);
        self::assertEqualsWithDelta($other[72 * 1920] / 2, $heard[32 * 1920], 4, 'half as loud');
        self::assertSame([['part' => 'track-4', 'name' => 'Dialogue']], $task->result['tracks']);
        self::assertSame($heard, self::left("$folder/track-4.wav"));
        $this->get($this->at("sequences/$this->cut/exports/$task->ulid/track-4"))
            ->assertOk()
            ->assertHeader('X-Accel-Redirect', "/exported/$task->ulid/track-4.wav")
            ->assertHeader('Content-Type', 'audio/wav');
        $this->get($this->at("sequences/$this->cut/exports/$task->ulid/track-9"))->assertNotFound();
    }

    public function test_a_picture_is_written_with_the_look_that_it_is_shown_with(): void
    {
        $clip = $this->shot('one', 'A', 10, 1);
        $this->cut = $this->as()
            ->postJson($this->at('cuts'), ['name' => 'Opening'])
            ->json('ulid');
        $this->bring($clip, 63, 68);
        $mean = static fn(Task $task): float => array_sum(
            $all = unpack(
                'C*',
                self::ffmpeg([
                    ...['-i', ExportReel::folder($task) . '/reel.mp4', '-frames:v', '1'],
                    ...['-vf', 'format=gray', '-f', 'rawvideo', '-'],
                ]),
            ) ?: [0],
        ) / count($all);
        $plain = $mean($this->written());
        $look = Look::query()->create([
            'production_id' => $this->production->id,
            'name' => 'dim',
            'source' => 'hand',
            'slope' => [0.5, 0.5, 0.5],
            'offset' => [0.0, 0.0, 0.0],
            'power' => [1.0, 1.0, 1.0],
            'saturation' => 1.0,
        ]);
        $clip->update(['look_id' => $look->id]);
        $dim = $mean($this->written());
        self::assertGreaterThan(10, $plain, 'there is light in it');
        self::assertLessThan(0.75 * $plain, $dim);
    }
}
