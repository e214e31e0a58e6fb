<?php

declare(strict_types=1);

namespace Tests\App\Undo;

use App\Models\Change;
use App\Models\Clip;
use App\Models\TakePart;
use Tests\App\TestCase;

/** Steps that were taken while a clip still named its take in a column of its own can be taken back all the same. */
final class OldStepsTest extends TestCase
{
    /**
     * As the migration leaves an old row of a step.
     *
     * @param  array<string, mixed>|null  $before
     * @param  array<string, mixed>|null  $after
     * @return list<array<string, mixed>>
     */
    private function converted(Clip $clip, ?array $before, ?array $after): array
    {
        $migration = require database_path('migrations/2026_11_29_001500_take_parts.php');

        return (new \ReflectionMethod($migration, 'split'))->invoke($migration, [
            'table' => 'clips',
            'id' => $clip->id,
            'before' => $before,
            'after' => $after,
        ]);
    }

    private function part(Clip $clip): ?string
    {
        return $clip->refresh()->parts->first()?->take->label();
    }

    public function test_a_clip_that_joined_a_take_leaves_it_again(): void
    {
        $this->as();
        $take = $this->take('3', 1);
        $clip = $this->clip('A001C001', 'A', 0);
        // A clip's one part has the clip's number.
        TakePart::query()->create(['id' => $clip->id, 'clip_id' => $clip->id, 'take_id' => $take->id, 'said_by' => 'ixml']);
        $rows = $this->converted(
            $clip,
            ['take_id' => null, 'slate_from' => null, 'is_false_start' => 0],
            ['take_id' => $take->id, 'slate_from' => 'ixml', 'is_false_start' => 0],
        );
        Change::query()->create([
            'production_id' => $this->production->id,
            'user_id' => auth()->id(),
            'label' => 'Read 1 slate',
            'rows' => $rows,
        ]);
        $this->postJson($this->at('undo'))->assertOk()->assertJsonPath('stayed', []);
        self::assertNull($this->part($clip));
        $this->postJson($this->at('redo'))->assertOk();
        self::assertSame('3/1', $this->part($clip));
    }

    public function test_a_clip_that_changed_its_take_goes_back_and_one_that_lost_it_has_it_again(): void
    {
        $this->as();
        [$first, $second] = [$this->take('3', 1), $this->take('3', 2)];
        $clip = $this->clip('A001C001', 'A', 0);
        $clip->update(['has_no_slate' => true]);
        foreach (
            [
                [['take_id' => $first->id, 'slate_from' => 'name'], ['take_id' => $second->id, 'slate_from' => 'person']],
                [['take_id' => $second->id, 'slate_from' => 'person'], ['take_id' => null, 'slate_from' => 'person']],
            ]
            as [$before, $after]
        ) {
            Change::query()->create([
                'production_id' => $this->production->id,
                'user_id' => auth()->id(),
                'label' => 'x',
                'rows' => $this->converted($clip, $before, $after),
            ]);
        }
        $this->postJson($this->at('undo'))->assertOk()->assertJsonPath('stayed', []);
        self::assertSame(['3/2', false], [$this->part($clip), $clip->has_no_slate]);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame('3/1', $this->part($clip));
    }

    public function test_what_else_a_step_did_to_a_clip_stays_in_it(): void
    {
        $clip = $this->clip('A001C001', 'A', 0);
        $other = ['table' => 'clips', 'id' => $clip->id, 'before' => ['label' => null], 'after' => ['label' => 'the good one']];
        self::assertSame([$other], $this->converted($clip, $other['before'], $other['after']));
        self::assertSame(
            [['label' => null], ['label' => 'the good one']],
            [
                $this->converted($clip, ['label' => null, 'take_id' => 1], ['label' => 'the good one', 'take_id' => 2])[0]['before'],
                $this->converted($clip, ['label' => null, 'take_id' => 1], ['label' => 'the good one', 'take_id' => 2])[0]['after'],
            ],
        );
    }
}
