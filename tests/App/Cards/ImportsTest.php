<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Cards\Imports;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Role;
use App\Models\Upload;
use App\Models\User;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Tests\Support\WavBuilder;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

final class ImportsTest extends TestCase
{
    use MakesMedia;

    private User $user;

    protected function setUp(): void
    {
        parent::setUp();
        $this->user = $this->person();
        $this->actingAs($this->user);
    }

    private function wav(int $seed = 1): string
    {
        $path = WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...$this->stage(2, $seed)))->write($this->folder . '/made.wav');

        return (string) file_get_contents($path);
    }

    /** @param  array<string, string>  $files  bytes by path */
    private function begin(array $files, ?string $kind = null): TestResponse
    {
        return $this->postJson($this->onDay('imports'), [
            'files' => array_map(
                static fn(string $path, string $bytes): array => ['path' => $path, 'size_bytes' => strlen($bytes)],
                array_keys($files),
                $files,
            ),
            'import_kind' => $kind,
        ]);
    }

    private function piece(string $import, int $number, int $from, string $bytes, ?string $digest = null): TestResponse
    {
        return $this->call(
            'PUT',
            $this->at("imports/$import/files/$number?from=$from"),
            [],
            [],
            [],
            [
                'HTTP_ACCEPT' => 'application/json',
                'CONTENT_TYPE' => 'application/octet-stream',
                'HTTP_CONTENT_DIGEST' => 'sha-256=:' . base64_encode(hash('sha256', $digest ?? $bytes, true)) . ':',
            ],
            $bytes,
        );
    }

    public function test_dropped_files_are_proved_copied_twice_and_become_imports_of_their_folders(): void
    {
        $files = ['Music/cue.wav' => $this->wav(1), 'creak.wav' => $this->wav(2)];
        $import = $this->begin($files + ['letter.pdf' => 'x'])
            ->assertStatus(201)
            ->json();
        self::assertSame(['letter.pdf'], array_column($import['refused'], 'path'));
        self::assertSame([[0, 0], [1, 1]], array_map(static fn(array $one): array => [$one['place'], $one['number']], $import['files']));
        foreach (array_values($files) as $number => $bytes) {
            $half = intdiv(strlen($bytes), 2);
            $this->piece($import['ulid'], $number, 0, substr($bytes, 0, $half))->assertJsonPath('received_bytes', $half);
            $this->piece($import['ulid'], $number, $half, substr($bytes, $half))->assertJsonPath('received_bytes', strlen($bytes));
        }
        $this->postJson($this->at("imports/{$import['ulid']}/copy"))->assertStatus(202);
        $card = Card::query()->sole();
        self::assertTrue($card->isSafe());
        $copy = "$this->folder/one/" . $card->copies->firstWhere('store', 'one')->path;
        self::assertTrue(Verify::folder($copy)['ok']);
        self::assertSame($files['Music/cue.wav'], file_get_contents("$copy/Music/cue.wav"));
        self::assertSame(['creak' => 'effects', 'cue' => 'music'], Clip::query()->orderBy('name')->pluck('import_kind', 'name')->all());
        self::assertSame(0, Upload::query()->count());
        self::assertSame([], glob($this->folder . '/uploads/*'), 'what lies twice elsewhere is not kept a third time');
    }

    public function test_what_a_person_says_they_are_wins_over_folders_and_stays_when_they_are_catalogued_again(): void
    {
        $bytes = $this->wav();
        $import = $this->begin(['Music/cue.wav' => $bytes], 'stock')->json('ulid');
        $this->piece($import, 0, 0, $bytes)->assertOk();
        $this->postJson($this->at("imports/$import/copy"))->assertStatus(202);
        $clip = Clip::query()->sole();
        self::assertSame('stock', $clip->import_kind);
        $this->postJson($this->at('device'), ['clips' => [$clip->ulid], 'import_kind' => 'effects'])->assertOk();
        $card = $clip->card()->sole();
        dispatch_sync(
            new \App\Domain\Cards\CatalogueCardJob(
                $this->production->tasks()->create([
                    'kind' => 'catalogue',
                    'title' => 'again',
                    'subject' => ['card' => $card->id],
                    'state' => 'waiting',
                ])->id,
            ),
        );
        self::assertSame('effects', $clip->refresh()->import_kind);
    }

    public function test_the_same_files_go_on_where_they_stopped_and_nothing_damaged_is_kept(): void
    {
        $bytes = $this->wav();
        $import = $this->begin(['cue.wav' => $bytes])->json('ulid');
        $this->piece($import, 0, 0, substr($bytes, 0, 1000))->assertOk();
        $this->piece($import, 0, 1000, substr($bytes, 1000, 500), 'other bytes')
            ->assertStatus(422)
            ->assertJsonPath('code', 'import.damaged');
        $this->piece($import, 0, 2000, substr($bytes, 2000))->assertStatus(409)->assertJsonPath('code', 'import.gap');
        $this->piece($import, 0, 0, substr($bytes, 0, 1000))->assertJsonPath('received_bytes', 1000);
        $this->piece($import, 0, 1000, substr($bytes, 1000) . 'more')->assertStatus(409);
        $this->postJson($this->at("imports/$import/copy"))->assertStatus(422)->assertJsonPath('code', 'import.open');

        $again = $this->begin(['cue.wav' => $bytes])
            ->assertStatus(201)
            ->json();
        self::assertSame([$import, 1000], [$again['ulid'], $again['files'][0]['received_bytes']]);
        // Killed between writing and saying so: the file is longer than the desk knows.
        $path = Imports::folder(Upload::query()->sole()) . '/cue.wav';
        file_put_contents($path, 'half a piece', FILE_APPEND);
        $this->piece($import, 0, 1000, substr($bytes, 1000))->assertOk();
        self::assertSame($bytes, file_get_contents($path));
    }

    public function test_a_fault_while_copying_leaves_the_files_here_and_it_is_tried_again(): void
    {
        $bytes = $this->wav();
        $import = $this->begin(['cue.wav' => $bytes])->json('ulid');
        $this->piece($import, 0, 0, $bytes);
        rename("$this->folder/two", "$this->folder/pulled");
        $this->postJson($this->at("imports/$import/copy"))->assertStatus(202);
        self::assertSame('fault', Card::query()->sole()->state);
        self::assertSame('Import 1', $this->getJson($this->at('imports'))->json('imports.0.roll'));
        rename("$this->folder/pulled", "$this->folder/two");
        $this->postJson($this->at("imports/$import/copy"))->assertStatus(202);
        self::assertTrue(Card::query()->sole()->isSafe());
        self::assertSame([], $this->getJson($this->at('imports'))->json('imports'));
    }

    public function test_an_import_on_its_way_is_dropped_with_its_bytes_and_is_nobody_elses(): void
    {
        $bytes = $this->wav();
        $import = $this->begin(['cue.wav' => $bytes])->json('ulid');
        $this->piece($import, 0, 0, substr($bytes, 0, 100))->assertOk();
        $this->actingAs($this->person());
        $this->piece($import, 0, 100, substr($bytes, 100))->assertStatus(404);
        self::assertFalse($this->getJson($this->at('imports'))->json('imports.0.is_mine'));
        $this->actingAs($this->user)->deleteJson($this->at("imports/$import"))->assertOk();
        self::assertSame([], glob($this->folder . '/uploads/*'));
        $this->piece($import, 0, 100, substr($bytes, 100))->assertStatus(404);
    }

    public function test_editors_and_reviewers_bring_nothing_in(): void
    {
        foreach ([Role::Editor, Role::Reviewer] as $role) {
            $this->as($role);
            $this->begin(['cue.wav' => 'x'])->assertStatus(403);
        }
    }

    public function test_a_file_that_is_not_what_its_name_says_does_not_hide_the_others(): void
    {
        $files = ['a.wav' => 'this is no sound', 'b.wav' => $this->wav()];
        $import = $this->begin($files)->json('ulid');
        foreach (array_values($files) as $number => $bytes) {
            $this->piece($import, $number, 0, $bytes)->assertOk();
        }
        $this->postJson($this->at("imports/$import/copy"))->assertStatus(202);
        $clips = Clip::query()->get()->keyBy('name');
        self::assertNotNull($clips['b']->proxied_at);
        self::assertNotSame([], $clips['a']->problems ?? []);
    }
}
