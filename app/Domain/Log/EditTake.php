<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Slate\SetupName;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Slate\SlateStyle;
use Illuminate\Support\Facades\DB;

/**
 * Changes fields of a take for one person. Each change says what the field was when they began: if it is something else
 * by now, nothing is written and both values go back.
 */
final class EditTake
{
    public const FIELDS = ['setup', 'take', 'description', 'size', 'status', 'notes', 'keywords', 'is_mos', 'is_tail_slate', 'is_wild', 'is_guide_only', 'absent_devices'];

    /**
     * @param  array<string, array{was: mixed, now: mixed}>  $changes
     *
     * @throws Problem on a conflict, an unreadable setup or a slate that exists already
     */
    public function __invoke(Take $take, User $user, array $changes): Take
    {
        return DB::transaction(function () use ($take, $user, $changes): Take {
            /** @var Take $take */
            $take = Take::query()->whereKey($take->id)->lockForUpdate()->firstOrFail();
            $conflicts = [];
            foreach ($changes as $field => $change) {
                if (self::plain($take->{$field}) !== self::plain($change['was']) && self::plain($take->{$field}) !== self::plain($change['now'])) {
                    $conflicts[] = ['field' => $field, 'yours' => $change['now'], 'theirs' => $take->{$field}];
                }
            }
            if ($conflicts !== []) {
                throw Problem::editedMeanwhile($take->label(), $conflicts);
            }
            foreach ($changes as $field => $change) {
                $take->{$field} = match ($field) {
                    'description', 'size', 'keywords' => trim((string) $change['now']),
                    'notes' => trim((string) $change['now']) === '' ? null : trim((string) $change['now']),
                    default => $change['now'],
                };
            }
            $log = new ChangeLog();
            if (isset($changes['setup']) || isset($changes['take'])) {
                $this->renumber($take, $log);
            }
            $log->save($take);
            if ($log->finish($take->production, $user, $this->label($take, array_keys($changes))) !== null) {
                Live::tell($take->production_id, 'takes', ['take' => $take->ulid]);
            }

            return $take;
        });
    }

    private function renumber(Take $take, ChangeLog $log): void
    {
        if ($take->production->slate_style === SlateStyle::Letter) {
            $setup = SetupName::parse((string) $take->setup) ?? throw Problem::refused('slate.unreadable', sprintf('"%s" is not a setup.', mb_substr((string) $take->setup, 0, 20)), 'Write the scene with its letters, such as 12A; I and O are not used.');
            $take->setup = $setup->label();
            $take->scene = $setup->scene();
        }
        $there = Take::query()->where('shoot_day_id', $take->shoot_day_id)->where('setup', $take->setup)->where('take', $take->take)->whereKeyNot($take->id)->first();
        if ($there !== null) {
            throw Problem::refused('slate.taken', sprintf('%s is logged already.', $there->label()), 'Move the clips to that take, or choose another number.', ['take' => $there->ulid]);
        }
        $take->sort_key = SlateOrder::key($take->setup, $take->take);
        // Its clips are this person's choice now, whatever their own names and fields say.
        foreach (Clip::query()->where('take_id', $take->id)->get() as $clip) {
            $clip->slate_from = 'person';
            $log->save($clip);
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

    /** @param  list<string>  $fields */
    private function label(Take $take, array $fields): string
    {
        return match ($fields) {
            ['status'] => match ($take->status) {
                'circled' => 'Circle '.$take->label(),
                'ng' => $take->label().' is NG',
                'hold' => 'Hold '.$take->label(),
                default => 'Clear the mark of '.$take->label(),
            },
            default => sprintf('Edit %s of %s', implode(', ', array_map(static fn (string $field): string => strtr($field, ['is_' => '', '_' => ' ']), $fields)), $take->label()),
        };
    }
}
