<?php

declare(strict_types=1);

namespace Tests\App\Words;

use App\Domain\Footage\Stores;
use App\Domain\Tasks\TaskCancelled;
use App\Domain\Words\HearWords;
use App\Domain\Words\Languages;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Scene;
use App\Models\Task;
use App\Models\Transcript;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Transcript as Words;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** Words that are really heard, by voices and in words that are not the demo's. */
final class HearWordsTest extends TestCase
{
    use MakesMedia;

    private const LINES = [
        ['en-us+f2', 1.0, 'I left the ferry tickets on the kitchen table.'],
        ['en-us+m4', 136.0, 'Nobody sails in a storm like this one.'],
    ];

    /** A recording of two lines, far apart, on two radio microphones. */
    private function recorded(): Clip
    {
        $this->plain('S001/31-T01.wav', '');
        $command = ['ffmpeg', '-v', 'error', '-y'];
        $filter = '';
        foreach (self::LINES as $n => [$voice, $at, $text]) {
            $spoken = Process::run(['espeak-ng', '-v', $voice, '-s', '150', '-w', "$this->folder/line$n.wav", '--', $text]);
            self::assertSame(0, $spoken['status'], $spoken['error']);
            array_push($command, '-i', "$this->folder/line$n.wav");
            $filter .= sprintf(
                '[%d:a]aresample=48000,adelay=%d:all=1,apad,atrim=duration=141,pan=1c|c0=c0[l%1$d];',
                $n,
                (int) (1000 * $at),
            );
        }
        $filter .= '[l0][l1]amerge=inputs=2[out]';
        $run = Process::run([
            ...$command,
            '-filter_complex',
            $filter,
            '-map',
            '[out]',
            '-c:a',
            'pcm_s16le',
            "$this->folder/bench/S001/31-T01.wav",
        ]);
        self::assertSame(0, $run['status'], $run['error']);
        $this->as()
            ->postJson($this->onDay('volumes/S001/offload'), ['roll' => 'S001', 'device' => 'S'])
            ->assertStatus(202);
        Scene::query()->create([
            'production_id' => $this->production->id,
            'name' => '31',
            'heading' => 'INT. KITCHEN',
            'script_order' => 0,
            'text' => "GRETA\nI left the ferry tickets on the kitchen table.\n\nOSWIN\nNobody sails in a storm like this one.\n",
        ]);

        return Clip::query()->sole();
    }

    private static function text(Words $words): string
    {
        return implode(' ', array_column($words->words, 'text'));
    }

    public function test_what_is_said_is_heard_spelled_and_given_its_speakers_from_what_is_kept_of_the_sound(): void
    {
        $clip = $this->recorded();
        // No volume is needed for it.
        foreach (app(Stores::class)->known($this->production) as $store) {
            rename($store->path, "$store->path-away");
        }
        $this->as()
            ->postJson($this->onDay('words'), ['language' => 'en-us'])
            ->assertStatus(202);
        self::assertSame(
            ['done', '17 words found in 1 clip.'],
            [Task::query()->where('kind', 'words')->sole()->state, Task::query()->where('kind', 'words')->sole()->result['message']],
        );
        $passages = Passage::query()->orderBy('start_ticks')->get();
        self::assertSame(
            [self::LINES[0][2], self::LINES[1][2]],
            $passages->map(static fn(Passage $one): string => implode(' ', array_column($one->words, 0)))->all(),
        );
        self::assertSame(['Greta', 'Oswin'], $passages->pluck('speaker')->all());
        foreach (self::LINES as $n => [, $at]) {
            self::assertEqualsWithDelta($at, $passages[$n]->start_ticks / Ticks::PER_SECOND, 0.08);
        }
        self::assertSame(['pocketsphinx', 'script'], [Transcript::query()->sole()->engine, Transcript::query()->sole()->model]);
        $this->postJson($this->onDay('words'), ['language' => 'en-us'])->assertStatus(422);
        $this->postJson($this->onDay('words'), ['language' => 'fr-fr', 'clips' => [$clip->ulid]])->assertStatus(422);
    }

    public function test_a_run_that_was_stopped_goes_on_behind_what_it_has_heard(): void
    {
        $clip = $this->recorded()->load('parts.take', 'production');
        $task = Task::query()->create([
            'production_id' => $this->production->id,
            'kind' => 'words',
            'title' => 'x',
            'subject' => [],
            'state' => 'running',
        ]);
        $model = Languages::of('en-us');
        $hear = app(HearWords::class);
        $told = [];
        try {
            $hear->in($clip, $model, $task, static function (int $ticks) use (&$told): void {
                $told[] = $ticks;
                throw new TaskCancelled();
            });
            self::fail('It was stopped.');
        } catch (TaskCancelled) {
            self::assertCount(1, $told);
        }
        // The worker was killed while it wrote, and the sound of a stretch lies about.
        $folder = "$this->folder/words/$task->ulid.$clip->id";
        file_put_contents("$folder.jsonl", '{"until":99999999999,"words":[{"text":"nev', FILE_APPEND);
        mkdir($folder);
        touch("$folder/1.wav");
        $again = [];
        $words = $hear->in($clip, $model, $task, static function (int $ticks) use (&$again): void {
            $again[] = $ticks;
        });
        self::assertCount(1, $again, 'the first stretch is not heard twice');
        self::assertGreaterThan($told[0], $again[0]);
        self::assertSame(self::LINES[0][2] . ' ' . self::LINES[1][2], self::text($words));
        self::assertSame([], glob("$this->folder/words/*"), 'nothing is left lying about');
    }

    public function test_a_text_gets_its_times_from_the_sound(): void
    {
        $clip = $this->recorded();
        $text = "GRETA: I left all the ferry tickets on the kitchen table.\nOSWIN: Nobody sails in a storm like this one.\n";
        $this->as()
            ->postJson($this->at("clips/$clip->ulid/words"), ['text' => $text, 'language' => 'en-us'])
            ->assertStatus(202)
            ->assertJsonPath('words', 18);
        $passages = Passage::query()->orderBy('start_ticks')->get();
        self::assertSame('I left all the ferry tickets on the kitchen table.', implode(' ', array_column($passages[0]->words, 0)));
        self::assertNull($passages[0]->words[2][3]);
        self::assertEqualsWithDelta(136.0, $passages[1]->start_ticks / Ticks::PER_SECOND, 0.08);
        self::assertSame(['text', 'aligned'], [Transcript::query()->sole()->source, Transcript::query()->sole()->model]);
        $other = 'Nothing of this was ever said by anybody in any kitchen whatsoever, and least of all on a Tuesday.';
        $this->postJson($this->at("clips/$clip->ulid/words"), ['text' => $other, 'language' => 'en-us']);
        self::assertSame('failed', Task::query()->where('kind', 'align')->latest('id')->firstOrFail()->state);
        self::assertSame(18, Passage::query()->get()->sum(static fn(Passage $one): int => count($one->words)), 'what was there stays');
    }
}
