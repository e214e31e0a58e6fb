<?php

declare(strict_types=1);

namespace Tests\App\People;

use App\Domain\People\Totp;
use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class PeopleTest extends TestCase
{
    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        // Admin of this production only, not of the whole desk.
        $this->admin = $this->person(Role::Assistant);
        $this->production->users()->updateExistingPivot($this->admin->id, ['role' => 'admin']);
    }

    private function signIn(User $user, string $password = 'secret', ?string $code = null): \Illuminate\Testing\TestResponse
    {
        return $this->postJson('/api/session', ['email' => $user->email, 'password' => $password, 'code' => $code]);
    }

    public function test_a_role_is_of_one_production_and_opens_no_other(): void
    {
        $other = Production::query()->create(['name' => 'High Road', 'rate_num' => 24, 'rate_den' => 1]);
        $other->users()->attach($this->admin, ['role' => 'reviewer']);
        $this->actingAs($this->admin)->getJson($this->at('settings/people'))->assertOk();
        $this->getJson("/api/productions/$other->ulid/settings/people")->assertForbidden();
        $this->postJson("/api/productions/$other->ulid/bins", ['name' => 'x'])->assertForbidden();
        $this->postJson('/api/productions', ['name' => 'Mine', 'rate' => '25', 'date' => '2026-10-05'])->assertForbidden();
    }

    public function test_somebody_new_gets_a_first_password_that_has_to_be_changed_before_any_work(): void
    {
        $added = $this->actingAs($this->admin)
            ->postJson($this->at('settings/people'), ['email' => 'noor@example.test', 'name' => 'Noor Adeyemi', 'role' => 'assistant'])
            ->assertStatus(201);
        $noor = User::query()->where('email', 'noor@example.test')->sole();
        $this->deleteJson('/api/session');
        $this->signIn($noor, $added->json('password'))
            ->assertOk()
            ->assertJsonPath('user.needs', 'password')
            ->assertJsonPath('productions', []);
        $this->getJson($this->at(''))->assertForbidden()->assertJsonPath('code', 'account.needs');
        $this->putJson('/api/account/password', ['current' => $added->json('password'), 'password' => 'short'])->assertStatus(422);
        $this->putJson('/api/account/password', ['current' => 'wrong', 'password' => 'long enough now'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'account.password');
        $this->putJson('/api/account/password', ['current' => $added->json('password'), 'password' => 'long enough now'])->assertOk();
        $this->getJson($this->at(''))->assertOk()->assertJsonPath('may.work', true)->assertJsonPath('may.manage', false);
        $this->actingAs($this->admin)
            ->postJson($this->at('settings/people'), ['email' => 'noor@example.test', 'name' => 'x', 'role' => 'editor'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'person.there');
    }

    public function test_roles_change_and_memberships_end_and_both_are_written_down(): void
    {
        $ines = $this->person(Role::Reviewer);
        $this->actingAs($this->admin)
            ->patchJson($this->at("settings/people/$ines->ulid"), ['role' => 'editor'])
            ->assertOk();
        self::assertSame(Role::Editor, $ines->roleIn($this->production));
        $this->deleteJson($this->at("settings/people/$ines->ulid"))->assertOk();
        $this->actingAs($ines)->getJson($this->at(''))->assertNotFound();
        self::assertSame(['role_changed', 'membership_ended'], DB::table('audit')->orderBy('id')->pluck('what')->all());
        $this->actingAs($this->admin)->getJson($this->at('settings/audit'))->assertJsonPath('rows.0.what', 'membership_ended');
    }

    public function test_the_last_admin_stays(): void
    {
        $this->actingAs($this->admin)
            ->patchJson($this->at("settings/people/{$this->admin->ulid}"), ['role' => 'editor'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'person.last_admin');
        $this->deleteJson($this->at("settings/people/{$this->admin->ulid}"))->assertStatus(422);
    }

    public function test_an_admin_of_one_production_takes_over_no_account_that_opens_another(): void
    {
        $desk = $this->person(Role::Admin);
        $shared = $this->person(Role::Editor);
        Production::query()
            ->create(['name' => 'High Road', 'rate_num' => 24, 'rate_den' => 1])
            ->users()
            ->attach($shared);
        foreach ([$desk, $shared] as $person) {
            $this->actingAs($this->admin)
                ->postJson($this->at("settings/people/$person->ulid/password"))
                ->assertStatus(422)
                ->assertJsonPath('code', 'person.beyond');
            $this->deleteJson($this->at("settings/people/$person->ulid/second-factor"))->assertStatus(422);
        }
        $own = $this->person(Role::Editor);
        $password = $this->postJson($this->at("settings/people/$own->ulid/password"))->assertOk()->json('password');
        $this->deleteJson('/api/session');
        $this->signIn($own)->assertStatus(422);
        $this->signIn($own, $password)->assertOk()->assertJsonPath('user.needs', 'password');
    }

    /** @return array<string, array{int, string}> RFC 6238, appendix B, SHA-1; its last six digits */
    public static function vectors(): array
    {
        return [
            '1970' => [59, '287082'],
            '2005' => [1_111_111_109, '081804'],
            '2005, the next step' => [1_111_111_111, '050471'],
            '2009' => [1_234_567_890, '005924'],
            '2033' => [2_000_000_000, '279037'],
            '2603' => [20_000_000_000, '353130'],
        ];
    }

    #[DataProvider('vectors')]
    public function test_codes_are_those_of_the_standard(int $at, string $code): void
    {
        self::assertSame($code, Totp::code('GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ', $at));
    }

    public function test_a_second_factor_is_asked_for_takes_each_code_once_and_recovery_codes_help(): void
    {
        $user = $this->person();
        $this->actingAs($user);
        $secret = $this->postJson('/api/account/second-factor')->assertStatus(201)->json('secret');
        $this->putJson('/api/account/second-factor', ['code' => '000000'])->assertStatus(422);
        $codes = $this->putJson('/api/account/second-factor', ['code' => Totp::code($secret, now()->getTimestamp())])
            ->assertOk()
            ->json('recovery_codes');
        self::assertCount(10, $codes);
        $this->deleteJson('/api/session')->assertOk();
        $this->signIn($user)->assertStatus(422)->assertJsonPath('code', 'session.code');
        $this->signIn($user, 'secret', Totp::code($secret, now()->getTimestamp()))->assertStatus(
            422,
            'the code that it was set up with is used up',
        );
        $this->travel(60)->seconds();
        $code = Totp::code($secret, now()->getTimestamp());
        $this->signIn($user, 'secret', substr($code, 0, 3) . ' ' . substr($code, 3))->assertOk();
        $this->deleteJson('/api/session');
        $this->signIn($user, 'secret', $code)->assertStatus(422);
        $this->signIn($user, 'secret', strtoupper($codes[3]))->assertOk()->assertJsonPath('user.recovery_codes_left', 9);
        $this->deleteJson('/api/session');
        $this->signIn($user, 'secret', $codes[3])->assertStatus(422);
        self::assertStringNotContainsString(
            $secret,
            (string) DB::table('users')->where('id', $user->id)->value('second_factor'),
            'kept encrypted',
        );
    }

    public function test_an_admin_can_require_a_second_factor_and_nothing_opens_before_it_is_set_up(): void
    {
        $ines = $this->person(Role::Editor);
        $this->actingAs($this->admin)
            ->patchJson($this->at("settings/people/$ines->ulid"), ['must_use_second_factor' => true])
            ->assertOk();
        $this->actingAs($ines->refresh())->getJson($this->at(''))->assertForbidden()->assertJsonPath('context.needs', 'second_factor');
        $secret = $this->postJson('/api/account/second-factor')->json('secret');
        $this->putJson('/api/account/second-factor', ['code' => Totp::code($secret, now()->getTimestamp())])->assertOk();
        $this->getJson($this->at(''))->assertOk();
    }

    public function test_addresses_are_compared_exactly(): void
    {
        $rosa = $this->person();
        $rosa->update(['email' => 'rosa@example.test']);
        foreach (['ROSA@example.test', 'rosá@example.test', 'rosa@example.test ', 'ｒosa@example.test'] as $like) {
            $this->postJson('/api/session', [
                'email' => $like === 'rosa@example.test ' ? "rosa@example.test\u{A0}x" : $like,
                'password' => 'secret',
            ])->assertStatus(422);
        }
        $this->signIn($rosa)->assertOk();
        User::query()->create(['name' => 'Another', 'email' => 'Rosa@example.test', 'password' => 'other', 'role' => Role::Reviewer]);
        self::assertSame(2, User::query()->where('email', 'like', '%osa@example.test')->count());
    }

    /** @return array<string, array{array<string, mixed>}> */
    public static function shapes(): array
    {
        return [
            'a list for the address' => [['email' => ['a'], 'password' => 'x']],
            'a list for the password' => [['email' => 'a@b.test', 'password' => ['x' => 1]]],
            'a list for the code' => [['email' => 'a@b.test', 'password' => 'x', 'code' => [1]]],
            'nothing' => [[]],
        ];
    }

    /** @param  array<string, mixed>  $body */
    #[DataProvider('shapes')]
    public function test_a_field_of_another_shape_is_refused_with_a_sentence(array $body): void
    {
        $this->postJson('/api/session', $body)->assertStatus(422)->assertJsonPath('code', 'input.invalid');
    }

    public function test_failures_are_counted_by_account_by_address_and_altogether(): void
    {
        for ($try = 0; $try < 10; $try++) {
            $this->withServerVariables(['REMOTE_ADDR' => "10.0.0.$try"])
                ->postJson('/api/session', ['email' => 'rosa@example.test', 'password' => "x$try"])
                ->assertStatus(422);
        }
        $this->withServerVariables(['REMOTE_ADDR' => '10.0.1.1'])
            ->postJson('/api/session', ['email' => 'Rosa@example.test', 'password' => 'y'])
            ->assertStatus(429);
        for ($try = 0; $try < 40; $try++) {
            $this->withServerVariables(['REMOTE_ADDR' => '10.9.9.9'])->postJson('/api/session', [
                'email' => "somebody$try@example.test",
                'password' => 'x',
            ]);
        }
        $this->postJson('/api/session', ['email' => 'fresh@example.test', 'password' => 'x'])->assertStatus(429);
        $user = $this->person();
        $this->withServerVariables(['REMOTE_ADDR' => '10.0.2.2'])
            ->postJson('/api/session', ['email' => $user->email, 'password' => 'secret'])
            ->assertOk();
    }

    public function test_the_audit_is_only_ever_added_to(): void
    {
        $this->postJson('/api/session', ['email' => 'nobody@example.test', 'password' => 'x']);
        self::assertSame(['sign_in_refused', 'nobody@example.test'], [DB::table('audit')->value('what'), DB::table('audit')->value('who')]);
        foreach (
            ['update' => static fn() => DB::table('audit')->update(['who' => 'x']), 'delete' => static fn() => DB::table('audit')->delete()]
            as $what => $change
        ) {
            try {
                $change();
                self::fail("$what went through");
            } catch (QueryException $refusal) {
                self::assertStringContainsString('only ever added to', $refusal->getMessage());
            }
        }
    }

    public function test_a_persons_own_keys_are_kept_and_come_with_the_session(): void
    {
        $this->as(Role::Reviewer);
        $keys = ['screening/play' => ['Space', 'p']];
        $this->putJson('/api/account/keys', ['keys' => $keys])->assertOk();
        self::assertSame($keys, $this->getJson('/api/session')->json('user.own_keys'));
        foreach ([array_fill(0, 13, 'p'), [], [str_repeat('p', 31)], [['p']]] as $bad) {
            $this->putJson('/api/account/keys', ['keys' => ['screening/play' => $bad]])->assertStatus(422);
        }
        self::assertSame($keys, $this->getJson('/api/session')->json('user.own_keys'), 'what was refused changed nothing');
        $this->putJson('/api/account/keys', ['keys' => []])->assertOk();
        self::assertSame([], $this->getJson('/api/session')->json('user.own_keys'));
    }

    public function test_how_wide_a_panel_is_stays_with_the_person(): void
    {
        $this->as()
            ->putJson('/api/account/panels', ['panels' => ['log' => 520]])
            ->assertOk();
        $this->getJson('/api/session')->assertJsonPath('user.panels.log', 520);
        $this->putJson('/api/account/panels', ['panels' => ['elsewhere' => 520]])->assertStatus(422);
        $this->putJson('/api/account/panels', ['panels' => ['log' => 9]])->assertStatus(422);
        $this->as(Role::Editor)->getJson('/api/session')->assertJsonPath('user.panels', []);
    }
}
