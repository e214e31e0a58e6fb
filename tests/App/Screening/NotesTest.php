<?php

declare(strict_types=1);

namespace Tests\App\Screening;

use App\Models\Role;
use App\Models\Take;
use Cartella\Core\Time\Ticks;
use Tests\App\TestCase;

/** What people say while they watch: on the take, of one person each, and told wherever the take is told of. */
final class NotesTest extends TestCase
{
    private const SECOND = Ticks::PER_SECOND;

    private function shotTake(): Take
    {
        $take = $this->take('3', 1);
        $this->clip('wide', 'A', 36_000, 10, $take, ['proxied_at' => now()]);

        return $take;
    }

    /** @param  array<string, mixed>  $more */
    private function say(Take $take, string $text, array $more = []): string
    {
        return $this->postJson($this->at("takes/$take->ulid/notes"), $more + ['text' => $text, 'at_ticks' => 2 * self::SECOND])
            ->assertStatus(201)
            ->json('ulid');
    }

    public function test_a_note_is_changed_and_removed_by_who_said_it_and_by_nobody_else(): void
    {
        $take = $this->shotTake();
        $this->actingAs($dora = $this->person(Role::Reviewer));
        $note = $this->say($take, 'Use the brath');
        $at = $this->at("takes/$take->ulid/notes/$note");
        $this->patchJson($at, ['text' => 'Use the breath'])->assertOk();
        $this->actingAs($this->person(Role::Assistant));
        $this->patchJson($at, ['text' => 'No'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'note.others');
        $this->deleteJson($at)->assertStatus(422);
        self::assertSame(['Use the breath'], $take->screeningNotes()->pluck('text')->all());
        $this->actingAs($dora)->deleteJson($at)->assertOk();
        self::assertSame(0, $take->screeningNotes()->count());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['Use the breath'], $take->screeningNotes()->pluck('text')->all(), 'and it comes back as it was');
    }

    public function test_taking_a_note_back_leaves_what_a_colleague_said_under_it(): void
    {
        $take = $this->shotTake();
        $this->actingAs($dora = $this->person(Role::Reviewer));
        $this->say($take, 'First');
        $this->actingAs($this->person(Role::Editor));
        $this->say($take, 'Second');
        $this->actingAs($dora)->postJson($this->at('undo'))->assertOk();
        self::assertSame(['Second'], $take->screeningNotes()->pluck('text')->all());
    }

    public function test_a_stretch_ends_behind_its_beginning_and_within_the_picture(): void
    {
        $take = $this->shotTake();
        $clip = $take->clips()->sole();
        $this->as(Role::Reviewer);
        $place = static fn(int $from, int $to): array => [
            'text' => 'x',
            'clip' => $clip->ulid,
            'at_ticks' => $from * self::SECOND,
            'out_ticks' => $to * self::SECOND,
        ];
        $this->postJson($this->at("takes/$take->ulid/notes"), $place(5, 5))->assertStatus(422);
        $this->postJson($this->at("takes/$take->ulid/notes"), $place(5, 11))->assertStatus(422)->assertJsonPath('code', 'note.place');
        $this->postJson($this->at("takes/$take->ulid/notes"), $place(5, 10))->assertStatus(201);
        self::assertSame(
            [5 * self::SECOND, 10 * self::SECOND],
            [$take->screeningNotes()->sole()->at_ticks, $take->screeningNotes()->sole()->out_ticks],
        );
    }

    public function test_everybody_gives_stars_of_their_own_and_the_log_and_the_reel_tell_all_of_it(): void
    {
        $take = $this->shotTake();
        $this->actingAs($dora = $this->person(Role::Reviewer));
        $stars = fn(?int $count) => $this->putJson($this->at("takes/$take->ulid/stars"), ['stars' => $count]);
        $stars(6)->assertStatus(422);
        $stars(2)->assertOk();
        $stars(4)->assertOk();
        $this->actingAs($tilo = $this->person(Role::Editor));
        $stars(1)->assertOk();
        $this->say($take, 'Too slow');
        $reel = $this->postJson($this->onDay('reels'), ['circled_only' => false])
            ->assertStatus(201)
            ->json('ulid');
        $item = $this->getJson($this->at("reels/$reel"))->assertOk()->json('items.0');
        self::assertEqualsCanonicalizing(
            [['by' => $dora->name, 'mine' => false, 'stars' => 4], ['by' => $tilo->name, 'mine' => true, 'stars' => 1]],
            $item['take']['ratings'],
        );
        $said = $this->getJson($this->onDay('log'))->assertOk()->json('takes.0.screening');
        self::assertSame("4 of 5 ($dora->name) · 1 of 5 ($tilo->name) · Too slow ($tilo->name)", $said);
        $clip = $take->clips()->sole()->ulid;
        self::assertSame($said, $this->getJson($this->at("clips/$clip"))->assertOk()->json('screening'));
        $rows = $this->getJson($this->at('bins/scene:3/items?from=0&limit=50'))->assertOk()->json('rows');
        self::assertSame($said, $rows[0]['take']['fields']['screening']);
        $summary = $this->getJson($this->at("reels/$reel/summary"))->assertOk()->json();
        self::assertSame(['name' => $tilo->name, 'notes' => 1, 'rated' => 1, 'stars' => 1], $summary['people'][0]);
        $stars(null)->assertOk();
        self::assertSame([4], $take->ratings()->pluck('stars')->all());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertEqualsCanonicalizing([4, 1], $take->ratings()->pluck('stars')->all());
    }

    public function test_the_notes_of_a_screening_are_a_table_with_their_timecodes_and_a_page_to_print(): void
    {
        $take = $this->shotTake();
        $this->actingAs($dora = $this->person(Role::Reviewer));
        $clip = $take->clips()->sole();
        $this->say($take, '=HYPERLINK("x")', ['clip' => $clip->ulid, 'out_ticks' => 4 * self::SECOND]);
        $reel = $this->as(Role::Editor)
            ->postJson($this->onDay('reels'), ['circled_only' => false])
            ->json('ulid');
        $csv = $this->get($this->at("reels/$reel/notes.csv"))->assertOk()->getContent();
        self::assertStringContainsString(
            "3,3,1,,wide,10:00:02:00,10:00:04:00,\"$dora->name\"",
            str_replace("$dora->name", "\"$dora->name\"", str_replace('"' . $dora->name . '"', $dora->name, (string) $csv)),
        );
        self::assertStringNotContainsString(',=HYPERLINK', (string) $csv, 'no cell begins with what a spreadsheet runs');
        $this->get($this->at("reels/$reel/notes.pdf"));
        $pdf = $this->get($this->at("reels/$reel/notes.pdf"))->assertOk();
        self::assertStringStartsWith('%PDF-', (string) $pdf->getContent());
    }

    public function test_a_reviewer_holds_and_rejects_a_take_as_well_as_circling_it(): void
    {
        $take = $this->shotTake();
        $this->as(Role::Reviewer);
        foreach ([['none', 'hold'], ['hold', 'ng'], ['ng', 'circled']] as [$was, $now]) {
            $this->putJson($this->at("takes/$take->ulid/circle"), compact('was', 'now'))->assertOk();
            self::assertSame($now, $take->refresh()->status);
        }
        $this->putJson($this->at("takes/$take->ulid/circle"), ['was' => 'none', 'now' => 'ng'])->assertStatus(409);
    }

    public function test_a_take_and_its_reel_carry_the_markers_of_their_clips_where_they_run(): void
    {
        $take = $this->shotTake();
        $clip = $take->clips()->sole();
        $long = $this->clip('S1', 'S', 36_000, 600, null, ['proxied_at' => now()]);
        $long
            ->parts()
            ->create(['take_id' => $take->id, 'said_by' => 'sound', 'in_ticks' => 100 * self::SECOND, 'out_ticks' => 120 * self::SECOND]);
        $this->as(Role::Editor);
        foreach ([[$clip, 4, 'gull'], [$long, 110, 'boom'], [$long, 300, 'another take']] as [$of, $second, $name]) {
            $this->postJson($this->at("clips/$of->ulid/markers"), ['in_ticks' => $second * self::SECOND, 'name' => $name])->assertStatus(
                201,
            );
        }
        $marked = $this->getJson($this->at("takes/$take->ulid/markers"))->assertOk()->json('markers');
        self::assertSame(
            [['gull', 'A', '10:00:04:00'], ['boom', 'S', '10:01:50:00']],
            array_map(static fn(array $one): array => [$one['name'], $one['device'], $one['timecode']], $marked),
        );
        $reel = $this->postJson($this->onDay('reels'), ['circled_only' => false])
            ->assertStatus(201)
            ->json('ulid');
        self::assertSame(['gull'], $this->getJson($this->at("reels/$reel"))->assertOk()->json('items.0.markers.*.name'));
    }
}
