<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Handoff\MixedProxy;
use App\Models\Clip;
use App\Models\Take;
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
        $heard = fn(): array => $this->getJson($this->at("clips/{$this->picture->ulid}/playlist"))->assertOk()->json('sounds.0.channels');
        self::assertSame([['index' => 4, 'gain_db' => 0]], $heard());
        $this->putJson($this->at("takes/{$this->take->ulid}/sound"), ['channels' => self::only(1, 2), 'was' => null])->assertOk();
        self::assertEquals([['index' => 1, 'gain_db' => 0], ['index' => 2, 'gain_db' => -6]], $heard(), 'players hear it at once');
        $sheet()
            ->assertJsonPath('sound.is_default', false)
            ->assertJsonPath('sound.channels.0.on', true)
            ->assertJsonPath('sound.channels.1.gain_db', -6)
            ->assertJsonPath('sound.channels.3.on', false);
        $this->putJson($this->at("takes/{$this->take->ulid}/sound"), ['channels' => self::only(4), 'was' => null])->assertStatus(409);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Sound of 3/1');
        $sheet()->assertJsonPath('sound.is_default', true);
        self::assertEquals([['index' => 4, 'gain_db' => 0]], $heard());
        $this->putJson($this->at("takes/{$this->take->ulid}/sound"), [
            'channels' => [['index' => 1, 'on' => true, 'gain_db' => 90]],
            'was' => null,
        ])->assertStatus(422);
    }

    public function test_only_what_is_on_is_mixed_at_its_level_and_nothing_on_is_silence(): void
    {
        self::assertSame('pan=stereo|c0=1.0000*c0+0.5012*c1|c1=1.0000*c0+0.5012*c1', MixedProxy::mix([1 => 0.0, 2 => -6.0]));
        self::assertStringContainsString('c0=0*c0|', MixedProxy::mix([]));
        self::assertSame('pan=stereo|c0=c0|c1=c1', MixedProxy::mix([1 => 0.0, 2 => 0.0]), 'a pair stays left and right');
    }

    public function test_all_of_a_camera_alone_is_its_own_sound_and_a_recording_alone_its_usual_channels(): void
    {
        $this->picture->placement()->delete();
        $this->picture->update(['channels' => [['index' => 1, 'name' => 'Ch 1', 'function' => null]]]);
        $alone = $this->getJson($this->at("clips/{$this->picture->ulid}/playlist"))->assertOk();
        self::assertSame([$this->picture->ulid], array_column($alone->json('sounds'), 'clip'));
        self::assertSame($alone->json('sounds'), $alone->json('own_sounds'));
        $sound = $this->getJson($this->at("clips/{$this->sound->ulid}/playlist"))->assertOk();
        self::assertSame(
            [[], 1, ['Boom', 'Lav Mara', 'Lav Tobias', 'Mix']],
            [$sound->json('pictures'), count($sound->json('sounds')), array_column($sound->json('recordings.0.channels'), 'name')],
        );
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
