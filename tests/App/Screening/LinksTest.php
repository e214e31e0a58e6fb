<?php

declare(strict_types=1);

namespace Tests\App\Screening;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Screening\Rooms;
use App\Models\Clip;
use App\Models\Role;
use App\Models\ScreeningLink;
use App\Models\ScreeningRoom;
use Illuminate\Testing\TestResponse;
use Tests\App\TestCase;

/** Watching from afar: a link opens one reel, until it has ended, for whom it was made. */
final class LinksTest extends TestCase
{
    private string $reel;

    private Clip $shown;

    protected function setUp(): void
    {
        parent::setUp();
        $this->shown = $this->clip('wide', 'A', 0, 10, $this->take('3', 1, ['notes' => 'Gull on the boom']), ['proxied_at' => now()]);
        $this->reel = $this->as(Role::Editor)
            ->postJson($this->onDay('reels'), ['circled_only' => false])
            ->assertStatus(201)
            ->json('ulid');
    }

    /** @param  array<string, mixed>  $more */
    private function link(array $more = []): string
    {
        return $this->as(Role::Editor)
            ->postJson($this->at("reels/$this->reel/links"), $more + ['for_name' => 'Dora Winterfeld', 'hours' => 48])
            ->assertStatus(201)
            ->json('secret');
    }

    private function outside(): void
    {
        $this->app['auth']->forgetGuards();
        $this->flushSession();
    }

    private function ask(string $secret, string $path = ''): TestResponse
    {
        return $this->getJson("/api/watch/$secret$path");
    }

    public function test_who_has_a_link_sees_its_reel_and_nothing_that_was_said_of_it(): void
    {
        $secret = $this->link();
        $this->outside();
        $this->ask($secret)->assertOk()->assertJsonPath('is_open', false)->assertJsonPath('for_name', 'Dora Winterfeld');
        $this->ask($secret, '/reel')->assertStatus(403)->assertJsonPath('code', 'link.closed');
        $this->postJson("/api/watch/$secret/open")->assertOk();
        $reel = $this->ask($secret, '/reel')->assertOk();
        self::assertSame([$this->shown->ulid], $reel->json('items.*.clip'));
        self::assertStringNotContainsString('Gull on the boom', (string) $reel->getContent());
        self::assertCount(1, $this->ask($secret, '/playlist')->assertOk()->json('pictures'));
        self::assertSame(1, ScreeningLink::query()->sole()->opens);
        $this->getJson($this->at(''))->assertStatus(401);
    }

    public function test_only_media_of_the_reel_are_let_out(): void
    {
        $other = $this->clip('not in it', 'A', 60, 10, null, ['proxied_at' => now()]);
        foreach ([$this->shown, $other] as $clip) {
            file_put_contents(MediaFolder::of($clip)->write(MediaFile::Proxy), 'x');
        }
        $secret = $this->link();
        $this->outside();
        $this->ask($secret, "/clips/{$this->shown->ulid}/media/proxy")->assertStatus(403);
        $this->postJson("/api/watch/$secret/open")->assertOk();
        $this->ask($secret, "/clips/{$this->shown->ulid}/media/proxy")
            ->assertOk()
            ->assertHeader('X-Accel-Redirect');
        $this->ask($secret, "/clips/$other->ulid/media/proxy")->assertStatus(404);
    }

    public function test_a_link_that_was_ended_or_has_run_out_opens_nothing_any_more(): void
    {
        [$ended, $short] = [$this->link(), $this->link(['hours' => 1])];
        $links = $this->getJson($this->at("reels/$this->reel/links"))->assertOk()->json('links');
        self::assertNull($links[0]['secret'], 'it is told once');
        $this->outside();
        foreach ([$ended, $short] as $secret) {
            $this->postJson("/api/watch/$secret/open")->assertOk();
        }
        $this->as(Role::Editor)->deleteJson($this->at("reels/$this->reel/links/{$links[1]['ulid']}"))->assertOk();
        $this->ask($ended, '/reel')->assertStatus(410)->assertJsonPath('code', 'link.ended');
        $this->ask($short, '/reel')->assertOk();
        $this->travel(61)->minutes();
        foreach (['', '/reel', '/playlist', '/room', "/clips/{$this->shown->ulid}/media/proxy"] as $path) {
            $this->ask($short, $path)->assertStatus(410);
        }
    }

    public function test_a_stranger_guesses_nothing_and_a_link_without_its_password_is_shut(): void
    {
        $this->outside();
        $this->ask(str_repeat('a', 32))->assertStatus(404);
        $secret = $this->link(['password' => 'tide-mill']);
        $this->outside();
        $this->postJson("/api/watch/$secret/open", ['password' => 'tide'])
            ->assertStatus(403)
            ->assertJsonPath('code', 'link.password');
        $this->postJson("/api/watch/$secret/open")->assertStatus(403);
        self::assertSame(0, ScreeningLink::query()->sole()->opens);
        $this->postJson("/api/watch/$secret/open", ['password' => 'tide-mill'])->assertOk();
        $stored = ScreeningLink::query()->sole();
        self::assertStringNotContainsString(
            $secret,
            json_encode($stored->getAttributes(), JSON_THROW_ON_ERROR),
            'the secret is kept nowhere',
        );
    }

    public function test_a_removed_reel_ends_its_links_and_only_who_may_organise_makes_them(): void
    {
        $secret = $this->link();
        $this->as(Role::Reviewer);
        $this->postJson($this->at("reels/$this->reel/links"), ['for_name' => 'x', 'hours' => 1])->assertStatus(403);
        $this->getJson($this->at("reels/$this->reel/links"))->assertStatus(403);
        $this->as(Role::Editor)->deleteJson($this->at("reels/$this->reel"))->assertOk();
        $this->ask($secret)->assertStatus(410);
    }

    public function test_those_who_follow_are_told_where_the_room_is_by_the_servers_clock(): void
    {
        $secret = $this->link();
        $now = Rooms::now();
        $word = ['at_ticks' => 7_056, 'speed' => 1, 'epoch_ms' => $now - 300, 'shows' => '{"view":1}'];
        $this->putJson($this->at("reels/$this->reel/room"), $word)->assertOk()->assertJsonPath('number', 1);
        $this->outside();
        $this->postJson("/api/watch/$secret/open");
        $room = $this->ask($secret, '/room')->assertOk()->json();
        self::assertSame([true, 7_056, $now - 300, '{"view":1}'], [$room['open'], $room['at_ticks'], $room['epoch_ms'], $room['shows']]);
        self::assertLessThan(2000, abs($room['now_ms'] - $now));
        $this->as(Role::Editor)
            ->putJson($this->at("reels/$this->reel/room"), ['epoch_ms' => 5] + $word)
            ->assertOk();
        self::assertLessThan(
            2000,
            abs(ScreeningRoom::query()->sole()->epoch_ms - $now),
            'a desk whose clock is wrong is placed by when it spoke',
        );
        $this->deleteJson($this->at("reels/$this->reel/room"))->assertOk();
        $this->ask($secret, '/room')->assertOk()->assertJsonPath('open', false);
    }

    public function test_nobody_follows_a_room_whose_desk_went_away(): void
    {
        $secret = $this->link();
        $this->putJson($this->at("reels/$this->reel/room"), ['at_ticks' => 0, 'speed' => 1, 'epoch_ms' => Rooms::now(), 'shows' => '']);
        $this->outside();
        $this->postJson("/api/watch/$secret/open");
        $this->ask($secret, '/room')->assertJsonPath('open', true);
        $this->travel(45)->seconds();
        $this->ask($secret, '/room')->assertJsonPath('open', false);
    }
}
