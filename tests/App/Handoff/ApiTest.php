<?php

declare(strict_types=1);

namespace Tests\App\Handoff;

use App\Domain\Handoff\ReadTokens;
use App\Domain\Handoff\WebHookJob;
use App\Domain\Handoff\WebHooks;
use App\Models\Handoff;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\WebHook;
use Illuminate\Http\Client\Request;
use Illuminate\Support\Facades\Http;
use Tests\App\TestCase;

/** What programs of others read and are told; the examples of docs/api.md are run here. */
final class ApiTest extends TestCase
{
    private function handoff(): Handoff
    {
        return Handoff::query()->create([
            'production_id' => $this->production->id,
            'number' => 1,
            'title' => 'Day 1',
            'chosen' => ['days' => [$this->day->ulid], 'bins' => []],
            'folder' => 'x',
            'state' => 'delivered',
            'summary' => [],
        ]);
    }

    public function test_every_example_of_the_papers_answers_what_they_say(): void
    {
        $take = $this->take('3', 1);
        $this->clip('A001C001', 'A', 10, take: $take);
        $handoff = $this->handoff();
        [, $token] = ReadTokens::make($this->production, $this->person(), 'Papers');
        $papers = (string) file_get_contents(base_path('docs/api.md'));
        preg_match_all('/```sh\n.*?\$DESK(\S+?)"?\n```\n\n```json\n(.*?)\n```/s', $papers, $examples, PREG_SET_ORDER);
        self::assertCount(4, $examples);
        foreach ($examples as [, $path, $answer]) {
            $path = strtr($path, ['$DAY' => $this->day->ulid, '$HANDOFF' => $handoff->ulid]);
            $got = $this->getJson($path, ['Authorization' => "Bearer $token"])
                ->assertOk()
                ->json();
            self::assertLike(json_decode($answer, true), $got, $path);
        }
    }

    /** Whether an answer has every field of an example, and lists of the same. */
    private static function assertLike(mixed $example, mixed $got, string $where): void
    {
        if (!is_array($example)) {
            return;
        }
        self::assertIsArray($got, $where);
        foreach ($example as $key => $value) {
            if (array_is_list($example)) {
                if ($got !== []) {
                    self::assertLike($value, $got[0], "$where.0");
                }

                return;
            }
            self::assertArrayHasKey($key, $got, $where);
            self::assertLike($value, $got[$key], "$where.$key");
        }
    }

    public function test_a_token_opens_its_own_production_until_it_is_revoked(): void
    {
        $this->as(Role::Assistant)
            ->postJson($this->at('settings/tokens'), ['name' => 'Mine'])
            ->assertForbidden();
        $this->as(Role::Admin);
        $secret = $this->postJson($this->at('settings/tokens'), ['name' => 'Cutting room wall'])
            ->assertStatus(201)
            ->json('secret');
        $listed = $this->getJson($this->at('settings/connections'))->assertOk()->assertDontSee($secret)->json('tokens.0');
        $other = Production::query()->create(['name' => 'High Road', 'rate_num' => 25, 'rate_den' => 1]);
        $day = ShootDay::query()->create(['production_id' => $other->id, 'number' => 1, 'date' => '2026-10-05']);
        auth()->logout();
        $ask = fn(string $path, string $token) => $this->getJson(
            "/api/v1/$path",
            $token === '' ? [] : ['Authorization' => "Bearer $token"],
        );
        $ask('production', $secret)->assertOk()->assertJsonPath('name', $this->production->name);
        $ask("days/$day->ulid/takes", $secret)->assertNotFound();
        foreach (['', 'x', str_repeat('a', 48)] as $wrong) {
            $ask('production', $wrong)->assertStatus(401)->assertJsonPath('code', 'token.unknown');
        }
        $this->as(Role::Admin)->deleteJson($this->at("settings/tokens/$listed[ulid]"))->assertOk();
        $ask('production', $secret)->assertStatus(401);
    }

    public function test_an_address_is_told_signed_and_again_until_it_answers(): void
    {
        $this->as(Role::Admin);
        $this->postJson($this->at('settings/hooks'), ['url' => 'file:///etc/passwd', 'events' => ['asked']])->assertStatus(422);
        $secret = $this->postJson($this->at('settings/hooks'), ['url' => 'https://example.test/told', 'events' => ['asked']])
            ->assertStatus(201)
            ->json('secret');
        Http::fake(['example.test/*' => Http::sequence()->push('', 503)->push('', 204)]);
        $handoff = $this->handoff();
        WebHooks::tell($handoff, 'accepted');
        Http::assertNothingSent();
        $hook = WebHook::query()->sole();
        $body = ['event' => 'asked'];
        (new WebHookJob($hook->id, $body))->handle();
        self::assertSame('It answered with status 503.', $hook->refresh()->trouble);
        (new WebHookJob($hook->id, $body))->handle();
        self::assertNull($hook->refresh()->trouble);
        Http::assertSent(static function (Request $request) use ($secret): bool {
            $moment = (int) $request->header('X-Cartella-Time')[0];

            return hash_equals(
                'sha256=' . hash_hmac('sha256', "$moment." . $request->body(), $secret),
                $request->header('X-Cartella-Signature')[0],
            );
        });
        $this->deleteJson($this->at("settings/hooks/$hook->ulid"))->assertOk();
        self::assertSame(0, WebHook::query()->count());
    }
}
