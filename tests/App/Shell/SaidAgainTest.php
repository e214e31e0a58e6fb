<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Domain\Health\Prune;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

/** A change whose answer a page never heard, asked for again. */
final class SaidAgainTest extends TestCase
{
    private const NAME = 'c0ffee00c0ffee00c0ffee00';

    /** @return list<string> names of cuts, each made by a request */
    private function cuts(): array
    {
        return array_column($this->getJson($this->at('cuts'))->json('cuts'), 'name');
    }

    public function test_it_is_done_once_and_answered_as_the_first_time(): void
    {
        $this->as();
        $first = $this->postJson($this->at('cuts'), ['name' => 'First'], ['Idempotency-Key' => self::NAME])->assertCreated();
        $again = $this->postJson(
            $this->at('cuts'),
            ['name' => 'First'],
            ['Idempotency-Key' => self::NAME, 'X-Again' => '1'],
        )->assertCreated();
        self::assertSame($first->json('ulid'), $again->json('ulid'));
        self::assertSame(['First'], $this->cuts());
    }

    public function test_a_token_that_is_shown_once_cannot_be_read_from_what_is_kept(): void
    {
        $said = $this->as(Role::Admin)
            ->postJson($this->at('settings/tokens'), ['name' => 'Wall clock'], ['Idempotency-Key' => self::NAME])
            ->assertSuccessful()
            ->json('secret');
        self::assertIsString($said);
        $kept = (string) json_encode(DB::table('kept_answers')->get());
        self::assertStringNotContainsString($said, $kept);
        self::assertStringNotContainsString(self::NAME, $kept);
        $this->postJson(
            $this->at('settings/tokens'),
            ['name' => 'Wall clock'],
            ['Idempotency-Key' => self::NAME, 'X-Again' => '1'],
        )->assertJsonPath('secret', $said);
    }

    public function test_one_that_never_came_is_done_and_a_refusal_is_given_again(): void
    {
        $this->as();
        $this->postJson($this->at('cuts'), ['name' => 'Never came'], ['Idempotency-Key' => self::NAME, 'X-Again' => '1'])->assertCreated();
        $other = 'deadbeefdeadbeefdeadbeef';
        $this->postJson($this->at('cuts'), [], ['Idempotency-Key' => $other])->assertStatus(422);
        $this->postJson($this->at('cuts'), ['name' => 'x'], ['Idempotency-Key' => $other, 'X-Again' => '1'])->assertStatus(422);
        self::assertSame(['Never came'], $this->cuts());
    }

    public function test_nobody_hears_what_another_person_was_answered_and_after_an_hour_nobody_does(): void
    {
        $this->as()
            ->postJson($this->at('cuts'), ['name' => 'Hers'], ['Idempotency-Key' => self::NAME])
            ->assertCreated();
        $this->as()
            ->postJson($this->at('cuts'), ['name' => 'His'], ['Idempotency-Key' => self::NAME, 'X-Again' => '1'])
            ->assertJsonPath('name', 'His');
        $this->travel(2)->hours();
        self::assertSame(2, DB::table('kept_answers')->count());
        app(Prune::class)();
        self::assertSame(0, DB::table('kept_answers')->count());
    }
}
