<?php

declare(strict_types=1);

namespace Tests\App\Lineup;

use App\Domain\Lineup\CutIntoTakes;
use App\Domain\Lineup\SoundsUnder;
use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\Device;
use App\Models\Take;
use App\Models\TakePart;
use App\Models\User;
use Cartella\Core\Time\Ticks;
use Illuminate\Testing\TestResponse;
use Tests\App\TestCase;

/** One recording over several takes, and several recordings under one picture. */
final class TakePartsTest extends TestCase
{
    private const SECOND = Ticks::PER_SECOND;

    private User $rosa;

    protected function setUp(): void
    {
        parent::setUp();
        $this->rosa = $this->person();
        $this->actingAs($this->rosa);
    }

    private function ran(string $name, string $device, float $at, float $seconds): Clip
    {
        $clip = $this->clip($name, $device, $at, $seconds);
        $this->place($clip, $at);

        return $clip;
    }

    /** A recorder that ran through while one camera named its takes and another did not. */
    private function dayOfTen(): Clip
    {
        $sound = $this->ran('TAPE0001', 'S', 100, 1000);
        for ($take = 1; $take <= 10; $take++) {
            $this->ran("12A_T$take", 'A', 100 + 90 * $take, 40);
            $this->ran(sprintf('B001C%03d', $take), 'B', 102 + 90 * $take, 30);
        }

        return $sound;
    }

    /** @return array<string, mixed> */
    private function sheet(): array
    {
        return $this->getJson($this->onDay('log'))->assertOk()->json();
    }

    public function test_a_picture_beside_two_recorders_has_both_and_across_two_files_each_where_it_ran(): void
    {
        $second = Device::query()->create(['production_id' => $this->production->id, 'letter' => 'T', 'kind' => 'recorder', 'lane' => 9]);
        $picture = $this->ran('A001C001', 'A', 100, 60);
        $this->ran('S-1', 'S', 95, 35);
        $this->ran('S-2', 'S', 130, 60);
        $this->ran('T-1', 'S', 90, 35)->update(['device_id' => $second->id]);
        $playlist = $this->getJson($this->at("clips/$picture->ulid/playlist"))->assertOk();
        $told = static fn(string $key): array => array_map(
            static fn(array $piece): array => [$piece['name'], $piece['at_ticks'] / self::SECOND, $piece['duration_ticks'] / self::SECOND],
            $playlist->json($key),
        );
        self::assertSame([['S-1', 0, 30], ['S-2', 30, 30]], $told('sounds'));
        self::assertSame([['T-1', 0, 25]], $told('beside_sounds'), 'the second recorder is not mixed in, and can be heard');
        self::assertContains('T-1', array_column($playlist->json('recordings'), 'name'));
    }

    public function test_one_recording_over_ten_takes_is_ten_parts_and_each_take_has_its_sound(): void
    {
        $sound = $this->dayOfTen();
        app(CutIntoTakes::class)($this->day, $this->rosa);
        $takes = $this->sheet()['takes'];
        self::assertSame(array_fill(0, 10, 'sound'), array_column($takes, 'sync'));
        self::assertSame(
            array_fill(0, 10, ['A', 'B', 'S']),
            array_map(static fn(array $take): array => array_column($take['clips'], 'device'), $takes),
        );
        self::assertSame(
            [90 * self::SECOND, 130 * self::SECOND],
            [$sound->parts()->first()->in_ticks, $sound->parts()->first()->out_ticks],
            'from where the first camera began to where the last one stopped',
        );
        self::assertSame(
            [[40 * self::SECOND, 190 * self::SECOND]],
            array_map(
                static fn(array $clip): array => [$clip['duration_ticks'], $clip['placed_ticks']],
                array_slice($takes[0]['clips'], 2),
            ),
            'the sheet has the stretch, not the file',
        );
        $day = $this->getJson($this->onDay('sheet'))->json();
        self::assertSame([10, 10], [$day['counts']['synced'], $day['counts']['to_sync']]);
        self::assertSame(
            [],
            array_filter(array_column($day['points'], 'title'), static fn(string $title): bool => str_contains($title, 'no sound')),
        );
        self::assertSame('12A/1 to 12A/10', $this->getJson($this->onDay('lineup'))->json('placements.0.take'));
    }

    public function test_a_cut_of_parts_is_one_step_and_a_second_cut_finds_nothing(): void
    {
        $this->dayOfTen();
        self::assertSame(21, app(CutIntoTakes::class)($this->day, $this->rosa));
        self::assertSame(0, app(CutIntoTakes::class)($this->day, $this->rosa));
        $this->postJson($this->at('undo'))->assertOk()->assertJsonPath('stayed', []);
        self::assertSame([0, 0], [TakePart::query()->count(), Take::query()->count()]);
    }

    public function test_what_a_recording_says_of_itself_never_pulls_pictures_with_other_names_into_its_take(): void
    {
        $sound = $this->dayOfTen();
        $sound->update([
            'facts' => ['ixml' => ['scene' => '12A', 'take' => '1', 'note' => '', 'circled' => false, 'no_good' => false, 'wild' => false]],
        ]);
        app(CutIntoTakes::class)($this->day, $this->rosa);
        self::assertSame(
            ['12A/1', '12A/7', '12A/7'],
            [
                Clip::query()->where('name', '12A_T1')->sole()->take->label(),
                Clip::query()->where('name', '12A_T7')->sole()->take->label(),
                Clip::query()->where('name', 'B001C007')->sole()->take->label(),
            ],
        );
        self::assertSame([], array_merge(...array_column($this->sheet()['takes'], 'claims')), 'and nothing is asked of them');
    }

    public function test_two_names_at_one_moment_are_a_dispute_and_no_second_take(): void
    {
        $sound = $this->ran('TAPE0001', 'S', 0, 60);
        $this->ran('12A_T1', 'A', 5, 40);
        $this->ran('12A_T2', 'B', 6, 38);
        app(CutIntoTakes::class)($this->day, $this->rosa);
        self::assertSame('12A/1', $sound->refresh()->slates());
    }

    public function test_a_picture_across_two_recordings_has_both_under_it_and_two_recorders_are_not_mixed(): void
    {
        $first = $this->ran('S-1', 'S', 0, 60);
        $second = $this->ran('S-2', 'S', 62, 100);
        $backup = $this->ran('S-backup', 'S', 0, 40);
        $picture = $this->ran('A001C001', 'A', 10, 90);
        $clips = Clip::query()
            ->with(['placement', 'device'])
            ->get();
        $pieces = SoundsUnder::of($clips->find($picture->id), new Windows($clips));
        self::assertSame(
            [[$first->name, 0, 50], [$second->name, 52, 90]],
            array_map(
                static fn(array $piece): array => [
                    $piece['sound']->name,
                    intdiv($piece['from'], self::SECOND),
                    intdiv($piece['to'], self::SECOND),
                ],
                array_values(array_filter($pieces, static fn(array $piece): bool => $piece['sound']->id !== $backup->id)),
            ),
        );
        self::assertCount(2, $pieces);
    }

    /** @param  list<array{from: int, to: int, slate: string}>  $spans */
    private function split(Clip $clip, array $spans, ?string $was = null): TestResponse
    {
        return $this->postJson($this->at("clips/$clip->ulid/split"), ['spans' => $spans, 'was' => $was]);
    }

    public function test_an_event_without_slates_becomes_takes_as_a_person_says_and_what_ran_there_comes_along(): void
    {
        $wide = $this->ran('C001C001', 'A', 0, 600);
        $this->ran('TAPE0001', 'S', 0, 600);
        $close = $this->ran('B001C001', 'B', 10, 30);
        $this->ran('B001C002', 'B', 100, 50);
        $plan = $this->getJson($this->at("clips/$wide->ulid/split?by=angle&device=B"))->assertOk()->json('spans');
        self::assertSame(
            [[10, 40], [100, 150]],
            array_map(static fn(array $span): array => [$span['from'] / self::SECOND, $span['to'] / self::SECOND], $plan),
        );
        $this->split($wide, [['slate' => 'Song/1'] + $plan[0], ['slate' => '2A/1'] + $plan[1]])->assertStatus(422);
        $this->split($wide, [['slate' => '1/1'] + $plan[0], ['slate' => '1/2'] + $plan[1]])->assertOk();
        $takes = $this->sheet()['takes'];
        self::assertSame(
            [['A', 'B', 'S'], ['A', 'B', 'S']],
            array_map(static fn(array $take): array => array_column($take['clips'], 'device'), $takes),
        );
        self::assertNull($close->parts()->sole()->in_ticks, 'all of a clip that lies in one stretch belongs to it');
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(0, TakePart::query()->count());
    }

    public function test_a_slate_typed_on_one_of_ten_parts_leaves_the_other_nine(): void
    {
        $sound = $this->dayOfTen();
        app(CutIntoTakes::class)($this->day, $this->rosa);
        $say = fn(?string $slate, ?string $saw) => $this->postJson($this->onDay('log/slate'), [
            'clips' => [$sound->ulid],
            'slate' => $slate,
            'was' => $saw,
        ]);
        $say('12B/1', '12A/4')->assertOk();
        $takes = static fn(): array => $sound
            ->parts()
            ->with('take')
            ->get()
            ->map(static fn(TakePart $part): string => $part->take->label())
            ->all();
        self::assertSame(['12A/3', '12B/1', '12A/5'], array_slice($takes(), 2, 3));
        $say(null, '12A/9')->assertOk();
        self::assertSame(['12A/8', '12A/10'], array_slice($takes(), 7));
        $say('12A/1', '12A/4')->assertStatus(409);
        self::assertSame(0, app(CutIntoTakes::class)($this->day, $this->rosa), 'a cut leaves what a person said');
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['12A/8', '12A/9', '12A/10'], array_slice($takes(), 7));
    }

    public function test_marks_split_a_clip_without_a_place_and_a_colleagues_slate_is_not_overwritten(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, 100);
        $this->getJson($this->at("clips/$clip->ulid/split?by=marks"))->assertStatus(422);
        ClipMark::query()->create([
            'clip_id' => $clip->id,
            'user_id' => $this->rosa->id,
            'in_ticks' => 20 * self::SECOND,
            'out_ticks' => 60 * self::SECOND,
        ]);
        $spans = $this->getJson($this->at("clips/$clip->ulid/split?by=marks"))->assertOk()->json('spans');
        self::assertSame([0, 20, 60], array_map(static fn(array $span): int => intdiv($span['from'], self::SECOND), $spans));
        $this->actingAs($this->person());
        $this->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '5/1'])->assertOk();
        $this->actingAs($this->rosa);
        $this->split($clip, [['slate' => '3/1'] + $spans[0]])->assertStatus(409);
        self::assertSame('5/1', $clip->refresh()->slates());
    }

    public function test_a_picture_over_two_takes_gives_each_its_stretch_in_a_reel(): void
    {
        $clip = $this->ran('A001C001', 'A', 0, 100);
        $clip->update(['proxied_at' => now()]);
        $this->split($clip, [
            ['from' => 5 * self::SECOND, 'to' => 30 * self::SECOND, 'slate' => '3/1'],
            ['from' => 40 * self::SECOND, 'to' => 90 * self::SECOND, 'slate' => '3/2b'],
        ])->assertOk();
        $reel = $this->postJson($this->onDay('reels'), ['name' => 'all', 'circled_only' => false])
            ->assertCreated()
            ->json('ulid');
        $items = $this->getJson($this->at("reels/$reel"))->json('items');
        self::assertSame(
            [[5, 30], [40, 90]],
            array_map(static fn(array $item): array => [$item['in_ticks'] / self::SECOND, $item['out_ticks'] / self::SECOND], $items),
        );
        self::assertSame(
            ['', 'b'],
            array_map(static fn(array $item): string => $item['take']['part'], $items),
            'and the letter of a series stays',
        );
    }
}
