<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Models\Bin;
use App\Models\Card;
use App\Models\Handoff;
use App\Models\LineupRun;
use App\Models\Look;
use App\Models\NoteFile;
use App\Models\Production;
use App\Models\Reel;
use App\Models\Role;
use App\Models\Task;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Routes;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class AccessTest extends TestCase
{
    /** @return list<array{string, string}> method and address of every route of a production, with rows that exist */
    private function routes(): array
    {
        $take = $this->take('3', 1);
        $clip = $this->clip('A001C001', 'A', 36_000, take: $take);
        $values = [
            'production' => $this->production->ulid, 'day' => $this->day->ulid, 'take' => $take->ulid, 'clip' => $clip->ulid, 'volume' => 'A001', 'key' => 'scene:3', 'what' => 'proxy', 'kind' => 'camera', 'format' => 'csv', 'which' => 'slate',
            'noteFile' => NoteFile::query()->create(['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id, 'name' => 'notes.csv', 'path' => 'notes/x', 'layout' => ['heading' => 0, 'columns' => []]])->ulid,
            'card' => Card::query()->create(['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id, 'roll' => 'A001', 'volume' => 'A001', 'state' => 'verified'])->ulid,
            'bin' => Bin::query()->create(['production_id' => $this->production->id, 'name' => 'Own'])->ulid,
            'reel' => Reel::query()->create(['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id, 'name' => 'Reel'])->ulid,
            'lineupRun' => LineupRun::query()->create(['production_id' => $this->production->id, 'shoot_day_id' => $this->day->id, 'number' => 1, 'scope' => 'day 1', 'ways' => 'sound'])->ulid,
            'look' => Look::query()->create(['production_id' => $this->production->id, 'name' => 'Mill', 'slope' => [1, 1, 1], 'offset' => [0, 0, 0], 'power' => [1, 1, 1]])->ulid,
            'task' => Task::query()->create(['production_id' => $this->production->id, 'kind' => 'offload', 'title' => 'x', 'subject' => [], 'state' => 'done', 'ended_at' => now()])->ulid,
            'handoff' => Handoff::query()->create(['production_id' => $this->production->id, 'number' => 1, 'title' => 'x', 'chosen' => [], 'folder' => 'x', 'state' => 'packing'])->ulid,
        ];
        $routes = [];
        foreach (Routes::getRoutes() as $route) {
            /** @var Route $route */
            if (str_starts_with($route->uri(), 'api/productions/')) {
                $address = (string) preg_replace_callback('/\{(\w+)\}/', static fn (array $part): string => rawurlencode($values[$part[1]]), $route->uri());
                $routes[] = [$route->methods()[0], '/'.$address];
            }
        }
        self::assertGreaterThan(30, count($routes));

        return $routes;
    }

    public function test_somebody_of_another_production_finds_nothing_at_any_address(): void
    {
        $routes = $this->routes();
        $other = Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        $stranger = $this->person(Role::Assistant, isMember: false);
        $other->users()->attach($stranger);
        foreach ($routes as [$method, $address]) {
            $this->actingAs($stranger)->json($method, $address)->assertStatus(404)->assertJsonPath('code', 'missing');
        }
    }

    public function test_whoever_is_not_signed_in_is_asked_to_at_every_address(): void
    {
        foreach ($this->routes() as [$method, $address]) {
            self::assertSame(401, $this->json($method, $address)->status(), "$method $address");
        }
    }

    public function test_a_child_of_another_production_is_not_found_through_ones_own(): void
    {
        $other = Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        $user = $this->person();
        $other->users()->attach($user);
        $theirs = $this->clip('A001C001', 'A', 0);
        $this->actingAs($user)->getJson("/api/productions/{$other->ulid}/clips/{$theirs->ulid}")->assertNotFound();
        $this->actingAs($user)->getJson("/api/productions/{$other->ulid}/days/{$this->day->ulid}/sheet")->assertNotFound();
    }

    /** @return array<string, array{Role, array<string, bool>}> */
    public static function abilities(): array
    {
        return [
            'assistant' => [Role::Assistant, ['work' => true, 'organise' => true, 'review' => true, 'accept' => false]],
            'editor' => [Role::Editor, ['work' => false, 'organise' => true, 'review' => true, 'accept' => true]],
            'reviewer' => [Role::Reviewer, ['work' => false, 'organise' => false, 'review' => true, 'accept' => false]],
            'admin' => [Role::Admin, ['work' => true, 'organise' => true, 'review' => true, 'accept' => true]],
        ];
    }

    /** @param  array<string, bool>  $may */
    #[DataProvider('abilities')]
    public function test_each_role_may_what_the_server_says_and_nothing_else(Role $role, array $may): void
    {
        $take = $this->take('3', 1);
        $this->as($role)->getJson($this->at(''))->assertOk()->assertJsonPath('may', $may);
        $status = fn (string $method, string $address, array $body = []): int => $this->json($method, $this->at($address), $body)->status();
        self::assertSame($may['work'] ? 200 : 403, $status('POST', "days/{$this->day->ulid}/log/read"));
        self::assertSame($may['work'] ? 200 : 403, $status('PATCH', "takes/$take->ulid", ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]]));
        self::assertSame($may['organise'] ? 201 : 403, $status('POST', 'bins', ['name' => 'Own']));
        self::assertSame($may['review'] ? 200 : 403, $status('PUT', "takes/$take->ulid/circle", ['was' => 'none', 'now' => 'circled']));
    }

    public function test_only_an_admin_opens_a_production_and_it_has_a_day_and_devices(): void
    {
        $body = ['name' => 'High Water', 'rate' => '29.97df', 'date' => '2026-11-01'];
        $this->as()->postJson('/api/productions', $body)->assertForbidden();
        $ulid = $this->as(Role::Admin)->postJson('/api/productions', $body)->assertStatus(201)->json('ulid');
        $this->getJson("/api/productions/$ulid")->assertJsonPath('rate.name', '29.97df')->assertJsonPath('days.0.number', 1)->assertJsonPath('devices.3.kind', 'recorder');
        $this->postJson('/api/productions', $body)->assertStatus(422)->assertJsonPath('code', 'production.taken');
        $running = $this->postJson('/api/productions', ['name' => 'Spring Tide', 'style' => 'number'] + $body)->assertStatus(201)->json('ulid');
        $this->getJson("/api/productions/$running")->assertJsonPath('slate_style', 'number');
        $this->postJson('/api/productions', ['rate' => '26'] + ['name' => 'Mid Water'] + $body)->assertStatus(422)->assertJsonPath('code', 'rate.unknown');
    }

    public function test_an_admin_sees_productions_they_were_never_added_to(): void
    {
        $this->actingAs($this->person(Role::Admin, isMember: false))->getJson($this->at(''))->assertOk();
    }

    public function test_signing_in_gives_the_productions_and_a_wrong_password_a_plain_sentence(): void
    {
        $user = $this->person(Role::Editor);
        $this->postJson('/api/session', ['email' => $user->email, 'password' => 'wrong'])->assertStatus(422)->assertJsonPath('code', 'session.wrong');
        $this->postJson('/api/session', ['email' => $user->email, 'password' => 'secret'])->assertOk()->assertJsonPath('user.role', 'editor')->assertJsonPath('productions.0.ulid', $this->production->ulid);
        $this->deleteJson('/api/session')->assertOk()->assertJsonPath('user', null);
        $this->getJson('/api/session')->assertOk()->assertJsonPath('user', null);
    }

    public function test_guessing_passwords_is_slowed_down(): void
    {
        for ($try = 0; $try < 20; $try++) {
            $this->postJson('/api/session', ['email' => 'rosa@example.test', 'password' => 'x'.$try]);
        }
        $this->postJson('/api/session', ['email' => 'rosa@example.test', 'password' => 'y'])->assertStatus(429)->assertJsonPath('code', 'too_many');
    }

    /** @return array<string, array{string, string, mixed}> */
    public static function malformed(): array
    {
        return [
            'a body that is text' => ['PATCH', 'take', 'not json'],
            'a field no take has' => ['PATCH', 'take', ['changes' => ['id' => ['was' => 1, 'now' => 2]]]],
            'a status that is none' => ['PATCH', 'take', ['changes' => ['status' => ['was' => 'none', 'now' => 'loved']]]],
            'a description of a megabyte' => ['PATCH', 'take', ['changes' => ['description' => ['was' => '', 'now' => str_repeat('x', 1_000_000)]]]],
            'a take number of words' => ['PATCH', 'take', ['changes' => ['take' => ['was' => 1, 'now' => 'three']]]],
            'a list where text belongs' => ['POST', 'bins', ['name' => ['a']]],
            'a nudge by a float' => ['POST', 'nudge', ['unit' => 'frame', 'by' => 1.5]],
            'a nudge by everything' => ['POST', 'nudge', ['unit' => 'frame', 'by' => PHP_INT_MAX]],
        ];
    }

    #[DataProvider('malformed')]
    public function test_a_malformed_request_is_answered_with_a_sentence_and_changes_nothing(string $method, string $what, mixed $body): void
    {
        $take = $this->take('3', 1);
        $clip = $this->clip('A', 'A', 0);
        $this->place($clip, 0);
        $address = $this->at(['take' => "takes/$take->ulid", 'bins' => 'bins', 'nudge' => "clips/$clip->ulid/nudge"][$what]);
        $answer = is_string($body) ? $this->as()->call($method, $address, [], [], [], ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'], $body) : $this->as()->json($method, $address, $body);
        self::assertSame(422, $answer->status());
        self::assertNotSame('', $answer->json('message'));
        self::assertNotSame('', $answer->json('fix'));
        self::assertEquals($take->getAttributes(), $take->refresh()->getAttributes());
    }

    public function test_an_address_that_is_none_answers_in_the_same_form(): void
    {
        $this->as()->getJson('/api/nothing/here')->assertNotFound()->assertJsonStructure(['code', 'message', 'fix', 'context']);
    }

    public function test_search_finds_takes_and_clips_of_this_production_only(): void
    {
        $this->clip('A001C007', 'A', 0, take: $this->take('3', 2, ['description' => 'Mara drops the ledger']));
        $this->as()->getJson($this->at('search?q=ledger'))->assertJsonPath('takes.0.setup', '3')->assertJsonCount(0, 'clips');
        $this->getJson($this->at('search?q=C007'))->assertJsonPath('clips.0.name', 'A001C007');
        $this->getJson($this->at('search?q=3/2'))->assertJsonCount(1, 'takes');
        $this->getJson($this->at('search?q=%25'))->assertJsonCount(0, 'takes')->assertJsonCount(0, 'clips');
    }
}
