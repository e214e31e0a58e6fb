<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Domain\Footage\MediaFolder;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Tests\App\TestCase;

final class LiveTest extends TestCase
{
    public function test_a_page_that_polls_hears_what_changed_since_and_nothing_twice(): void
    {
        $start = $this->as()->getJson($this->at('changes'))->assertOk()->json('last');
        Live::tell($this->production->id, Topic::Takes, ['take' => 'x']);
        $answer = $this->getJson($this->at("changes?after=$start"))
            ->assertJsonPath('events.0.topic', 'takes')
            ->assertJsonPath('events.0.facts.take', 'x');
        $this->getJson($this->at('changes?after=' . $answer->json('last')))->assertJsonCount(0, 'events');
    }

    public function test_what_happens_in_one_production_is_not_heard_in_another(): void
    {
        $other = \App\Models\Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        Live::tell($other->id, Topic::Takes, ['secret' => 'x']);
        $this->as()->getJson($this->at('changes?after=0'))->assertJsonCount(0, 'events');
    }

    public function test_editing_a_take_is_told_to_everybody_on_the_production(): void
    {
        $take = $this->take('3', 1);
        $this->as()->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]]);
        self::assertContains('takes', array_column($this->getJson($this->at('changes?after=0'))->json('events'), 'topic'));
    }

    public function test_a_change_is_told_when_it_can_be_seen_and_never_when_it_is_taken_back(): void
    {
        $count = fn(): int => DB::table('events')->count();
        DB::transaction(function () use ($count): void {
            Live::tell($this->production->id, Topic::Takes);
            self::assertSame(0, $count(), 'who hears it now asks for what is not there yet');
        });
        self::assertSame(1, $count());
        try {
            DB::transaction(function (): void {
                Live::tell($this->production->id, Topic::Takes);
                throw new \DomainException('Taken back.');
            });
        } catch (\DomainException) {
        }
        self::assertSame(1, $count());
    }

    public function test_events_come_into_sight_in_the_order_of_their_numbers(): void
    {
        $lock = 'cartella.events.' . substr(hash('xxh64', (string) DB::connection()->getDatabaseName()), 0, 8);
        $holders = [];
        DB::listen(static function (QueryExecuted $query) use ($lock, &$holders): void {
            if (str_starts_with($query->sql, 'insert into `events`')) {
                $holders[] = DB::selectOne('SELECT IS_USED_LOCK(?) = CONNECTION_ID() AS mine', [$lock])->mine;
            }
        });
        Live::tell($this->production->id, Topic::Takes);
        self::assertSame([1], $holders, 'an event is written by who holds the line, and by nobody else');
        self::assertSame(1, DB::selectOne('SELECT IS_FREE_LOCK(?) AS free', [$lock])->free, 'and the next one need not wait');
        try {
            Live::tell(0, Topic::Takes); // a production that is not there
            self::fail('It was written.');
        } catch (QueryException) {
            self::assertSame(1, DB::selectOne('SELECT IS_FREE_LOCK(?) AS free', [$lock])->free, 'nor after one that could not be written');
        }
    }

    public function test_a_page_is_told_which_changes_are_its_own(): void
    {
        $take = $this->take('3', 1);
        $this->as()
            ->patchJson(
                $this->at("takes/$take->ulid"),
                ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]],
                ['X-Page' => 'page-0001'],
            )
            ->assertOk();
        $this->patchJson(
            $this->at("takes/$take->ulid"),
            ['changes' => ['size' => ['was' => 'Wide', 'now' => 'Close']]],
            ['X-Page' => "bad\r\npage"],
        )->assertOk();
        $events = $this->getJson($this->at('changes?after=0'))->json('events');
        self::assertSame(
            ['page-0001', null],
            array_column(array_values(array_filter($events, static fn(array $event): bool => $event['topic'] === 'takes')), 'origin'),
        );
    }

    public function test_one_persons_open_pages_stop_at_ten_and_others_are_still_told(): void
    {
        config(['database.connections.other' => config('database.connections.mariadb')]);
        $this->as();
        $person = (int) auth()->id();
        $prefix = 'cartella.' . substr(hash('xxh64', (string) DB::connection()->getDatabaseName()), 0, 8) . '.live.';
        foreach (range(1, 10) as $seat) {
            DB::connection('other')->select('SELECT GET_LOCK(?, 0)', [$prefix . "$person.$seat"]);
        }
        $this->getJson($this->at('live'))->assertStatus(429);
        DB::connection('other')->select('DO RELEASE_LOCK(?)', [$prefix . "$person.4"]);
        $this->getJson($this->at('live'))->assertOk();
        DB::purge('other');
    }

    public function test_counts_of_the_tabs_follow_the_day(): void
    {
        $take = $this->take('3A', 2);
        $this->place($this->clip('A1', 'A', 0, 10, $take), 0);
        $this->as()
            ->getJson($this->onDay('tabs'))
            ->assertOk()
            ->assertJson(['open' => 1, 'by_stage' => ['log' => 1], 'takes' => 1, 'placed' => 1, 'to_place' => 1]);
    }

    public function test_a_shoot_day_is_added_with_the_next_number(): void
    {
        $this->as()
            ->postJson($this->at('days'), ['date' => '2026-10-06'])
            ->assertStatus(201)
            ->assertJsonPath('number', 2);
        $this->postJson($this->at('days'), ['date' => '6.10.2026'])->assertStatus(422);
    }

    public function test_the_page_itself_is_served_at_any_address_and_media_only_by_name(): void
    {
        $this->get('/some/deep/link')->assertOk()->assertSee('id="app"', false);
        $clip = $this->clip('A1', 'A', 0);
        $this->as()->getJson($this->at("clips/$clip->ulid/media/proxy"))->assertNotFound();
        File::ensureDirectoryExists(MediaFolder::of($clip)->folder());
        foreach (['proxy.2.mp4', 'guide', 'points.json'] as $name) {
            file_put_contents(MediaFolder::of($clip)->folder() . "/$name", 'x');
        }
        $this->getJson($this->at("clips/$clip->ulid/media/proxy"))->assertOk()->assertHeader('X-Accel-Redirect');
        $this->getJson($this->at("clips/$clip->ulid/media/guide"))->assertNotFound();
        $this->getJson($this->at("clips/$clip->ulid/media/points-json"))->assertNotFound();
    }
}
