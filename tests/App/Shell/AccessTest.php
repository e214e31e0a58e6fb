<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Domain\Words\PassageWords;
use App\Models\ApiToken;
use App\Models\Bin;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Handoff;
use App\Models\HandoffQuestion;
use App\Models\LineupRun;
use App\Models\Look;
use App\Models\Production;
use App\Models\ProductionField;
use App\Models\Role;
use App\Models\ScriptNoteFile;
use App\Models\SequenceVersion;
use App\Models\ShootDay;
use App\Models\Store;
use App\Models\Take;
use App\Models\Task;
use App\Models\Transcript;
use App\Models\Upload;
use App\Models\User;
use App\Models\WebHook;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Words\Word;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Routing\Middleware\ThrottleRequests;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Support\Str;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class AccessTest extends TestCase
{
    /**
     * Rows of a production, one for each parameter of its routes.
     *
     * @return array<string, string> by the parameter's name
     */
    private static function children(Production $production, ShootDay $day, Device $device): array
    {
        $own = ['production_id' => $production->id];
        $onDay = $own + ['shoot_day_id' => $day->id];
        $member = User::query()->create([
            'name' => 'Member',
            'email' => uniqid() . '@example.test',
            'password' => 'secret',
            'role' => Role::Editor,
        ]);
        $production->users()->attach($member);
        $take = Take::query()->create($onDay + ['scene' => '3', 'setup' => '3', 'take' => 1, 'sort_key' => SlateOrder::key('3', 1)]);
        $clip = Clip::query()->create(
            $onDay + [
                'device_id' => $device->id,
                'kind' => 'picture',
                'name' => 'A001C001',
                'path' => 'a',
                'path_hash' => md5('a'),
                'duration_ticks' => 1,
                'facts' => [],
                'channels' => [],
            ],
        );
        $reel = StoredSequenceFactory::new()->createOne($onDay);
        $cut = StoredSequenceFactory::new()
            ->showing(['A'])
            ->createOne($own);

        $transcript = Transcript::query()->create(
            $own + ['clip_id' => $clip->id, 'language' => 'en-us', 'source' => 'cues', 'engine' => '', 'model' => ''],
        );
        $passage = PassageWords::make($transcript, $clip, [new Word('tide', 0, 1)]);
        $passage->save();
        $handoff = Handoff::query()->create($own + ['number' => 1, 'title' => 'x', 'chosen' => [], 'folder' => 'x', 'state' => 'packing']);

        return [
            'production' => $production->ulid,
            'day' => $day->ulid,
            'device' => $device->ulid,
            'user' => $member->ulid,
            'take' => $take->ulid,
            'clip' => $clip->ulid,
            'subclip' => $clip->subclips()->create(['name' => 'The turn', 'in_ticks' => 0, 'out_ticks' => 1])->ulid,
            'marker' => $clip->markers()->create(['kind' => 'person', 'in_ticks' => 0, 'name' => 'gull'])->ulid,
            'passage' => $passage->ulid,
            'store' => Store::query()->create(
                $own + [
                    'key' => 'k' . $production->id,
                    'name' => 'Raid ' . $production->id,
                    'path' => '/nowhere',
                    'mark' => (string) Str::ulid(),
                ],
            )->ulid,
            'noteFile' => ScriptNoteFile::query()->create(
                $onDay + ['name' => 'notes.csv', 'path' => 'notes/x', 'layout' => ['heading' => 0, 'columns' => []]],
            )->ulid,
            'card' => Card::query()->create($onDay + ['roll' => 'A001', 'volume' => 'A001', 'state' => 'verified'])->ulid,
            'upload' => Upload::query()->create($onDay + ['user_id' => $member->id, 'fingerprint' => 'x', 'files' => 1, 'size_bytes' => 1])
                ->ulid,
            'bin' => Bin::query()->create($own + ['name' => 'Own'])->ulid,
            'reel' => $reel->ulid,
            'link' => $reel->links()->create($own + ['for_name' => 'Dora', 'secret_hash' => hash('sha256', $reel->ulid)])->ulid,
            'screeningNote' => $take->screeningNotes()->create(['user_id' => $member->id, 'at_ticks' => 0, 'text' => 'x'])->ulid,
            'sequence' => $cut->ulid,
            'version' => SequenceVersion::query()->create([
                'sequence_id' => $cut->id,
                'name' => 'First',
                'step' => 0,
                'content' => $cut->content,
            ])->ulid,
            'lineupRun' => LineupRun::query()->create($onDay + ['number' => 1, 'scope' => 'day 1', 'ways' => 'sound'])->ulid,
            'look' => Look::query()->create($own + ['name' => 'Mill', 'slope' => [1, 1, 1], 'offset' => [0, 0, 0], 'power' => [1, 1, 1]])
                ->ulid,
            'productionField' => ProductionField::query()->create([
                'production_id' => $production->id,
                'name' => 'lens',
                'label' => 'Lens',
                'type' => 'text',
            ])->ulid,
            'task' => Task::query()->create(
                $own + ['kind' => 'offload', 'title' => 'x', 'subject' => ['card' => 0], 'state' => 'done', 'ended_at' => now()],
            )->ulid,
            'handoff' => $handoff->ulid,
            'webHook' => WebHook::query()->create($own + ['url' => 'https://x.test', 'secret' => 'x', 'events' => []])->ulid,
            'apiToken' => ApiToken::query()->create($own + ['name' => 'x', 'token_hash' => hash('sha256', (string) $production->id)])->ulid,
            'question' => HandoffQuestion::query()->create(['handoff_id' => $handoff->id, 'question' => 'x'])->ulid,
        ];
    }

    /** What stands in an address beside rows. */
    private const WORDS = [
        'volume' => 'A001',
        'key' => 'scene:3',
        'what' => 'proxy',
        'kind' => 'camera',
        'format' => 'csv',
        'cues' => 'srt',
        'which' => 'slate',
        'number' => '0',
        'shared' => '01ARZ3NDEKTSV4RRFFQ69G5FAV',
        'name' => '3',
        'export' => '01ARZ3NDEKTSV4RRFFQ69G5FAV',
        'part' => 'picture',
    ];

    /** @return list<Route> every route below a production */
    private static function routes(): array
    {
        $routes = array_values(
            array_filter(
                iterator_to_array(Routes::getRoutes()),
                static fn(Route $route): bool => str_starts_with($route->uri(), 'api/productions/'),
            ),
        );
        self::assertGreaterThan(100, count($routes));

        return $routes;
    }

    /** @param  array<string, string>  $values */
    private static function address(Route $route, array $values): string
    {
        return '/' .
            preg_replace_callback(
                '/\{(\w+)\}/',
                static fn(array $part): string => rawurlencode($values[$part[1]] ?? self::WORDS[$part[1]]),
                $route->uri(),
            );
    }

    public function test_somebody_of_another_production_finds_nothing_at_any_address(): void
    {
        $values = self::children($this->production, $this->day, $this->devices['A']);
        $other = Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        $stranger = $this->person(Role::Assistant, isMember: false);
        $other->users()->attach($stranger);
        $this->withoutMiddleware(ThrottleRequests::class);
        foreach (self::routes() as $route) {
            $method = $route->methods()[0];
            $this->actingAs($stranger)->json($method, self::address($route, $values))->assertStatus(404)->assertJsonPath('code', 'missing');
        }
    }

    public function test_whoever_is_not_signed_in_is_asked_to_at_every_address(): void
    {
        $values = self::children($this->production, $this->day, $this->devices['A']);
        foreach (self::routes() as $route) {
            self::assertSame(401, $this->json($route->methods()[0], self::address($route, $values))->status(), $route->uri());
        }
    }

    public function test_every_child_that_is_another_productions_is_not_found_through_ones_own_and_ones_own_is(): void
    {
        $this->withoutMiddleware(ThrottleRequests::class);
        $own = self::children($this->production, $this->day, $this->devices['A']);
        $other = Production::query()->create(['name' => 'Other', 'rate_num' => 24, 'rate_den' => 1]);
        $foreign = self::children(
            $other,
            ShootDay::query()->create(['production_id' => $other->id, 'number' => 1, 'date' => '2026-10-05']),
            Device::query()->create(['production_id' => $other->id, 'letter' => 'A', 'kind' => 'camera', 'lane' => 0]),
        );
        $admin = $this->person(Role::Assistant);
        $this->production->users()->updateExistingPivot($admin->id, ['role' => 'admin']);
        $this->actingAs($admin);
        $asked = 0;
        foreach (self::routes() as $route) {
            preg_match_all('/\{(\w+)\}/', $route->uri(), $names);
            foreach (array_diff($names[1], ['production'], array_keys(self::WORDS)) as $name) {
                DB::beginTransaction();
                $status = $this->json($route->methods()[0], self::address($route, [$name => $foreign[$name]] + $own))->status();
                DB::rollBack();
                self::assertSame(404, $status, $route->methods()[0] . ' ' . $route->uri() . " with a foreign $name");
                $asked++;
            }
            if (str_ends_with($route->uri(), '/live')) {
                continue; // it would answer for fifty seconds
            }
            DB::beginTransaction();
            $answer = $this->json($route->methods()[0], self::address($route, $own));
            DB::rollBack();
            $isNamedThing = $answer->status() === 404 && !str_contains((string) $answer->getContent(), 'in your productions');
            self::assertTrue(
                $isNamedThing || !in_array($answer->status(), [401, 403, 404], true),
                sprintf(
                    'a member is let in at %s %s: %d %s',
                    $route->methods()[0],
                    $route->uri(),
                    $answer->status(),
                    substr((string) $answer->getContent(), 0, 200),
                ),
            );
        }
        self::assertGreaterThan(80, $asked);
    }

    /** @return array<string, array{Role, array<string, bool>}> */
    public static function abilities(): array
    {
        return [
            'assistant' => [Role::Assistant, ['work' => true, 'organise' => true, 'review' => true, 'accept' => false, 'manage' => false]],
            'editor' => [Role::Editor, ['work' => false, 'organise' => true, 'review' => true, 'accept' => true, 'manage' => false]],
            'reviewer' => [Role::Reviewer, ['work' => false, 'organise' => false, 'review' => true, 'accept' => false, 'manage' => false]],
            'admin' => [Role::Admin, ['work' => true, 'organise' => true, 'review' => true, 'accept' => true, 'manage' => true]],
        ];
    }

    /** @param  array<string, bool>  $may */
    #[DataProvider('abilities')]
    public function test_each_role_may_what_the_server_says_and_nothing_else_at_every_address(Role $role, array $may): void
    {
        $this->withoutMiddleware(ThrottleRequests::class);
        $values = self::children($this->production, $this->day, $this->devices['A']);
        $this->as($role)->getJson($this->at(''))->assertOk()->assertJsonPath('may', $may);
        foreach (self::routes() as $route) {
            if (str_ends_with($route->uri(), '/live')) {
                continue;
            }
            // The one sentence of each address: which ability it asks for. Without one, every member may.
            $asks = array_values(
                array_filter(
                    array_map(
                        static fn(mixed $one): ?string => is_string($one) &&
                        preg_match('/\Acan:(\w+),production\z/', $one, $part) === 1 &&
                        $part[1] !== 'view'
                            ? $part[1]
                            : null,
                        $route->gatherMiddleware(),
                    ),
                ),
            );
            DB::beginTransaction();
            $status = $this->json($route->methods()[0], self::address($route, $values))->status();
            DB::rollBack();
            $mayIt = $asks === [] || array_filter($asks, static fn(string $ability): bool => !$may[$ability]) === [];
            self::assertSame(
                !$mayIt,
                $status === 403,
                sprintf(
                    '%s %s asks for %s and answers %d',
                    $route->methods()[0],
                    $route->uri(),
                    implode(' and ', $asks) ?: 'nothing',
                    $status,
                ),
            );
            if ($route->methods()[0] !== 'GET' && !self::isOfEveryMember($route)) {
                self::assertNotSame([], $asks, $route->methods()[0] . ' ' . $route->uri() . ' changes something and asks for no ability');
            }
        }
    }

    /** What every member may change: their own marks, columns, arrangements of bins, and where they are. */
    private static function isOfEveryMember(Route $route): bool
    {
        return preg_match('#/(clips/\{clip\}/marks|log-columns|log/here|bins/\{key\}/arrangement)\z#', $route->uri()) === 1;
    }

    public function test_only_an_admin_opens_a_production_and_it_has_a_day_and_devices(): void
    {
        $body = ['name' => 'High Water', 'rate' => '29.97df', 'date' => '2026-11-01'];
        $this->as()->postJson('/api/productions', $body)->assertForbidden()->assertJsonPath('fix', 'Ask an admin.');
        $ulid = $this->as(Role::Admin)->postJson('/api/productions', $body)->assertStatus(201)->json('ulid');
        $this->getJson("/api/productions/$ulid")
            ->assertJsonPath('rate.name', '29.97df')
            ->assertJsonPath('days.0.number', 1)
            ->assertJsonPath('devices.3.kind', 'recorder');
        $this->postJson('/api/productions', $body)->assertStatus(422)->assertJsonPath('code', 'production.taken');
        $running = $this->postJson('/api/productions', ['name' => 'Spring Tide', 'style' => 'number'] + $body)
            ->assertStatus(201)
            ->json('ulid');
        $this->getJson("/api/productions/$running")->assertJsonPath('slate_style', 'number');
        $this->postJson('/api/productions', ['rate' => '26'] + ['name' => 'Mid Water'] + $body)
            ->assertStatus(422)
            ->assertJsonPath('code', 'rate.unknown');
    }

    public function test_an_admin_sees_productions_they_were_never_added_to(): void
    {
        $this->actingAs($this->person(Role::Admin, isMember: false))->getJson($this->at(''))->assertOk();
    }

    public function test_signing_in_gives_the_productions_and_a_wrong_password_a_plain_sentence(): void
    {
        $user = $this->person(Role::Editor);
        $this->postJson('/api/session', ['email' => $user->email, 'password' => 'wrong'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'session.wrong');
        $this->postJson('/api/session', ['email' => $user->email, 'password' => 'secret'])
            ->assertOk()
            ->assertJsonPath('user.role', 'editor')
            ->assertJsonPath('productions.0.ulid', $this->production->ulid);
        $this->deleteJson('/api/session')->assertOk()->assertJsonPath('user', null);
        $this->getJson('/api/session')->assertOk()->assertJsonPath('user', null);
    }

    /** @return array<string, array{string, string, mixed}> */
    public static function malformed(): array
    {
        return [
            'a body that is text' => ['PATCH', 'take', 'not json'],
            'a field no take has' => ['PATCH', 'take', ['changes' => ['id' => ['was' => 1, 'now' => 2]]]],
            'a status that is none' => ['PATCH', 'take', ['changes' => ['status' => ['was' => 'none', 'now' => 'loved']]]],
            'a description of a megabyte' => [
                'PATCH',
                'take',
                ['changes' => ['description' => ['was' => '', 'now' => str_repeat('x', 1_000_000)]]],
            ],
            'a take number of words' => ['PATCH', 'take', ['changes' => ['take' => ['was' => 1, 'now' => 'three']]]],
            'a list where text belongs' => ['POST', 'bins', ['name' => ['a']]],
            'a nudge by a float' => ['POST', 'nudge', ['unit' => 'frame', 'by' => 1.5]],
            'a nudge by everything' => ['POST', 'nudge', ['unit' => 'frame', 'by' => PHP_INT_MAX]],
        ];
    }

    #[DataProvider('malformed')]
    public function test_a_malformed_request_is_answered_with_a_sentence_and_changes_nothing(
        string $method,
        string $what,
        mixed $body,
    ): void {
        $take = $this->take('3', 1);
        $clip = $this->clip('A', 'A', 0);
        $this->place($clip, 0);
        $address = $this->at(['take' => "takes/$take->ulid", 'bins' => 'bins', 'nudge' => "clips/$clip->ulid/nudge"][$what]);
        $answer = is_string($body)
            ? $this->as()->call(
                $method,
                $address,
                [],
                [],
                [],
                ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'],
                $body,
            )
            : $this->as()->json($method, $address, $body);
        self::assertSame(422, $answer->status());
        self::assertNotSame('', $answer->json('message'));
        self::assertNotSame('', $answer->json('fix'));
        self::assertEquals($take->getAttributes(), $take->refresh()->getAttributes());
    }

    public function test_an_address_that_is_none_answers_in_the_same_form(): void
    {
        $this->as()
            ->getJson('/api/nothing/here')
            ->assertNotFound()
            ->assertJsonStructure(['code', 'message', 'fix', 'context']);
    }

    public function test_search_finds_takes_and_clips_of_this_production_only(): void
    {
        $this->clip('A001C007', 'A', 0, take: $this->take('3', 2, ['description' => 'Mara drops the ledger']));
        $found = fn(string $words): array => array_column($this->getJson($this->at("search?q=$words"))->json('hits'), 'name');
        $this->as();
        self::assertSame(['3/2'], $found('ledger'));
        self::assertSame(['A001C007'], $found('C007'));
        self::assertSame(['3/2'], $found('3/2'));
        self::assertSame([], $found('%25'));
    }
}
