<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\TakeFacts;
use App\Domain\Footage\TakeParts;
use App\Domain\Undo\ChangeLog;
use App\Models\Production;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Changes fields of one take or of many for one person, one undoable step. Each change says what the field was when they
 * began: if any is something else by now, nothing at all is written and both values of each go back.
 */
final class EditTake
{
    /**
     * @param  array<string, array{was: mixed, now: mixed}>  $changes
     *
     * @throws Problem on a conflict, an unreadable setup or a slate that exists already
     */
    public function __invoke(Take $take, User $user, array $changes): Take
    {
        return $this->many($take->production, $user, [['take' => $take->ulid, 'changes' => $changes]])->first() ?? $take;
    }

    /**
     * @param  list<array{take: string, changes: array<string, array{was: mixed, now: mixed}>}>  $edits  by the takes' ULIDs
     * @return Collection<int, Take> those edited
     *
     * @throws Problem as above, or if a take is not the production's
     */
    public function many(Production $production, User $user, array $edits): Collection
    {
        return DB::transaction(function () use ($production, $user, $edits): Collection {
            /** @var Collection<string, Take> $takes */
            $takes = Take::query()
                ->where('production_id', $production->id)
                ->whereIn('ulid', array_column($edits, 'take'))
                ->lockForUpdate()
                ->get()
                ->keyBy(static fn(Take $take): string => $take->ulid);
            $conflicts = [];
            foreach ($edits as $edit) {
                $take = $takes[$edit['take']] ?? throw Problem::missing('One of those takes', 'Load the page again.');
                foreach ($edit['changes'] as $field => $change) {
                    $there = $take->valueOf($field) ?? $production->fields()->get($field)?->nothing();
                    if (self::plain($there) !== self::plain($change['was']) && self::plain($there) !== self::plain($change['now'])) {
                        $conflicts[] = [
                            'take' => $take->ulid,
                            'label' => $take->label(),
                            'field' => $field,
                            'yours' => $change['now'],
                            'theirs' => $there,
                        ];
                    }
                }
            }
            if ($conflicts !== []) {
                throw Problem::editedMeanwhile($conflicts[0]['label'], $conflicts);
            }
            $log = new ChangeLog();
            $moved = $kept = [];
            foreach ($edits as $edit) {
                $take = $takes[$edit['take']];
                $take->setRelation('production', $production);
                if (self::fill($take, array_map(static fn(array $change): mixed => $change['now'], $edit['changes']))) {
                    $moved[$take->id] = $take;
                } else {
                    $kept[$take->id] = $take;
                }
            }
            $log->saveAll(array_values(array_diff_key($kept, $moved)));
            $isWords = $moved === [];
            $this->move($moved, $log);
            if ($log->finish($production, $user, self::stepLabel($takes, $edits)) !== null) {
                // Words and marks change no other row, so a page need not ask for the whole sheet.
                Live::tell(
                    $production->id,
                    Topic::Takes,
                    $takes->count() === 1 ? ['take' => $takes->first()->ulid, 'words' => $isWords] : [],
                );
            }

            return $takes->values();
        });
    }

    /**
     * Gives a take a person's values without saving it.
     *
     * @param  array<string, mixed>  $values
     * @return bool whether its slate changes
     */
    public static function fill(Take $take, array $values): bool
    {
        $fields = $take->production->fields();
        foreach ($values as $field => $value) {
            $value = $fields->get($field)?->clean($value) ?? $value;
            $take->setValueOf($field, $field === 'notes' && $value === '' ? null : $value);
        }
        TakeFacts::mark($take, array_values(array_intersect(array_keys($values), $fields->said())), 'person');
        if (array_intersect(['scene', 'setup', 'take', 'part'], array_keys($values)) === []) {
            return false;
        }
        $production = $take->production;
        $slate =
            SlateReader::checked(
                $take->scene,
                str_replace(' ', '', (string) $take->setup),
                (string) $take->take,
                null,
                $production->slate_style,
                $take->part,
            ) ??
            throw Problem::refused(
                'slate.unreadable',
                sprintf('"%s" is not a setup.', mb_substr((string) $take->setup, 0, 20)),
                $production->slate_style === SlateStyle::Letter
                    ? 'Write the scene with its letters, such as 12A; I and O are not used.'
                    : 'Write the running number, such as 214.',
            );
        $take->fill([
            'scene' => $slate->scene ?? $take->scene,
            'setup' => $slate->setup,
            'sort_key' => SlateOrder::of(
                $production->slate_style,
                $slate->scene ?? $take->scene,
                $slate->setup,
                $slate->take,
                $slate->part,
            ),
        ]);

        return $take->isDirty(['scene', 'setup', 'take', 'part']);
    }

    /**
     * Saves takes whose slates change, each as soon as its new slate is free, so that a whole row of numbers can move on.
     *
     * @param  array<int, Take>  $takes
     */
    private function move(array $takes, ChangeLog $log): void
    {
        while ($takes !== []) {
            $before = count($takes);
            $taken = null;
            foreach ($takes as $id => $take) {
                $there = Take::query()
                    ->where('shoot_day_id', $take->shoot_day_id)
                    ->where('setup', $take->setup)
                    ->where('take', $take->take)
                    ->where('part', $take->part)
                    ->whereKeyNot($id)
                    ->first();
                if ($there !== null) {
                    $taken = $there;

                    continue;
                }
                // Its clips are this person's choice now, whatever their own names and fields say.
                TakeParts::move($take, $take, $log);
                $log->save($take);
                unset($takes[$id]);
            }
            if (count($takes) === $before && $taken !== null) {
                throw Problem::refused(
                    'slate.taken',
                    sprintf('%s is logged already.', $taken->label()),
                    'Move the clips to that take, or choose another number.',
                    ['take' => $taken->ulid],
                );
            }
        }
    }

    private static function plain(mixed $value): mixed
    {
        return match (true) {
            is_bool($value) => $value,
            $value === [] => '',
            is_array($value) => array_values($value),
            $value === null => '',
            default => (string) $value,
        };
    }

    /**
     * @param  Collection<string, Take>  $takes
     * @param  list<array{take: string, changes: array<string, mixed>}>  $edits
     */
    private static function stepLabel(Collection $takes, array $edits): string
    {
        $fields = array_values(
            array_unique(
                array_merge(...array_map(static fn(array $edit): array => array_keys($edit['changes']), array_slice($edits, 0, 50))),
            ),
        );
        if ($takes->count() === 1) {
            return self::label($takes->first(), $fields);
        }

        return sprintf('Edit %s of %d takes', self::fieldNames($fields, $takes->first()), $takes->count());
    }

    /** @param  list<string>  $fields */
    private static function label(Take $take, array $fields): string
    {
        return match ($fields) {
            ['status'] => match ($take->status) {
                TakeStatus::Circled->value => 'Circle ' . $take->label(),
                TakeStatus::NoGood->value => $take->label() . ' is NG',
                TakeStatus::Hold->value => 'Hold ' . $take->label(),
                default => 'Clear the mark of ' . $take->label(),
            },
            default => sprintf('Edit %s of %s', self::fieldNames($fields, $take), $take->label()),
        };
    }

    /** @param  list<string>  $fields */
    private static function fieldNames(array $fields, Take $take): string
    {
        return implode(
            ', ',
            array_map(
                static fn(string $field): string => str_starts_with($field, 'own:')
                    ? $take->production->fields()->get($field)->label ?? substr($field, 4)
                    : strtr($field, ['is_' => '', '_' => ' ']),
                $fields,
            ),
        );
    }
}
