<?php

declare(strict_types=1);

namespace Tests\App\Day;

use App\Domain\Productions\Presence;
use App\Models\Card;
use App\Models\Role;
use App\Models\ShootDay;
use Tests\App\TestCase;

/** The page of productions: each with its days, what is open, cards that wait, and who is there. */
final class GlanceTest extends TestCase
{
    public function test_days_come_newest_first_with_what_is_in_and_open_in_them(): void
    {
        ShootDay::query()->create(['production_id' => $this->production->id, 'number' => 2, 'date' => '2026-10-06']);
        Card::query()->create($this->ours() + ['roll' => 'A001', 'volume' => 'A001', 'state' => 'failed']);
        $this->take('3', 1);
        $days = $this->as()->getJson($this->at('glance'))->assertOk()->assertJsonPath('days_count', 2)->json('days');
        self::assertSame([2, 1], array_column($days, 'number'));
        self::assertSame([0, 1], array_column($days, 'takes'));
        self::assertSame([0, 1], array_column($days, 'cards'));
        $sheet = $this->getJson($this->onDay('tabs'))->json('open');
        self::assertGreaterThan(0, $sheet);
        self::assertSame([0, $sheet], array_column($days, 'open'), 'the same number as on the day itself');
    }

    public function test_what_changed_since_it_was_looked_at_is_seen(): void
    {
        $this->as()->getJson($this->at('glance'))->assertJsonPath('days.0.takes', 0);
        $clip = $this->clip('A001C001', 'A', 100);
        $this->postJson($this->onDay('log/slate'), ['clips' => [$clip->ulid], 'slate' => '3/1'])->assertSuccessful();
        $this->getJson($this->at('glance'))->assertJsonPath('days.0.takes', 1);
    }

    public function test_a_volume_in_a_reader_waits_until_it_is_in(): void
    {
        mkdir("$this->folder/bench/A014", 0777, true);
        file_put_contents("$this->folder/bench/A014/A014C001.mov", 'picture');
        $this->as()
            ->getJson($this->at('glance'))
            ->assertJsonPath('waiting', ['A014']);
    }

    public function test_who_has_a_page_open_is_there_and_has_gone_a_while_after(): void
    {
        $ines = $this->person(Role::Editor);
        $this->actingAs($ines)->getJson($this->at('changes'))->assertOk();
        $this->as()
            ->getJson($this->at('glance'))
            ->assertJsonPath('here', [['name' => $ines->name, 'initials' => $ines->initials()]]);
        $this->travel(Presence::SECONDS + 1)->seconds();
        $this->getJson($this->at('glance'))->assertJsonPath('here', []);
    }

    public function test_only_who_works_on_cards_may_add_the_first_day(): void
    {
        $this->as(Role::Reviewer)->getJson($this->at('glance'))->assertJsonPath('may_add_day', false);
        $this->as(Role::Assistant)->getJson($this->at('glance'))->assertJsonPath('may_add_day', true);
    }
}
