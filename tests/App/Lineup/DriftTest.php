<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use Cartella\Core\Lineup\SoundMatcher;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/**
 * Forty seconds of a camera whose clock is 120 ppm fast: at their end the recorder's sound is 4 ms early, until a person wants that gone.
 */
final class DriftTest extends TestCase
{
    use MakesMedia;

    private const PPM = 120.0;

    private const MS = Ticks::PER_SECOND / 1000;

    protected function setUp(): void
    {
        parent::setUp();
        $stage = $this->stage(44, 72);
        $this->recorder('S001/3-T01.wav', $stage, 9 * 3600, '<SCENE>3</SCENE><TAKE>1</TAKE>');
        $this->camera('A001/A001C001.mov', array_slice(Noise::drifting(array_slice($stage, 8_000), self::PPM), 0, 320_000), '09:00:01:00');
        $this->as();
        foreach (['S001' => 'S', 'A001' => 'A'] as $volume => $device) {
            $this->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])->assertStatus(202);
        }
        $this->postJson($this->onDay('lineup'))->assertStatus(202);
    }

    private function camera1(): Clip
    {
        return Clip::query()->with('placement')->where('name', 'A001C001')->sole();
    }

    /** How much later the laid sound is than the camera's own in the last eight seconds, milliseconds. */
    private function lateAtTheEnd(): float
    {
        $folder = MediaFolder::of($this->camera1())->folder();
        $own = GuideTrack::ofBytes(GuideTrack::ofFile($folder . '/guide')->slice(256_000, 64_000));
        $laid = GuideTrack::ofBytes(GuideTrack::decode($this->mixed($this->camera1()), [2])->slice(256_000, 64_000));

        return -(
            (new SoundMatcher())->match('own', $own, 'laid', $laid)->offsetTicks ?? self::fail('the laid sound is not the camera\'s')
        ) / self::MS;
    }

    public function test_the_laid_sound_keeps_step_to_the_end_where_a_person_wants_so_until_that_is_taken_back(): void
    {
        $clip = $this->camera1();
        self::assertEqualsWithDelta(self::PPM, $clip->placement->drift_ppm, 3);
        $drifting = $this->lateAtTheEnd();
        self::assertEqualsWithDelta((36 * self::PPM) / 1000, abs($drifting), 0.5);

        $this->postJson($this->at("clips/$clip->ulid/drift"), ['applied' => true, 'device' => false])
            ->assertOk()
            ->assertJsonPath('changed', 1);
        self::assertEqualsWithDelta(0, $this->lateAtTheEnd(), 0.5);
        $this->getJson($this->onDay('lineup'))->assertJsonFragment(['name' => 'A001C001', 'drift_applied' => true]);

        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Take the drift of A001C001 out of its sound');
        self::assertEqualsWithDelta($drifting, $this->lateAtTheEnd(), 0.1);

        $this->postJson($this->at("clips/$clip->ulid/drift"), ['applied' => true, 'device' => true])
            ->assertOk()
            ->assertJsonPath('changed', 1);
        $this->postJson($this->onDay('lineup'))->assertStatus(202);
        self::assertEqualsWithDelta(0, $this->lateAtTheEnd(), 0.5, 'a new line-up keeps the choice');
    }
}
