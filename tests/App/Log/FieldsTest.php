<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Domain\Footage\GiveNames;
use App\Domain\Handoff\ExchangeSequence;
use App\Domain\Handoff\PackageLog;
use App\Domain\Handoff\PackagePaths;
use App\Domain\Screening\BuildReel;
use App\Domain\Screening\ReelFrom;
use App\Domain\Screening\ReelRecipe;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\ProductionField;
use App\Models\Take;
use App\Models\User;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;
use Illuminate\Http\UploadedFile;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

/** The law of fields: each one survives editing, script notes, naming, lists and metadata; a production's own ones as well. */
final class FieldsTest extends TestCase
{
    private User $rosa;

    private Take $take;

    protected function setUp(): void
    {
        parent::setUp();
        $this->rosa = $this->person();
        $this->actingAs($this->rosa);
        foreach (
            [
                ['label' => 'Lens', 'type' => 'text'],
                ['label' => 'Filter stops', 'type' => 'number'],
                ['label' => 'Light', 'type' => 'choice', 'choices' => ['day', 'dusk', 'night']],
                ['label' => 'Plate', 'type' => 'yes_no'],
            ]
            as $own
        ) {
            $this->postJson($this->at('settings/fields'), $own)->assertCreated();
        }
        $this->take = $this->take('12A', 3);
        $clip = $this->clip('A001C001', 'A', 10, 20, $this->take);
        $clip->update(['proxied_at' => now()]);
    }

    /** @return iterable<string, array{string, string|bool}> key and a value */
    public static function fields(): iterable
    {
        $values = [
            'description' => 'Mara listens',
            'size' => 'Close',
            'status' => 'circled',
            'notes' => 'gull on the boom',
            'keywords' => 'gull, boom',
        ];
        foreach (TakeFields::standard()->all() as $field) {
            if ($field->type !== FieldType::Slate && $field->type !== FieldType::Devices) {
                yield $field->key => [$field->key, $values[$field->key] ?? true];
            }
        }
        yield 'own text' => ['own:lens', '35 mm'];
        yield 'own number' => ['own:filterstops', '0.9'];
        yield 'own choice' => ['own:light', 'dusk'];
        yield 'own yes or no' => ['own:plate', true];
    }

    private function field(string $key): Field
    {
        return $this->production->fresh()->fields()->get($key) ?? throw new \LogicException("No field $key");
    }

    private function edit(string $key, mixed $was, mixed $now): void
    {
        $this->patchJson($this->at("takes/{$this->take->ulid}"), ['changes' => [$key => ['was' => $was, 'now' => $now]]])->assertOk();
    }

    /** @return array<string, mixed> */
    private function row(): array
    {
        return $this->getJson($this->onDay('log'))->assertOk()->json('takes.0');
    }

    #[DataProvider('fields')]
    public function test_what_is_typed_stands_in_the_sheet_and_is_taken_back_by_itself(string $key, string|bool $value): void
    {
        $this->edit($key, $this->field($key)->nothing(), $value);
        self::assertSame($value, $this->row()[$key]);
        // A colleague's word on another field of the same kind stays when this one is taken back.
        $other = $key === 'own:lens' ? 'own:filterstops' : 'own:lens';
        $this->actingAs($this->person());
        $this->edit($other, '', '50');
        $this->actingAs($this->rosa);
        $this->postJson($this->at('undo'))->assertOk()->assertJsonPath('stayed', []);
        self::assertSame(
            ['50', $this->field($key)->nothing()],
            [$this->row()[$other], $this->row()[$key] ?? $this->field($key)->nothing()],
        );
    }

    #[DataProvider('fields')]
    public function test_script_notes_bring_it_in(string $key, string|bool $value): void
    {
        $field = $this->field($key);
        $isMark = $field->type === FieldType::YesNo && !$field->isOwn();
        $heading = $isMark ? 'Marks' : $field->headings[0];
        $cell = $isMark ? $field->label : ($value === true ? 'x' : ($key === 'status' ? 'circled' : $value));
        $file = UploadedFile::fake()->createWithContent('notes.csv', "Setup;Take;$heading\n12A;3;\"$cell\"\n");
        $notes = $this->post($this->onDay('notes'), ['file' => $file])
            ->assertCreated()
            ->json();
        self::assertSame($isMark ? 'marks' : $key, $notes['columns']['2'] ?? $notes['columns'][2], 'the column is known by its heading');
        $this->postJson($this->at("notes/{$notes['ulid']}/preview"), ['heading' => 0, 'columns' => $notes['columns']])->assertStatus(202);
        $this->postJson($this->at("notes/{$notes['ulid']}/apply"))->assertStatus(202);
        self::assertSame($value, $this->row()[$key]);
    }

    #[DataProvider('fields')]
    public function test_it_stands_in_names_lists_and_metadata(string $key, string|bool $value): void
    {
        $this->edit($key, $this->field($key)->nothing(), $value);
        $field = $this->field($key);
        $text = $field->text($value);
        $take = $this->take->refresh();
        $name = app(GiveNames::class)->preview($this->production->fresh(), 'takes', [$take->ulid], "{setup} {{$field->name}}")[0];
        self::assertSame("12A $text", $name['name']);

        $handoff = Handoff::query()->create([
            'production_id' => $this->production->id,
            'number' => 1,
            'title' => 'x',
            'chosen' => ['days' => [$this->day->ulid]],
            'folder' => 'x',
            'state' => 'packing',
        ]);
        $clips = Clip::query()
            ->with(['day', 'device', 'card', 'parts.take', 'placement', 'production'])
            ->get();
        $csv = CsvWriter::write(...PackageLog::table($clips, $handoff->refresh(), new PackagePaths()));
        self::assertStringContainsString($text, $csv);

        $reel = app(BuildReel::class)($this->day, $this->rosa, 'all', new ReelRecipe(ReelFrom::Days, [$this->day->ulid], false));
        $playlist = Playlist::of($reel->fresh(), app(SequenceStore::class)->read($reel->fresh()));
        $sequence = app(ExchangeSequence::class)->of($playlist, static fn(Clip $clip): string => $clip->name);
        self::assertSame($value, $sequence->tracks[0]->items[0]->metadata[$key] ?? null);
        self::assertStringContainsString(json_encode($value), OtioWriter::write($sequence));
    }

    public function test_a_field_is_checked_searched_renamed_and_retired_with_its_values_kept(): void
    {
        $this->edit('own:light', '', 'dusk');
        $change = fn(string $key, mixed $now) => $this->patchJson($this->at("takes/{$this->take->ulid}"), [
            'changes' => [$key => ['was' => $key === 'own:light' ? 'dusk' : '', 'now' => $now]],
        ]);
        $change('own:light', 'noon')->assertStatus(422)->assertJsonPath('message', 'Light cannot be that.');
        $change('own:filterstops', 'some')->assertStatus(422);
        $change('own:nobody', 'x')->assertStatus(422);
        self::assertSame('12A', $this->getJson($this->at('search?q=dusk'))->json('hits.0.take.setup'));
        self::assertSame([], $this->getJson($this->at('search?q=light'))->json('hits'), 'what a field is called finds nothing');

        $light = ProductionField::query()->where('name', 'light')->sole();
        $this->patchJson($this->at("settings/fields/$light->ulid"), ['label' => 'Time of day', 'retired' => true])->assertOk();
        self::assertNotContains('own:light', array_column($this->getJson($this->at(''))->json('fields'), 'key'));
        $change('own:light', 'night')->assertStatus(422);
        $this->patchJson($this->at("settings/fields/$light->ulid"), ['retired' => false])->assertOk();
        self::assertSame('dusk', $this->row()['own:light']);
        $this->postJson($this->at('settings/fields'), ['label' => 'Time of day', 'type' => 'text'])->assertStatus(422);
        $this->postJson($this->at('settings/fields'), ['label' => 'Notes', 'type' => 'text'])->assertStatus(422);
        $this->postJson($this->at('settings/fields'), ['label' => 'Empty list', 'type' => 'choice'])->assertStatus(422);
    }

    public function test_the_history_of_a_take_says_what_became_of_a_field(): void
    {
        $this->edit('own:filterstops', '', '1,50');
        self::assertSame(
            [['field' => 'Filter stops', 'from' => '', 'to' => '1.5']],
            $this->getJson($this->at("takes/{$this->take->ulid}/history"))->json('steps.0.fields'),
        );
    }
}
