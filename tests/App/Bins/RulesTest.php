<?php

declare(strict_types=1);

namespace Tests\App\Bins;

use App\Domain\Bins\EntryKind;
use App\Domain\Bins\RuleSql;
use App\Domain\Bins\RuleSubjects;
use App\Domain\Words\PassageWords;
use App\Models\Bin;
use App\Models\Clip;
use App\Models\Role;
use App\Models\SequenceKind;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\Transcript;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Rules\Rule;
use Cartella\Core\Rules\Subject;
use Cartella\Core\Rules\SubjectType;
use Cartella\Core\Rules\Test;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Word;
use Database\Factories\ShootDayFactory;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Collection;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\App\TestCase;

/** Rules: the database's answer against that of plain PHP over the same things, and what people do with rule bins. */
final class RulesTest extends TestCase
{
    private const WORDS = ['gull', 'Möwe', 'the tide', 'TIDE 50%', 'a_b', 'Mara', 'rope', ''];

    public function test_the_database_lets_through_what_plain_php_does(): void
    {
        $seed = (int) (getenv('RULES_SEED') ?: 20261129);
        $random = new Randomizer(new Mt19937($seed));
        $this->fillAtRandom($random);
        $subjects = RuleSubjects::of($this->production);
        $things = $this->things();
        $sql = new RuleSql($this->production, $subjects);
        $let = 0;
        for ($n = 0; $n < 250; $n++) {
            $json = $this->randomRule($random, $subjects, 1);
            $rule = Rule::of($json, $subjects);
            $expected = [];
            foreach ($things as $ref => $facts) {
                if ($rule->matches(static fn(string $about): array => [$subjects[$about]->type, $facts[$about] ?? []])) {
                    $expected[] = $ref;
                }
            }
            $found = [];
            foreach ($sql->entries($rule, EntryKind::cases()) as ['kind' => $kind, 'query' => $query]) {
                foreach ($query->pluck("{$kind->table()}.ulid") as $ulid) {
                    $found[] = "$kind->value:$ulid";
                }
            }
            sort($expected);
            sort($found);
            self::assertSame($expected, $found, "seed $seed, rule $n: {$rule->sentence($subjects)} " . json_encode($json));
            $let += count($expected) > 0 && count($expected) < count($things) ? 1 : 0;
        }
        self::assertGreaterThan(60, $let, 'rules that let some things through and not others');
    }

    public function test_a_rule_bin_fills_itself_and_says_its_rule(): void
    {
        $circled = $this->take('3', 1, ['status' => 'circled']);
        $this->clip('A001C001', 'A', 0, 10, $circled);
        $other = $this->take('3', 2);
        $this->clip('A001C002', 'A', 20, 10, $other);
        $rule = ['join' => 'all', 'parts' => [self::is('entry', 'take'), self::is('status', 'circled')]];
        $bin = $this->as(Role::Editor)
            ->postJson($this->at('bins'), ['name' => 'Circled', 'rule' => $rule])
            ->assertCreated()
            ->json('key');
        $page = $this->getJson($this->at("bins/$bin/items"))->assertOk();
        $page
            ->assertJsonPath('total', 1)
            ->assertJsonPath('rows.0.name', '3/1')
            ->assertJsonPath('ticks', 10 * Ticks::PER_SECOND);
        $page->assertJsonPath('sentence', 'Everything that is a take, that is circled');
        $other->update(['status' => 'circled']);
        self::assertSame(2, $this->getJson($this->at('bins/counts'))->json('counts')[$bin]);
        $this->postJson($this->at("bins/$bin/items"), ['refs' => ["take:$other->ulid"]])
            ->assertStatus(422)
            ->assertJsonPath('code', 'bin.fills_itself');
    }

    public function test_a_rule_that_is_being_written_is_looked_at_before_it_is_kept(): void
    {
        $this->clip('A001C001', 'A', 0, 10);
        $this->clip('A001C002', 'A', 20, 40);
        $look = fn(string $test, array $values) => $this->postJson($this->at('bins/look'), [
            'rule' => ['join' => 'all', 'parts' => [['about' => 'length', 'test' => $test, 'values' => $values]]],
        ]);
        $this->as(Role::Editor);
        $look('least', ['30'])
            ->assertOk()
            ->assertJsonPath('total', 1)
            ->assertJsonPath('rows.0.name', 'A001C002');
        $look('contains', ['30'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'bin.rule');
        self::assertSame(0, Bin::query()->count());
    }

    public function test_rules_that_ask_in_a_ring_are_refused_and_a_bin_that_is_asked_for_stays(): void
    {
        $this->as();
        $make = fn(string $name, array $parts): string => $this->postJson($this->at('bins'), [
            'name' => $name,
            'rule' => ['join' => 'all', 'parts' => $parts],
        ])
            ->assertCreated()
            ->json('key');
        $first = $make('First', []);
        $second = $make('Second', [self::is('rule', $first)]);
        $set = fn(string $bin, string $asked) => $this->patchJson($this->at("bins/$bin"), [
            'rule' => ['join' => 'any', 'parts' => [['join' => 'none', 'parts' => [self::is('rule', $asked)]]]],
        ]);
        $set($first, $first)->assertStatus(422)->assertJsonPath('code', 'bin.loop');
        $set($first, $second)->assertStatus(422)->assertJsonPath('code', 'bin.loop');
        $this->deleteJson($this->at("bins/$first"))->assertStatus(422)->assertJsonPath('code', 'bin.asked');
        $this->deleteJson($this->at("bins/$second"))->assertOk();
        $this->deleteJson($this->at("bins/$first"))->assertOk();
    }

    public function test_a_rule_is_changed_and_comes_back_by_undo(): void
    {
        $this->clip('A001C001', 'A', 0, 10);
        $this->clip('B001C001', 'B', 0, 10);
        $bin = $this->as()
            ->postJson($this->at('bins'), ['name' => 'Of A', 'rule' => ['join' => 'all', 'parts' => [self::is('device', 'A')]]])
            ->json('key');
        $this->patchJson($this->at("bins/$bin"), ['rule' => ['join' => 'all', 'parts' => [self::is('device', 'B')]]])->assertOk();
        $names = fn(): array => array_column($this->getJson($this->at("bins/$bin/items"))->json('rows'), 'name');
        self::assertSame(['B001C001'], $names());
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Change the rule of Of A');
        self::assertSame(['A001C001'], $names());
    }

    public function test_a_rule_that_a_colleague_changed_meanwhile_is_not_written_over(): void
    {
        $rule = static fn(string $letter): array => ['join' => 'all', 'parts' => [self::is('device', $letter)]];
        $bin = $this->as()
            ->postJson($this->at('bins'), ['name' => 'One', 'rule' => $rule('A')])
            ->json('key');
        $this->as(Role::Editor)
            ->patchJson($this->at("bins/$bin"), ['rule' => $rule('B'), 'was' => $rule('A')])
            ->assertOk();
        $this->as()
            ->patchJson($this->at("bins/$bin"), ['rule' => $rule('S'), 'was' => $rule('A')])
            ->assertStatus(422)
            ->assertJsonPath('code', 'bin.changed');
        self::assertSame($rule('B'), Bin::query()->sole()->rule);
    }

    public function test_a_frozen_bin_keeps_what_lay_in_it(): void
    {
        $clip = $this->clip('A001C001', 'A', 0, 10);
        $bin = $this->as()
            ->postJson($this->at('bins'), ['name' => 'Of A', 'rule' => ['join' => 'all', 'parts' => [self::is('device', 'A')]]])
            ->json('key');
        $frozen = $this->postJson($this->at("bins/$bin/freeze"))->assertCreated()->json('key');
        $clip->update(['device_id' => $this->devices['B']->id]);
        self::assertSame(
            [0, 1],
            array_map(fn(string $key): int => $this->getJson($this->at("bins/$key/items"))->json('total'), [$bin, $frozen]),
        );
        $this->postJson($this->at('undo'))->assertOk();
        $this->getJson($this->at("bins/$frozen/items"))->assertNotFound();
    }

    public function test_a_field_that_became_another_breaks_no_bin(): void
    {
        $this->clip('A001C001', 'A', 0, 10, $this->take('3', 1, ['own' => ['lens' => '50']]));
        $field = $this->production->productionFields()->create(['name' => 'lens', 'label' => 'Lens', 'type' => 'text', 'choices' => []]);
        $rule = ['join' => 'all', 'parts' => [['about' => 'own:lens', 'test' => 'contains', 'values' => ['5']]]];
        $bin = $this->as()
            ->postJson($this->at('bins'), ['name' => 'Lens', 'rule' => $rule])
            ->assertCreated()
            ->json('key');
        $this->getJson($this->at("bins/$bin/items"))->assertJsonPath('total', 1);
        $field->update(['type' => 'number']);
        $this->getJson($this->at("bins/$bin/items"))->assertOk()->assertJsonPath('total', 0);
        self::assertSame(0, $this->getJson($this->at('bins/counts'))->assertOk()->json('counts')[$bin]);
    }

    public function test_a_rule_about_a_field_that_is_gone_lets_nothing_through(): void
    {
        $this->clip('A001C001', 'A', 0, 10);
        $bin = Bin::query()->create([
            'production_id' => $this->production->id,
            'name' => 'Lens',
            'rule' => ['join' => 'all', 'parts' => [['about' => 'own:lens', 'test' => 'is', 'values' => ['50']]]],
        ]);
        $this->as()->getJson($this->at("bins/$bin->ulid/items"))->assertOk()->assertJsonPath('total', 0);
    }

    /** @return array{about: string, test: string, values: list<string>} */
    private static function is(string $about, string ...$values): array
    {
        return ['about' => $about, 'test' => 'is', 'values' => array_values($values)];
    }

    private function fillAtRandom(Randomizer $random): void
    {
        $any = static fn(array $of): mixed => $of[$random->getInt(0, count($of) - 1)];
        foreach (['lens' => 'number', 'weather' => 'text', 'wet' => 'yes_no'] as $name => $type) {
            $this->production->productionFields()->create(['name' => $name, 'label' => ucfirst($name), 'type' => $type, 'choices' => []]);
        }
        $days = [
            $this->day,
            ShootDayFactory::new()->createOne(['production_id' => $this->production->id, 'number' => 2, 'date' => '2026-10-09']),
        ];
        $takes = [];
        for ($n = 0; $n < 26; $n++) {
            $takes[] = $this->take($any(['3', '3A', '12', '12-14', '7B']), $n + 1, [
                'shoot_day_id' => $any($days)->id,
                'status' => $any(TakeStatus::cases())->value,
                'description' => $any(self::WORDS),
                'notes' => $any([null, ...self::WORDS]),
                'keywords' => $any(self::WORDS),
                'size' => $any(['Wide', 'Close', 'odd', '']),
                'is_mos' => $any([true, false]),
                'own' => $any([null, ['lens' => '50', 'wet' => true], ['lens' => '27.5', 'weather' => 'Möwe'], ['wet' => false]]),
            ]);
        }
        $clips = [];
        for ($n = 0; $n < 50; $n++) {
            $clip = $this->clip(
                $any(self::WORDS) . " C$n",
                $any(['A', 'B', 'S']),
                10 * $n,
                $random->getInt(1, 90),
                $any([null, ...$takes]),
                [
                    'shoot_day_id' => $any($days)->id,
                    'label' => $any([null, 'gull 1', 'Möwe 2']),
                    'import_kind' => $any([null, null, 'music']),
                    'colour' => $any([null, 'rust', 'teal']),
                    'channels' => $any([null, [], [['index' => 1, 'name' => 'Boom']]]),
                    'problems' => $any([null, [], ['Its end is missing.']]),
                    'device_id' => $any([null, $this->devices['A']->id, $this->devices['S']->id]),
                ],
            );
            if ($random->getInt(0, 3) === 0) {
                $clip->parts()->create(['take_id' => $takes[$n % 26]->id, 'in_ticks' => 5, 'out_ticks' => 50, 'said_by' => 'person']);
            }
            if ($random->getInt(0, 1) === 1) {
                $this->place($clip, 10 * $n, isSure: $random->getInt(0, 1) === 1);
            }
            if ($random->getInt(0, 3) === 0) {
                $clip->markers()->create(['kind' => 'person', 'in_ticks' => 1, 'name' => $any(self::WORDS), 'note' => $any(self::WORDS)]);
            }
            if ($random->getInt(0, 2) === 0) {
                $words = Transcript::query()->create([
                    'production_id' => $this->production->id,
                    'clip_id' => $clip->id,
                    'language' => 'en-us',
                    'source' => 'cues',
                    'engine' => '',
                    'model' => '',
                ]);
                foreach ([0, 20] as $from) {
                    PassageWords::make($words, $clip, [new Word($any(self::WORDS), $from, $from + 5)])->save();
                }
            }
            if ($random->getInt(0, 3) === 0) {
                $span = $random->getInt(0, 1) === 1 ? ['in_ticks' => 0, 'out_ticks' => $random->getInt(1, 40) * Ticks::PER_SECOND] : [];
                $clip->subclips()->create(['name' => $any(self::WORDS) . ' sub'] + $span + ['in_ticks' => null, 'out_ticks' => null]);
            }
            $clips[] = $clip;
        }
        foreach ([SequenceKind::Cut, SequenceKind::Cut, SequenceKind::Reel] as $n => $kind) {
            $cut = StoredSequenceFactory::new()->createOne([
                'production_id' => $this->production->id,
                'name' => $any(self::WORDS) . " $n",
                'kind' => $kind,
                'running_ticks' => $random->getInt(1, 90) * Ticks::PER_SECOND,
                'removed_at' => $n === 1 ? now() : null,
            ]);
            foreach ($random->pickArrayKeys($clips, 8) as $clip) {
                \DB::table('sequence_uses')->insert(['sequence_id' => $cut->id, 'clip_id' => $clips[$clip]->id, 'times' => 1]);
            }
        }
        foreach (['One', 'Two'] as $name) {
            $bin = Bin::query()->create(['production_id' => $this->production->id, 'name' => $name]);
            foreach ($random->pickArrayKeys($clips, 6) as $clip) {
                $bin->items()->create(['clip_id' => $clips[$clip]->id, 'ref' => "clip:{$clips[$clip]->ulid}"]);
            }
            $bin->items()->create(['take_id' => $takes[3]->id, 'ref' => "take:{$takes[3]->ulid}"]);
        }
        Bin::query()->create([
            'production_id' => $this->production->id,
            'name' => 'Circled',
            'rule' => ['join' => 'any', 'parts' => [self::is('status', 'circled'), self::is('kind', 'sound')]],
        ]);
    }

    /** @return array<string, array<string, list<string|int|float|bool>>> what is known of each thing, by its reference and by subject */
    private function things(): array
    {
        $things = [];
        foreach (
            Take::query()
                ->with(['parts.clip', 'day'])
                ->get()
            as $take
        ) {
            $clips = $take->parts->pluck('clip');
            $lengths = $take->parts->map(
                static fn($part): float => (($part->out_ticks ?? $part->clip->duration_ticks) - ($part->in_ticks ?? 0)) / Ticks::PER_SECOND,
            );
            $things["take:$take->ulid"] =
                ['entry' => ['take'], 'named' => [$take->name, $take->label()], 'slated' => [true], 'length' => $lengths->all()] + [
                    'spoken' => self::saidIn($take),
                ] +
                $this->ofDay(collect([$take])) +
                $this->ofTakes(collect([$take])) +
                $this->ofClips($clips);
        }
        foreach (
            Clip::query()
                ->with(['parts.take', 'day'])
                ->get()
            as $clip
        ) {
            $facts = $this->ofTakes($clip->parts->pluck('take')) + $this->ofClips(collect([$clip])) + $this->ofDay(collect([$clip]));
            $facts['slated'] = [$clip->parts->isNotEmpty()];
            $facts['spoken'] = [
                ...$clip->passages->pluck('said')->all(),
                ...$clip->parts->flatMap(static fn($part): array => self::saidIn($part->take))->all(),
            ];
            $things["clip:$clip->ulid"] =
                [
                    'entry' => ['clip'],
                    'named' => array_values(array_filter([$clip->name, $clip->label], is_string(...))),
                    'length' => [$clip->duration_ticks / Ticks::PER_SECOND],
                ] + $facts;
            foreach ($clip->subclips as $sub) {
                $things["subclip:$sub->ulid"] =
                    [
                        'entry' => ['subclip'],
                        'named' => [$sub->name],
                        'length' => [(($sub->out_ticks ?? $clip->duration_ticks) - ($sub->in_ticks ?? 0)) / Ticks::PER_SECOND],
                    ] + $facts;
            }
        }
        foreach (StoredSequence::query()->whereNull('removed_at')->get() as $cut) {
            $things["sequence:$cut->ulid"] = [
                'entry' => ['sequence'],
                'named' => [$cut->name],
                'length' => [$cut->running_ticks / Ticks::PER_SECOND],
            ];
        }
        $plain = \DB::table('bin_items')
            ->join('bins', 'bins.id', '=', 'bin_items.bin_id')
            ->get(['ref', 'bins.ulid']);
        $rule = Bin::query()->whereNotNull('rule')->sole()->ulid;
        foreach ($things as $ref => $facts) {
            $isIn = in_array('circled', $facts['status'] ?? [], true) || in_array('sound', $facts['kind'] ?? [], true);
            $things[$ref]['bin'] = $plain->where('ref', $ref)->pluck('ulid')->all();
            $things[$ref]['rule'] = $isIn ? [$rule] : [];
        }

        return $things;
    }

    /** @return list<string> what is said in a take's recordings, as far as they are its own */
    private static function saidIn(Take $take): array
    {
        return $take->parts
            ->flatMap(
                static fn($part): array => $part->clip->passages
                    ->filter(
                        static fn($one): bool => $part->in_ticks === null ||
                            ($one->start_ticks >= $part->in_ticks && $one->start_ticks < $part->out_ticks),
                    )
                    ->pluck('said')
                    ->all(),
            )
            ->all();
    }

    /**
     * @param  Collection<int, Take>|Collection<int, Clip>  $of
     * @return array<string, list<string>>
     */
    private function ofDay(Collection $of): array
    {
        return [
            'day' => $of->map(static fn($one): string => $one->day->ulid)->all(),
            'date' => $of->map(static fn($one): string => $one->day->date->format('Y-m-d'))->all(),
        ];
    }

    /**
     * @param  Collection<int, Take>  $takes
     * @return array<string, list<string|int|float|bool>>
     */
    private function ofTakes(Collection $takes): array
    {
        $facts = [];
        foreach ($this->production->fields()->all() as $key => $field) {
            $facts[$key] = $takes
                ->map(static fn(Take $take): mixed => $field->isOwn() ? $take->own[substr($key, 4)] ?? null : $take->getAttribute($key))
                ->filter(static fn(mixed $value): bool => is_scalar($value))
                ->values()
                ->all();
        }

        return $facts;
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @return array<string, list<string|bool>>
     */
    private function ofClips(Collection $clips): array
    {
        $uses = static fn(bool $isReel): array => \DB::table('sequence_uses')
            ->join('sequences', 'sequences.id', '=', 'sequence_uses.sequence_id')
            ->whereIn('clip_id', $clips->pluck('id'))
            ->whereNull('removed_at')
            ->where('kind', $isReel ? '=' : '!=', 'reel')
            ->pluck('sequences.ulid')
            ->all();

        return [
            'kind' => $clips->pluck('kind')->all(),
            'import' => $clips->pluck('import_kind')->filter()->values()->all(),
            'colour' => $clips->pluck('colour')->filter()->values()->all(),
            'device' => $clips->map(static fn(Clip $clip): ?string => $clip->device?->letter)->filter()->values()->all(),
            'sound' => $clips->map(static fn(Clip $clip): bool => count($clip->channels ?? []) > 0)->all(),
            'fault' => $clips->map(static fn(Clip $clip): bool => count($clip->problems ?? []) > 0)->all(),
            'placed' => $clips->map(static fn(Clip $clip): bool => (bool) $clip->placement?->is_sure)->all(),
            'marker' => $clips
                ->flatMap(static fn(Clip $clip): array => $clip->markers->map(static fn($one): string => "· $one->name $one->note")->all())
                ->all(),
            'cut' => $uses(false),
            'reel' => $uses(true),
        ];
    }

    /**
     * @param  array<string, Subject>  $subjects
     * @return array<string, mixed>
     */
    private function randomRule(Randomizer $random, array $subjects, int $depth): array
    {
        $parts = [];
        for ($n = $random->getInt(1, 3); $n > 0; $n--) {
            $parts[] =
                $depth < 3 && $random->getInt(0, 4) === 0
                    ? $this->randomRule($random, $subjects, $depth + 1)
                    : $this->randomCondition($random, array_values($subjects)[$random->getInt(0, count($subjects) - 1)]);
        }

        return ['join' => ['all', 'any', 'none'][$random->getInt(0, 2)], 'parts' => $parts];
    }

    /** @return array{about: string, test: string, values: list<string>} */
    private function randomCondition(Randomizer $random, Subject $subject): array
    {
        $tests = array_values(
            array_filter(
                $subject->tests(),
                static fn(Test $test): bool => $subject->type !== SubjectType::Holder || $subject->choices !== [] || !$test->takesValues(),
            ),
        );
        $test = $tests[$random->getInt(0, count($tests) - 1)];
        $words = match ($subject->type) {
            SubjectType::Number => ['3', '27.5', '50'],
            SubjectType::Length => ['10', '30', '45.5'],
            SubjectType::Date => ['2026-10-05', '2026-10-09', '2026-10-20'],
            SubjectType::Slate => ['3', '3a', '12', '12-14'],
            SubjectType::Text => ['gull', 'MOWE', 'tide', '50%', 'a_b', 'Mara', 'C1', '3/1'],
            default => array_map(strval(...), array_keys($subject->choices)),
        };
        $count = $test->takesValues() ? ($test->takesSeveral() ? $random->getInt(1, 2) : 1) : 0;
        $values = [];
        for (; $count > 0; $count--) {
            $values[] = $words[$random->getInt(0, count($words) - 1)];
        }

        return ['about' => $subject->key, 'test' => $test->value, 'values' => array_values(array_unique($values))];
    }
}
