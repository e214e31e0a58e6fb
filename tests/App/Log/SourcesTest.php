<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Domain\Footage\TakeFacts;
use App\Domain\Undo\ChangeLog;
use App\Models\Take;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

/** What sound, script notes, names and people say of one take. */
final class SourcesTest extends TestCase
{
    /** @param  array<string, string|bool>  $fields */
    private function says(Take $take, string $source, array $fields, string $place = 'notes.csv'): void
    {
        $log = new ChangeLog();
        TakeFacts::say($take, $source, $place, $fields, $log);
        $log->save($take);
    }

    /** @return list<string> */
    private function open(): array
    {
        return array_values(
            array_filter(
                array_column($this->getJson($this->onDay('sheet'))->json('points'), 'key'),
                static fn(string $key): bool => str_starts_with($key, 'differ.'),
            ),
        );
    }

    public function test_script_notes_stand_above_the_recorder_and_the_difference_is_asked_about(): void
    {
        $take = $this->take('3', 1);
        $this->clip('3-T01', 'S', 0, take: $take);
        $this->says($take, 'ixml', ['status' => 'ng'], '3-T01');
        $this->says($take, 'script', ['status' => 'circled']);
        self::assertSame('circled', $take->refresh()->status);
        $this->as();
        $point = array_values(
            array_filter(
                $this->getJson($this->onDay('sheet'))->json('points'),
                static fn(array $point): bool => $point['key'] === "differ.$take->ulid.status",
            ),
        )[0];
        self::assertStringContainsString('The recorder (3-T01) says “ng”', $point['evidence']);
        self::assertStringContainsString('notes.csv says “circled”', $point['evidence']);
        $this->postJson($this->onDay('points'), ['key' => $point['key'], 'fix' => $this->fix($point, 'Use “ng”')])->assertOk();
        self::assertSame('ng', $take->refresh()->status);
        self::assertSame([], $this->open());
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([1, 'circled'], [count($this->open()), $take->refresh()->status]);
    }

    /** @param  array<string, mixed>  $point */
    private function fix(array $point, string $label): string
    {
        return array_column($point['fixes'], 'name', 'label')[$label];
    }

    /** @return list<array<string, mixed>> */
    private function disputes(Take $take): array
    {
        return array_column($this->getJson($this->onDay('log'))->json('takes'), 'disputes', 'ulid')[$take->ulid];
    }

    public function test_of_two_files_of_notes_each_button_writes_its_own_files_value(): void
    {
        $take = $this->take('3', 1);
        $this->clip('A001C001', 'A', 0, take: $take);
        $this->says($take, 'script', ['size' => 'Wide'], 'script-notes.csv');
        $this->says($take, 'script', ['size' => 'Close'], 'camera-report.csv');
        $this->says($take, 'script', ['size' => 'Medium'], 'slate-log.csv');
        $this->as();
        $point = array_values(
            array_filter(
                $this->getJson($this->onDay('sheet'))->json('points'),
                static fn(array $point): bool => $point['key'] === "differ.$take->ulid.size",
            ),
        )[0];
        self::assertStringContainsString('three sources differ', $point['title']);
        self::assertStringStartsWith('slate-log.csv says “Medium”', $point['evidence']);
        $this->postJson($this->onDay('points'), ['key' => $point['key'], 'fix' => $this->fix($point, 'Use “Wide”')])->assertOk();
        self::assertSame('Wide', $take->refresh()->size);
        $this->postJson($this->at('undo'));
        $this->postJson($this->onDay('points'), ['key' => $point['key'], 'fix' => $this->fix($point, 'Use “Close”')])->assertOk();
        self::assertSame('Close', $take->refresh()->size);
    }

    public function test_of_two_recorders_the_one_whose_word_was_chosen_counts(): void
    {
        $take = $this->take('3', 1);
        $this->says($take, 'script', ['status' => 'circled']);
        $this->says($take, 'ixml', ['status' => 'ng'], 'S-T01');
        $this->says($take, 'ixml', ['status' => 'hold'], 'T-T01');
        $this->as();
        $said = array_column($this->disputes($take)[0]['said'], 'id', 'value');
        $this->postJson($this->at("takes/$take->ulid/settle"), ['field' => 'status', 'said' => $said['hold']])->assertOk();
        self::assertSame('hold', $take->refresh()->status);
    }

    public function test_a_button_never_writes_what_its_file_has_come_to_say_since(): void
    {
        $take = $this->take('3', 1, ['size' => 'Wide', 'set_by' => ['size' => ['by' => 'person', 'at' => 1]]]);
        $this->says($take, 'script', ['size' => 'Close']);
        $this->as();
        $said = $this->disputes($take)[0]['said'][0]['id'];
        $this->says($take->refresh(), 'script', ['size' => 'Medium']);
        $this->postJson($this->at("takes/$take->ulid/settle"), ['field' => 'size', 'said' => $said])
            ->assertStatus(422)
            ->assertJsonPath('code', 'settle.none');
        self::assertSame('Wide', $take->refresh()->size);
    }

    public function test_a_field_of_the_productions_own_is_settled_like_any_other(): void
    {
        $this->as()
            ->postJson($this->at('settings/fields'), ['label' => 'Lens', 'type' => 'text'])
            ->assertCreated();
        $this->production->refresh();
        $key = 'own:lens';
        $take = $this->take('3', 1)->setRelation('production', $this->production);
        $this->clip('A001C001', 'A', 0, take: $take);
        $this->says($take, 'script', [$key => '32 mm'], 'a.csv');
        $this->says($take, 'script', [$key => '50 mm'], 'b.csv');
        $this->as();
        $point = array_values(
            array_filter(
                $this->getJson($this->onDay('sheet'))->json('points'),
                static fn(array $point): bool => $point['key'] === "differ.$take->ulid.$key",
            ),
        )[0];
        $this->postJson($this->onDay('points'), ['key' => $point['key'], 'fix' => $this->fix($point, 'Use “32 mm”')])->assertOk();
        self::assertSame('32 mm', $take->refresh()->valueOf($key));
    }

    /** @return array<string, array{string, string|bool, string|bool}> field, a person's value, a machine's */
    public static function fields(): array
    {
        return [
            'description' => ['description', 'Mara turns', 'Mara stays'],
            'size' => ['size', 'Wide', 'Close'],
            'status' => ['status', 'hold', 'circled'],
            'emptied by a person' => ['description', '', 'Mara stays'],
        ];
    }

    #[DataProvider('fields')]
    public function test_a_persons_entry_is_never_overwritten_by_a_machines(string $field, string|bool $mine, string|bool $theirs): void
    {
        $take = $this->take('3', 1, ['description' => 'before']);
        $was = $field === 'description' ? 'before' : ($field === 'status' ? 'none' : '');
        $this->as()
            ->patchJson($this->at("takes/$take->ulid"), ['changes' => [$field => ['was' => $was, 'now' => $mine]]])
            ->assertOk();
        $this->travel(5)->minutes();
        $this->says($take->refresh(), 'script', [$field => $theirs]);
        self::assertSame($mine, $take->refresh()->{$field});
        self::assertCount(1, $this->open(), 'and the difference is asked about');
    }

    public function test_notes_and_keywords_of_all_sources_add_up(): void
    {
        $take = $this->take('3', 1);
        $this->says($take, 'ixml', ['notes' => 'boom in'], '3-T01');
        $this->says($take, 'script', ['notes' => 'good turn', 'keywords' => 'ledger']);
        $this->says($take, 'script', ['notes' => 'good turn', 'keywords' => 'ledger'], 'again.csv');
        self::assertSame(["boom in\ngood turn", 'ledger'], [$take->refresh()->notes, $take->keywords]);
        $this->as();
        self::assertSame([], $this->open());
    }

    public function test_one_answer_can_settle_all_that_are_alike(): void
    {
        foreach ([1, 2, 3] as $n) {
            $take = $this->take('3', $n);
            $this->says($take, 'script', ['size' => 'Wide']);
            $this->says($take, 'ixml', ['size' => 'Close'], "3-T0$n");
        }
        $this->as();
        self::assertCount(3, $this->open());
        $recorder = $this->disputes($take)[0]['said'][0]['id'];
        $this->postJson($this->at("takes/$take->ulid/settle"), ['field' => 'size', 'said' => $recorder, 'alike' => true])
            ->assertOk()
            ->assertJsonPath('settled', 3);
        self::assertSame(['Close', 'Close', 'Close'], Take::query()->pluck('size')->all());
        self::assertSame([], $this->open());
        $this->postJson($this->at('undo'));
        self::assertCount(3, $this->open());
        $this->postJson($this->at("takes/$take->ulid/settle"), ['field' => 'size', 'said' => 'now'])->assertJsonPath('settled', 1);
        self::assertCount(2, $this->open());
    }

    public function test_numbers_that_disagree_are_settled_alike_too(): void
    {
        foreach ([1, 2] as $n) {
            $this->take('3A', $n, [
                'claims' => [
                    ['from' => 'ixml', 'where' => 'x', 'setup' => '3A', 'take' => $n, 'part' => ''],
                    ['from' => 'name', 'where' => 'y', 'setup' => '3A', 'take' => $n + 10, 'part' => ''],
                ],
            ]);
        }
        $this->as()
            ->postJson($this->at('takes/' . Take::query()->where('take', 1)->value('ulid') . '/settle'), [
                'field' => 'slate',
                'said' => 'name',
                'alike' => true,
            ])
            ->assertJsonPath('settled', 2);
        self::assertSame([11, 12], Take::query()->orderBy('take')->pluck('take')->all());
    }

    public function test_a_take_of_the_script_notes_that_no_file_shows_is_an_open_point(): void
    {
        $this->says($this->take('7A', 3), 'script', ['description' => 'Over Quill']);
        $this->as();
        $point = array_values(
            array_filter(
                $this->getJson($this->onDay('sheet'))->json('points'),
                static fn(array $point): bool => $point['title'] === 'No file shows 7A/3',
            ),
        )[0];
        self::assertStringContainsString('It is in notes.csv', $point['evidence']);
    }
}
