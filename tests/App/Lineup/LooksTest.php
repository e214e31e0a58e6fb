<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Models\Clip;
use App\Models\Look;
use Illuminate\Http\UploadedFile;
use Tests\App\TestCase;

final class LooksTest extends TestCase
{
    private const FILE =
        '<ColorCorrectionCollection xmlns="urn:ASC:CDL:v1.2"><ColorCorrection id="Carrow ' .
        'day"><SOPNode><Slope>1.2 1 0.9</Slope></SOPNode></ColorCorrection><ColorCorrection><SATNode>' .
        '<Saturation>0.5</Saturation></SATNode></ColorCorrection></ColorCorrectionCollection>';

    private Clip $wide;

    private Clip $close;

    protected function setUp(): void
    {
        parent::setUp();
        $this->as();
        $this->wide = $this->clip('A001C001', 'A', 0);
        $this->close = $this->clip('B001C001', 'B', 0);
    }

    private function bring(string $text, string $name = 'low-water.ccc'): \Illuminate\Testing\TestResponse
    {
        return $this->post(
            $this->at('looks'),
            ['file' => UploadedFile::fake()->createWithContent($name, $text)],
            ['Accept' => 'application/json'],
        );
    }

    private function seen(Clip $clip): ?string
    {
        return $this->getJson($this->at("clips/$clip->ulid"))->assertOk()->json('look.name');
    }

    public function test_a_file_of_looks_comes_in_in_one_step_and_again_only_with_its_new_values(): void
    {
        self::assertSame(['Carrow day', 'low-water 2'], array_column($this->bring(self::FILE)->assertStatus(201)->json('looks'), 'name'));
        $this->bring(str_replace('1.2 1 0.9', '1.3 1 0.9', self::FILE))->assertStatus(201);
        self::assertSame([2, 1.3], [Look::query()->count(), Look::query()->where('name', 'Carrow day')->sole()->slope[0]]);
        $this->postJson($this->at('undo'));
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Bring in 2 looks');
        self::assertSame(0, Look::query()->count());
    }

    public function test_what_is_no_look_is_refused_and_nothing_stays(): void
    {
        $this->bring('<!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><ColorCorrection/>')
            ->assertStatus(422)
            ->assertJsonPath('code', 'look.file');
        $this->postJson($this->at('looks'), [
            'name' => 'Bad',
            'slope' => [1, -1, 1],
            'offset' => [0, 0, 0],
            'power' => [1, 1, 1],
            'saturation' => 1,
        ])
            ->assertStatus(422)
            ->assertJsonPath('code', 'look.value');
        self::assertSame(0, Look::query()->count());
    }

    public function test_a_devices_look_is_seen_on_its_clips_a_clips_own_goes_before_it_and_both_are_taken_back(): void
    {
        [$day, $grey] = $this->bring(self::FILE)->json('looks');
        $this->putJson($this->at('looks'), ['look' => $day['ulid'], 'device' => 'A'])->assertOk();
        self::assertSame(['Carrow day', null], [$this->seen($this->wide), $this->seen($this->close)]);
        $this->putJson($this->at('looks'), ['look' => $grey['ulid'], 'clips' => [$this->wide->ulid]])->assertOk();
        self::assertSame('low-water 2', $this->seen($this->wide));
        $this->getJson($this->at('looks'))->assertJsonPath('looks.0.devices', ['A']);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Look low-water 2 for A001C001');
        self::assertSame('Carrow day', $this->seen($this->wide));
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Look Carrow day for camera A');
        self::assertNull($this->seen($this->wide));
    }

    public function test_two_people_who_change_a_look_do_not_overwrite_each_other(): void
    {
        $this->postJson(
            $this->at('looks'),
            $values = ['name' => 'Mill', 'slope' => [1, 1, 1], 'offset' => [0, 0, 0], 'power' => [1, 1, 1], 'saturation' => 1],
        )->assertStatus(201);
        $look = Look::query()->sole();
        unset($values['name']);
        $warm = ['slope' => [1.1, 1, 0.9]] + $values;
        $this->patchJson($this->at("looks/$look->ulid"), ['was' => $values, 'now' => $warm])->assertOk();
        $this->patchJson($this->at("looks/$look->ulid"), ['was' => $values, 'now' => ['saturation' => 0] + $values])->assertStatus(409);
        self::assertEquals([[1.1, 1, 0.9], 1.0], [$look->refresh()->slope, $look->saturation]);
    }
}
