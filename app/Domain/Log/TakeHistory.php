<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Change;
use App\Models\Clip;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Fields\TakeFields;

/**
 * Who changed what of a take, from what to what, and when: the newest step first. Steps that were taken back stand there
 * too, until their person takes another and they can no longer be done again.
 */
final class TakeHistory
{
    private const LIMIT = 200;

    /** Fields that follow from others, and so are no change of their own. */
    private const DERIVED = [
        'updated_at',
        'created_at',
        'sort_key',
        'id',
        'ulid',
        'production_id',
        'shoot_day_id',
        'claims',
        'settled',
        'set_by',
        'listening',
    ];

    /**
     * @return list<array{at: string, by: string, label: string, undone: bool, fields: list<array{field: string, from: string,
     *     to: string}>}>
     */
    public function of(Take $take): array
    {
        $changes = Change::query()
            ->with('user')
            ->join('change_takes', 'change_takes.change_id', '=', 'changes.id')
            ->where('change_takes.take_id', $take->id)
            ->orderByDesc('changes.id')
            ->limit(self::LIMIT)
            ->get('changes.*');
        $rows = $changes->flatMap(static fn(Change $change): array => $change->stepsOf('take_parts'));
        $clipOf = TakePart::query()
            ->whereIn('id', $rows->pluck('id')->unique())
            ->pluck('clip_id', 'id')
            ->all();
        foreach ($rows as $row) {
            $clipOf[$row['id']] ??= $row['after']['clip_id'] ?? ($row['before']['clip_id'] ?? null);
        }
        $names = Clip::query()
            ->whereIn('id', array_filter($clipOf))
            ->get(['id', 'name', 'label'])
            ->keyBy('id');

        return $changes
            ->map(function (Change $change) use ($take, $names, $clipOf): array {
                $fields = [];
                foreach ($change->stepsOf('takes', $take->id) as $row) {
                    array_push(
                        $fields,
                        ...$this->fields(self::apart($row['before'] ?? []), self::apart($row['after'] ?? []), $take->production->fields()),
                    );
                }
                foreach ($change->stepsOf('take_parts') as $row) {
                    $left = ($row['before']['take_id'] ?? null) === $take->id && ($row['after']['take_id'] ?? null) !== $take->id;
                    $joined = ($row['after']['take_id'] ?? null) === $take->id && ($row['before']['take_id'] ?? null) !== $take->id;
                    if ($left || $joined) {
                        $name = $names[$clipOf[$row['id']] ?? 0]?->title() ?? 'a clip';
                        $fields[] = ['field' => 'clip', 'from' => $left ? $name : '', 'to' => $joined ? $name : ''];
                    }
                }

                return [
                    'at' => $change->created_at->toIso8601String(),
                    'by' => $change->user->name ?? 'somebody',
                    'label' => $change->label,
                    'undone' => $change->undone_at !== null,
                    'fields' => $fields,
                ];
            })
            ->all();
    }

    /**
     * @param  array<string, mixed>  $before
     * @param  array<string, mixed>  $after
     * @return list<array{field: string, from: string, to: string}>
     */
    private function fields(array $before, array $after, TakeFields $known): array
    {
        $fields = [];
        foreach (array_diff_key($after + $before, array_flip(self::DERIVED)) as $field => $_) {
            $from = self::words($before[$field] ?? null);
            $to = self::words($after[$field] ?? null);
            // What a new take is by default nobody has said of it.
            if ($from !== $to && !($before === [] && in_array($to, ['no', 'none'], true))) {
                $fields[] = ['field' => self::called($field, $known), 'from' => $from, 'to' => $to];
            }
        }

        return $fields;
    }

    /**
     * The values of the production's own fields apart from each other, as the columns are.
     *
     * @param  array<string, mixed>  $row
     * @return array<string, mixed>
     */
    private static function apart(array $row): array
    {
        $own = is_string($row['own'] ?? null) ? json_decode($row['own'], true) : [];
        unset($row['own']);
        foreach (is_array($own) ? $own : [] as $name => $value) {
            $row["own:$name"] = $value;
        }

        return $row;
    }

    private static function called(string $field, TakeFields $known): string
    {
        $own = str_starts_with($field, 'own:') ? $known->get($field)->label ?? substr($field, 4) : null;

        return $own ?? strtr($field, ['is_' => '', '_' => ' ']);
    }

    private static function words(mixed $value): string
    {
        if (is_string($value) && str_starts_with($value, '[')) {
            $value = json_decode($value, true) ?? $value;
        }

        return match (true) {
            is_array($value) => implode(', ', array_map(strval(...), $value)),
            is_bool($value) => $value ? 'yes' : 'no',
            default => (string) $value,
        };
    }
}
