<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Handoff;
use App\Models\Role;
use App\Models\Take;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Media\Probe;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** The way of real recordings from the cards to the editing team, through the same jobs that the workers run. */
final class LineupTest extends TestCase
{
    use MakesMedia;

    private const NINE = 9 * 3600;

    protected function setUp(): void
    {
        parent::setUp();
        // Two takes: camera A's clock is right, camera B's 2 s late, and B's name says another take than the recorder.
        foreach ([[1, 0, '1'], [2, 60, '2']] as [$seed, $at, $take]) {
            $stage = $this->stage(14, $seed);
            foreach (range(0, 300) as $i) {
                $stage[20_000 + $i] = (int) (30_000 * exp(-$i / 60) * ($i % 2 === 0 ? 1 : -1));
            }
            $this->recorder(
                "S001/3A-T0$take.wav",
                $stage,
                self::NINE + $at,
                "<SCENE>3A</SCENE><TAKE>$take</TAKE><CIRCLED>" . ($take === '2' ? 'TRUE' : 'FALSE') . '</CIRCLED>',
            );
            $this->camera("A001/A001C00$take.mov", array_slice($stage, 8_000, 96_000), sprintf('09:0%d:01:00', intdiv($at, 60)));
            $this->camera(
                'B001/' . ($take === '2' ? '3A_T05_B' : '3A_T01_B') . '.mov',
                array_slice($stage, 12_000, 88_000),
                $at === 0 ? '08:59:59:12' : '09:00:59:12',
            );
        }
        foreach (['S001' => 'S', 'A001' => 'A', 'B001' => 'B'] as $volume => $device) {
            $this->as()
                ->postJson($this->onDay("volumes/$volume/offload"), ['roll' => $volume, 'device' => $device])
                ->assertStatus(202);
        }
        $this->postJson($this->onDay('log/read'))->assertOk();
        $this->postJson($this->onDay('lineup'))->assertStatus(202);
    }

    private function clipNamed(string $name): Clip
    {
        return Clip::query()->with('placement')->where('name', $name)->sole();
    }

    public function test_every_clip_finds_its_place_its_take_and_the_recorders_sound_and_the_clocks_are_learned(): void
    {
        foreach (['A001C001' => 1.0, 'A001C002' => 61.0, '3A_T01_B' => 1.5, '3A_T05_B' => 61.5] as $name => $seconds) {
            $place = $this->clipNamed($name)->placement;
            self::assertSame(['sound', true], [$place->way, $place->is_sure], $name);
            self::assertEqualsWithDelta((self::NINE + $seconds) * Ticks::PER_SECOND, $place->start_ticks, Ticks::PER_SECOND / 50, $name);
        }
        self::assertSame('3A/1', $this->clipNamed('A001C001')->take->label());
        self::assertSame(['3A/2', '3A/2'], [$this->clipNamed('A001C002')->take->label(), $this->clipNamed('3A_T05_B')->take->label()]);
        self::assertSame(
            'circled',
            Take::query()->where('take', 2)->sole()->status,
            'the recorder\'s mark reached the take of every picture',
        );
        self::assertNull(Take::query()->where('take', 5)->first(), 'a take that only a misread name had made is gone');
        $late = ClockOffset::query()->where('device_id', $this->devices['B']->id)->sole()->learned_ticks;
        self::assertEqualsWithDelta(2.02 * Ticks::PER_SECOND, $late, Ticks::PER_SECOND / 50);
        self::assertContains('3A/2 or 3A/5?', array_column($this->getJson($this->onDay('sheet'))->json('points'), 'title'));
        $this->getJson($this->onDay('log'))->assertJsonPath('takes.0.sync', 'sound');
        $clip = $this->clipNamed('A001C001');
        $heard = GuideTrack::decode($this->mixed($clip), [2]);
        // The clap lies 2.5 s into the recorder's file, which is 1.5 s into this picture.
        self::assertEqualsWithDelta(1.5 * Ticks::PER_SECOND, Claps::strongest($heard, 0, 4 * Ticks::PER_SECOND), 0.015 * Ticks::PER_SECOND);
    }

    public function test_a_nudge_moves_one_frame_is_refused_when_locked_and_is_taken_back(): void
    {
        $clip = $this->clipNamed('A001C001');
        $was = $clip->placement->start_ticks;
        $this->postJson($this->at("clips/$clip->ulid/nudge"), ['unit' => 'frame', 'by' => 1, 'was_ticks' => $was])
            ->assertOk()
            ->assertJsonPath('start_ticks', $was + 28_224_000);
        $this->postJson($this->at("clips/$clip->ulid/nudge"), ['unit' => 'frame', 'by' => 1, 'was_ticks' => $was])->assertStatus(409);
        $this->postJson($this->at("clips/$clip->ulid/lock"), ['locked' => true])->assertOk();
        $this->postJson($this->at("clips/$clip->ulid/nudge"), ['unit' => 'sample', 'by' => 1])
            ->assertStatus(422)
            ->assertJsonPath('code', 'lineup.locked');
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Lock A001C001');
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Nudge A001C001');
        self::assertSame([$was, 'sound'], [$clip->placement->refresh()->start_ticks, $clip->placement->way]);
    }

    public function test_a_reel_shows_each_take_once_from_its_slate_whatever_is_marked_and_keeps_notes_at_their_frame(): void
    {
        $clip = $this->clipNamed('A001C001');
        $this->putJson($this->at("clips/$clip->ulid/marks"), [
            'in_ticks' => 5 * Ticks::PER_SECOND,
            'out_ticks' => 6 * Ticks::PER_SECOND,
        ])->assertOk();
        $ulid = $this->postJson($this->onDay('reels'), ['circled_only' => false])
            ->assertStatus(201)
            ->json('ulid');
        $reel = $this->getJson($this->at("reels/$ulid"))->assertOk();
        self::assertSame(
            [['3A', 1], ['3A', 2]],
            array_map(static fn(array $item): array => [$item['take']['setup'], $item['take']['take']], $reel->json('items')),
        );
        self::assertEqualsWithDelta(0.5 * Ticks::PER_SECOND, $reel->json('items.0.in_ticks'), 2 * 28_224_000, 'a second before the clap');
        self::assertSame($clip->duration_ticks, $reel->json('items.0.out_ticks'));
        self::assertCount(2, $reel->json('items.0.angles'));
        $circled = $this->postJson($this->onDay('reels'), ['circled_only' => true])->json('ulid');
        self::assertCount(1, $this->getJson($this->at("reels/$circled"))->json('items'));
        $this->deleteJson($this->at("reels/$circled"))->assertOk();
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Remove the reel Day 1, circled');
        self::assertCount(1, $this->getJson($this->at("reels/$circled"))->assertOk()->json('items'), 'a removed reel comes back whole');
        $this->as(Role::Reviewer)
            ->postJson($this->at("takes/{$clip->take->ulid}/notes"), [
                'text' => 'Use the breath.',
                'at_ticks' => 2 * Ticks::PER_SECOND,
                'clip' => $clip->ulid,
            ])
            ->assertStatus(201);
        $this->getJson($this->at("reels/$ulid"))
            ->assertJsonPath('items.0.notes.0.timecode', '09:00:03:00')
            ->assertJsonPath('items.0.notes.0.text', 'Use the breath.');
    }

    /** The day goes with whatever stands open about it. */
    private function handOff(): void
    {
        $choice = ['days' => [$this->day->ulid], 'bins' => []];
        $points = $this->postJson($this->at('handoffs/plan'), $choice)->assertOk()->json('points');
        $waived = array_map(static fn(array $one): array => ['day' => $one['day'], 'point' => $one['key'], 'reason' => 'known'], $points);
        $this->postJson($this->at('handoffs'), $choice + ['waived' => $waived])->assertStatus(202);
    }

    public function test_a_package_reaches_the_inbox_whole_and_is_accepted_only_as_it_was_delivered(): void
    {
        $this->postJson($this->onDay('reels'), ['circled_only' => false]);
        Take::query()
            ->where('take', 1)
            ->update(['description' => '=HYPERLINK("x")']);
        $look = $this->postJson($this->at('looks'), [
            'name' => 'Carrow day',
            'slope' => [1.2, 1, 0.9],
            'offset' => [0, 0, 0],
            'power' => [1, 1, 1],
            'saturation' => 0.8,
        ])->json('looks.0.ulid');
        $this->putJson($this->at('looks'), ['look' => $look, 'device' => 'A'])->assertOk();
        $this->handOff();
        $handoff = Handoff::query()->sole();
        self::assertSame('delivered', $handoff->state);
        $folder = $this->folder . '/inbox/' . $handoff->folder;
        self::assertTrue(Verify::folder($folder)['ok']);
        self::assertFileEquals("$this->folder/bench/S001/3A-T01.wav", "$folder/sound/S001_3A-T01.wav");
        $picture = Probe::file("$folder/proxies/A001_A001C001.mp4");
        self::assertSame(
            [$this->clipNamed('A001C001')->start_ticks, 'tmcd'],
            [$picture->startTicks, $picture->startSource],
            'whoever opens it sees the camera\'s timecode',
        );
        $edl = (string) file_get_contents((glob("$folder/cuts/*.edl") ?: [''])[0]);
        self::assertStringContainsString('* SOURCE FILE: A001_A001C001.mp4', $edl);
        self::assertSame(
            [2, 2],
            [substr_count($edl, '* ASC_SOP (1.2 1 0.9)(0 0 0)(1 1 1)'), substr_count($edl, '* ASC_SAT 0.8')],
            'the look goes with each picture of camera A',
        );
        self::assertSame(0.8, Cdl::read((string) file_get_contents("$folder/looks.ccc"))['Carrow day']->saturation);
        self::assertSame(4, preg_match_all('/^\d{3}  /m', $edl), 'two pictures and the sound under each');
        $otio = json_decode((string) file_get_contents((glob("$folder/cuts/*.otio") ?: [''])[0]), true);
        foreach ($otio['tracks']['children'] as $track) {
            foreach ($track['children'] as $child) {
                if ($child['OTIO_SCHEMA'] === 'Clip.2') {
                    self::assertFileExists($folder . '/cuts/' . $child['media_references']['DEFAULT_MEDIA']['target_url']);
                }
            }
        }
        self::assertStringContainsString("\"'=HYPERLINK(\"\"x\"\")\"", (string) file_get_contents("$folder/log.csv"));
        $accept = $this->at("handoffs/$handoff->ulid/accept");
        $this->postJson($accept)->assertForbidden();
        $log = (string) file_get_contents("$folder/log.csv");
        file_put_contents("$folder/log.csv", 'changed');
        $this->as(Role::Editor)
            ->postJson($accept)
            ->assertStatus(422)
            ->assertJsonPath('code', 'handoff.altered')
            ->assertJsonPath('context.altered.0', 'log.csv');
        $this->postJson($this->at("handoffs/$handoff->ulid/questions"), ['question' => 'The log is damaged.'])->assertStatus(201);
        file_put_contents("$folder/log.csv", $log);
        $this->postJson($accept)->assertOk()->assertJsonPath('state', 'accepted');
    }

    /** @return array<string, array{string, mixed}> every field of a take that people fill in, with a value of its own */
    private static function fields(): array
    {
        return [
            'what happens' => ['description', 'Mara turns, drops the ledger'],
            'size' => ['size', 'Medium'],
            'hold' => ['status', 'hold'],
            'notes' => ['notes', 'boom in first 4 s'],
            'keywords' => ['keywords', 'ledger, sluice'],
            'MOS' => ['is_mos', true],
            'tail slate' => ['is_tail_slate', true],
            'wild' => ['is_wild', true],
            'pick-up' => ['is_pickup', true],
            'false start' => ['is_false_start', true],
            'guide only' => ['is_guide_only', true],
            'who stood still' => ['absent_devices', ['C']],
        ];
    }

    public function test_no_field_of_a_take_is_lost_by_lining_up_cutting_subclipping_naming_undo_and_handing_off(): void
    {
        $take = Take::query()->where('take', 1)->sole();
        $changes = [];
        foreach (self::fields() as [$field, $value]) {
            $changes[$field] = ['was' => $take->{$field} ?? (is_array($value) ? [] : ''), 'now' => $value];
        }
        $this->patchJson($this->at("takes/$take->ulid"), ['changes' => $changes])->assertOk();
        $clip = $this->clipNamed('A001C001');
        $this->postJson($this->at('names'), ['what' => 'takes', 'ulids' => [$take->ulid], 'pattern' => '{setup}-{take:2}'])->assertOk();
        $this->postJson($this->at('names'), [
            'what' => 'clips',
            'ulids' => [$clip->ulid],
            'pattern' => '{setup}-{take:2} {device}',
        ])->assertOk();
        $this->postJson($this->onDay('lineup'))->assertStatus(202);
        $this->postJson($this->at("clips/$clip->ulid/subclips"), [
            'name' => 'The turn',
            'in_ticks' => 0,
            'out_ticks' => Ticks::PER_SECOND,
        ])->assertCreated();
        $this->postJson($this->at("clips/$clip->ulid/nudge"), ['unit' => 'frame', 'by' => 1])->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        foreach (self::fields() as $what => [$field, $value]) {
            self::assertSame($value, $take->refresh()->{$field}, $what);
        }
        self::assertSame(
            ['3A/1', '3A-01', '3A-01 A', 'A001C001'],
            [$this->clipNamed('A001C001')->take->label(), $take->name, $clip->refresh()->title(), $clip->name],
        );
        $this->handOff();
        $lines = array_map(
            str_getcsv(...),
            explode("\r\n", trim((string) file_get_contents($this->folder . '/inbox/' . Handoff::query()->sole()->folder . '/log.csv'))),
        );
        $row = array_combine(
            $lines[0],
            array_values(array_filter($lines, static fn(array $line): bool => in_array('A001C001', $line, true)))[0],
        );
        self::assertSame(
            [
                '3',
                '3A',
                '1',
                'hold',
                'Mara turns, drops the ledger',
                'Medium',
                'boom in first 4 s',
                'ledger, sluice',
                'MOS, tail slate, false start, wild, pick-up, guide only',
                'C',
                '3A-01',
                '3A-01 A',
                'A001C001',
            ],
            array_map(static fn(string $column): string => $row[$column], [
                'Scene',
                'Setup',
                'Take',
                'Status',
                'What happens',
                'Size',
                'Notes',
                'Keywords',
                'Marks',
                'Not rolling',
                'Take name',
                'Clip',
                'Original name',
            ]),
        );
    }
}
