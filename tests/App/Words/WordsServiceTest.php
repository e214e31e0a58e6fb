<?php

declare(strict_types=1);

namespace Tests\App\Words;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Role;
use App\Models\Task;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Request;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Sleep;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

/** Another service that finds words: one that works, fails, is slow, answers nonsense, is stopped. */
final class WordsServiceTest extends TestCase
{
    private const URL = 'https://words.example.test/v1';

    private Clip $clip;

    protected function setUp(): void
    {
        parent::setUp();
        Sleep::fake();
        Http::preventStrayRequests();
        $this->clip = $this->clip('T01', 'S', 8, 4, null, ['proxied_at' => now(), 'channels' => [['index' => 1, 'name' => 'lav Mara']]]);
        $media = MediaFolder::of($this->clip);
        touch($media->write(MediaFile::Peaks));
        $made = Process::run([
            ...['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'sine=440:d=4', '-c:a', 'flac', '-f', 'mp4', '-strict', '-2'],
            $media->write(MediaFile::Channel, 1),
        ]);
        self::assertSame(0, $made['status'], $made['error']);
        $this->as(Role::Admin)
            ->putJson($this->at('settings/words-service'), ['url' => self::URL, 'token' => 'tide'])
            ->assertOk();
    }

    /** Asks for the words and gives the task as it ended. */
    private function find(): Task
    {
        $this->as()->postJson($this->onDay('words'), [
            'clips' => [$this->clip->ulid],
            'language' => 'en-us',
            'service' => true,
        ]);

        return Task::query()->where('kind', 'words')->latest('id')->firstOrFail();
    }

    /** @param  list<mixed>  $asked  answers to the questions about the job, one after the other */
    private function answers(array $asked): void
    {
        $sequence = Http::sequence($asked);
        Http::fake([self::URL . '/jobs' => Http::response(['id' => 'j1'], 202), self::URL . '/jobs/j1' => $sequence]);
    }

    public function test_its_words_are_kept_and_it_gets_sound_name_and_token(): void
    {
        $word = [
            'text' => 'Shut',
            'start_ticks' => Ticks::PER_SECOND,
            'end_ticks' => 2 * Ticks::PER_SECOND,
            'speaker' => 'Mara',
            'confidence' => 0.8,
        ];
        $outside = ['start_ticks' => 90 * Ticks::PER_SECOND, 'end_ticks' => 91 * Ticks::PER_SECOND] + $word;
        $this->answers([
            Http::response(['state' => 'waiting']),
            Http::response('busy', 503),
            Http::response(['state' => 'running', 'progress' => 0.5]),
            Http::response(['state' => 'done', 'engine' => 'ears', 'words' => [$word, ['text' => ''], $outside]]),
        ]);
        self::assertSame('done', $this->find()->state);
        self::assertSame(['Shut'], array_column(Passage::query()->sole()->words, 0));
        Http::assertSent(
            static fn(Request $request): bool => $request->method() === 'POST' &&
                $request->hasHeader('Authorization', 'Bearer tide') &&
                str_contains($request->body(), 'fLaC') &&
                str_contains($request->body(), 'T01'),
        );
        $this->getJson($this->at("clips/{$this->clip->ulid}/words"))
            ->assertJsonPath('sources.0.engine', 'ears')
            ->assertJsonPath('service', self::URL);
        self::assertStringNotContainsString(
            'tide',
            (string) \DB::table('productions')->value('words_service'),
            'its token is kept encrypted',
        );
    }

    /** @return array<string, array{list<mixed>, string}> answers, and the sentence that a person gets */
    public static function troubles(): array
    {
        $url = self::URL;
        $done = static fn(mixed $words): array => ['state' => 'done', 'words' => $words];

        return [
            'it fails' => [[['state' => 'failed', 'reason' => 'too loud.']], 'The service could not find the words: too loud.'],
            'it is away' => [array_fill(0, 4, 500), "The service at $url did not answer: it answered with status 500."],
            'it does not know the job' => [[404], "The service at $url did not answer: it answered with status 404."],
            'no state' => [[['hello' => 'you']], "The service at $url answered what cannot be used: it did not say how far it is."],
            'no JSON' => [['<html>'], "The service at $url answered what cannot be used: it did not say how far it is."],
            'words that are none' => [
                [$done('all of it')],
                "The service at $url answered what cannot be used: there is no cue with a time and words in it.",
            ],
            'words outside' => [
                [$done([['text' => 'x', 'start_ticks' => 99 * Ticks::PER_SECOND, 'end_ticks' => 100 * Ticks::PER_SECOND]])],
                "The service at $url answered what cannot be used: its words lie outside the clip.",
            ],
            'never done' => [array_fill(0, 2000, ['state' => 'running', 'progress' => 2]), 'The service took too long.'],
        ];
    }

    /** @param  list<mixed>  $answers */
    #[DataProvider('troubles')]
    public function test_trouble_is_told_in_one_sentence_and_the_job_is_given_up(array $answers, string $sentence): void
    {
        $this->answers(
            array_map(static fn(mixed $one): mixed => is_int($one) ? Http::response('', $one) : Http::response($one), [...$answers, 204]),
        );
        $task = $this->find();
        self::assertSame(['failed', $sentence], [$task->state, $task->result['message'] ?? '']);
        self::assertSame(0, Passage::query()->count());
        Http::assertSent(static fn(Request $request): bool => $request->method() === 'DELETE');
    }

    public function test_a_service_that_cannot_be_reached_is_asked_again_and_then_told(): void
    {
        $tries = 0;
        Http::fake(static function () use (&$tries): never {
            $tries++;
            throw new ConnectionException('refused');
        });
        self::assertStringContainsString('it cannot be reached', $this->find()->result['message'] ?? '');
        self::assertSame(4, $tries);
    }

    public function test_where_none_is_set_nobody_waits_for_one(): void
    {
        $this->as(Role::Admin)
            ->putJson($this->at('settings/words-service'), ['url' => null])
            ->assertOk();
        $this->as()
            ->postJson($this->onDay('words'), ['clips' => [$this->clip->ulid], 'language' => 'en-us', 'service' => true])
            ->assertStatus(422);
        self::assertSame(0, Task::query()->where('kind', 'words')->count());
    }
}
