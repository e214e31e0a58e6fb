<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\ClipMedia;
use App\Domain\Lineup\LaySoundJob;
use App\Models\Clip;
use App\Models\Take;
use Illuminate\Support\Facades\Queue;
use Tests\App\TestCase;

final class SoundOfTakeTest extends TestCase
{
    private Take $take;

    private Clip $picture;

    private Clip $sound;

    protected function setUp(): void
    {
        parent::setUp();
        $this->as();
        $this->take = $this->take('3', 1);
        $channels = array_map(
            static fn(string $name, int $at): array => ['index' => $at + 1, 'name' => $name, 'function' => null],
            ['Boom', 'Lav Mara', 'Lav Tobias', 'Mix'],
            range(0, 3),
        );
        $this->sound = $this->clip('3-T01', 'S', 100, 20, $this->take, ['channels' => $channels]);
        $this->picture = $this->clip('A001C001', 'A', 102, 15, $this->take, [
            'sound_synced_at' => now(),
            'proxied_at' => now(),
            'frames' => 375,
        ]);
        $this->place($this->sound, 100);
        $this->place($this->picture, 102);
    }

    /** @return list<array{index: int, on: bool, gain_db: float}> */
    private static function only(int ...$on): array
    {
        return array_map(
            static fn(int $index): array => [
                'index' => $index,
                'on' => in_array($index, $on, true),
                'gain_db' => $index === 2 ? -6.0 : 0.0,
            ],
            range(1, 4),
        );
    }

    public function test_the_recorders_mix_is_heard_until_somebody_chooses_and_the_choice_is_the_takes(): void
    {
        $sheet = fn() => $this->getJson($this->at("clips/{$this->picture->ulid}"))->assertOk();
        $sheet()
            ->assertJsonPath('sound.is_default', true)
            ->assertJsonPath('sound.channels.3.on', true)
            ->assertJsonPath('sound.channels.0.on', false);
        Queue::fake();
        $this->putJson($this->at("takes/{$this->take->ulid}/sound"), ['channels' => self::only(1, 2), 'was' => null])->assertOk();
        Queue::assertPushed(LaySoundJob::class, 1);
        $sheet()
            ->assertJsonPath('sound.is_default', false)
            ->assertJsonPath('sound.channels.0.on', true)
            ->assertJsonPath('sound.channels.1.gain_db', -6)
            ->assertJsonPath('sound.channels.3.on', false);
        $this->putJson($this->at("takes/{$this->take->ulid}/sound"), ['channels' => self::only(4), 'was' => null])->assertStatus(409);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Sound of 3/1');
        $sheet()->assertJsonPath('sound.is_default', true);
        Queue::assertPushed(LaySoundJob::class, 2);
        $this->putJson($this->at("takes/{$this->take->ulid}/sound"), [
            'channels' => [['index' => 1, 'on' => true, 'gain_db' => 90]],
            'was' => null,
        ])->assertStatus(422);
    }

    public function test_only_what_is_on_is_mixed_at_its_level_and_nothing_on_is_silence(): void
    {
        $chosen = array_column(self::only(1, 2), null, 'index');
        self::assertStringContainsString('c0=1.0000*c0+0.5012*c1|', ClipMedia::listening($this->sound, $chosen));
        self::assertStringContainsString('c0=0*c0|', ClipMedia::listening($this->sound, array_column(self::only(), null, 'index')));
        self::assertSame('pan=stereo|c0=c3|c1=c3', ClipMedia::listening($this->sound));
    }

    public function test_a_head_is_trimmed_and_whole_again_and_the_reel_begins_there(): void
    {
        $this->putJson($this->at("clips/{$this->picture->ulid}/head"), ['frames' => 50, 'was' => null])->assertOk();
        $this->getJson($this->at("clips/{$this->picture->ulid}"))->assertJsonPath('head_frames', 50);
        $reel = $this->postJson($this->onDay('reels'), ['circled_only' => false])
            ->assertStatus(201)
            ->json('ulid');
        $this->getJson($this->at("reels/$reel"))->assertJsonPath('items.0.in_ticks', 50 * 28_224_000);
        $this->putJson($this->at("clips/{$this->picture->ulid}/head"), ['frames' => 60, 'was' => null])->assertStatus(409);
        $this->putJson($this->at("clips/{$this->picture->ulid}/head"), ['frames' => 375, 'was' => 50])
            ->assertStatus(422)
            ->assertJsonPath('code', 'head.frame');
        $this->putJson($this->at("clips/{$this->picture->ulid}/head"), ['frames' => null, 'was' => 50])->assertOk();
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Whole head of A001C001');
        self::assertSame(50, $this->picture->refresh()->head_frames);
    }
}
