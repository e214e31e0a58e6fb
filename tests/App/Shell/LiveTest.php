<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Support\Live;
use Tests\App\TestCase;

final class LiveTest extends TestCase
{
    public function test_a_page_that_polls_hears_what_changed_since_and_nothing_twice(): void
    {
        $start = $this->as()->getJson($this->at('changes'))->assertOk()->json('last');
        Live::tell($this->production->id, 'takes', ['take' => 'x']);
        $answer = $this->getJson($this->at("changes?after=$start"))->assertJsonPath('events.0.topic', 'takes')->assertJsonPath('events.0.facts.take', 'x');
        $this->getJson($this->at('changes?after='.$answer->json('last')))->assertJsonCount(0, 'events');
    }

    public function test_what_happens_in_one_production_is_not_heard_in_another(): void
    {
        $other = \App\Models\Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        Live::tell($other->id, 'takes', ['secret' => 'x']);
        $this->as()->getJson($this->at('changes?after=0'))->assertJsonCount(0, 'events');
    }

    public function test_editing_a_take_is_told_to_everybody_on_the_production(): void
    {
        $take = $this->take('3', 1);
        $this->as()->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]]);
        self::assertContains('takes', array_column($this->getJson($this->at('changes?after=0'))->json('events'), 'topic'));
    }

    public function test_counts_of_the_tabs_follow_the_day(): void
    {
        $take = $this->take('3A', 2);
        $this->place($this->clip('A1', 'A', 0, 10, $take), 0);
        $this->as()->getJson($this->onDay('tabs'))->assertOk()->assertJson(['open' => 1, 'by_stage' => ['log' => 1], 'takes' => 1, 'placed' => 1, 'to_place' => 1]);
    }

    public function test_a_shoot_day_is_added_with_the_next_number(): void
    {
        $this->as()->postJson($this->at('days'), ['date' => '2026-10-06'])->assertStatus(201)->assertJsonPath('number', 2);
        $this->postJson($this->at('days'), ['date' => '6.10.2026'])->assertStatus(422);
    }

    public function test_the_page_itself_is_served_at_any_address_and_media_only_by_name(): void
    {
        $this->get('/some/deep/link')->assertOk()->assertSee('id="app"', false);
        $clip = $this->clip('A1', 'A', 0);
        $this->as()->getJson($this->at("clips/$clip->ulid/media/proxy"))->assertNotFound();
        $this->getJson($this->at("clips/$clip->ulid/media/guide"))->assertNotFound();
        $this->getJson($this->at("clips/$clip->ulid/media/..%2f..%2fsecrets.env"))->assertNotFound();
    }
}
