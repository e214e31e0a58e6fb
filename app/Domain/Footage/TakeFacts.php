<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Take;
use App\Models\TakeFact;
use Cartella\Core\Slate\FieldMerge;

/** Keeps what each source says of a take, and gives the take the most trusted value; see {@see FieldMerge}. */
final class TakeFacts
{
    /**
     * The take is changed and not saved yet.
     *
     * @param  'script'|'ixml'|'name'  $source
     * @param  string  $place  the file or clip that says it
     * @param  array<string, string|bool>  $fields
     */
    public static function say(Take $take, string $source, string $place, array $fields, ChangeLog $log): void
    {
        $place = mb_substr($place, 0, 190);
        $known = $take->saidFacts->where('source', $source)->where('place', $place)->keyBy('field');
        $all = $take->production->fields();
        foreach (array_intersect_key($fields, array_flip($all->said())) as $field => $value) {
            $about = $all->get($field) ?? throw new \LogicException("No field $field");
            $value = $about->clean($value);
            $fact = $known[$field] ?? new TakeFact(['take_id' => $take->id, 'field' => $field, 'source' => $source, 'place' => $place]);
            $text = json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE);
            if ($fact->value !== $text) {
                $fact->fill(['value' => $text, 'said_at' => now()]);
                $log->save($fact);
                if (!$known->has($field)) {
                    $take->saidFacts->push($fact);
                }
            }
            $now = $take->valueOf($field) ?? $about->nothing();
            $decided = FieldMerge::decide($field, $now, $take->set_by[$field]['by'] ?? null, $value, $source);
            if ($decided !== null) {
                $take->setValueOf($field, $about->clean($decided));
                self::mark($take, [$field], $source);
            }
        }
    }

    /** @param  list<string>  $fields */
    public static function mark(Take $take, array $fields, string $source): void
    {
        $set = $take->set_by ?? [];
        foreach ($fields as $field) {
            $set[$field] = ['by' => $source, 'at' => now()->timestamp];
        }
        $take->set_by = $set;
    }

    /**
     * What is still to be asked about a take.
     *
     * @param  array<string, mixed>  $values  its fields
     * @param  array<string, array{by: string, at: int}>  $setBy
     * @param  iterable<object{field: string, source: string, place: string, value: string,
     *     said_at: mixed}>  $facts  rows as the database holds them, or models
     * @return list<array{field: string, now: string|bool, by: string|null, at: int|null, said: list<array{source: string, place: string,
     *     value: string|bool, at: int}>}>
     */
    public static function open(array $values, array $setBy, iterable $facts): array
    {
        $own = is_string($values['own'] ?? null) ? json_decode($values['own'], true) : $values['own'] ?? [];
        $disputes = [];
        foreach ($facts as $fact) {
            $field = $fact->field;
            $said = json_decode($fact->value, true);
            $said = is_bool($said) ? $said : (string) $said;
            $now = str_starts_with($field, 'own:') ? $own[substr($field, 4)] ?? null : $values[$field] ?? null;
            $now = is_bool($said) ? (bool) $now : (string) $now;
            $set = $setBy[$field] ?? null;
            $saidAt =
                $fact->said_at instanceof \DateTimeInterface ? $fact->said_at->getTimestamp() : (int) strtotime($fact->said_at . ' UTC');
            if (FieldMerge::isOpen($field, $now, $set['by'] ?? null, $set['at'] ?? null, $said, $saidAt)) {
                $disputes[$field] ??= [
                    'field' => $field,
                    'now' => $now,
                    'by' => $set['by'] ?? null,
                    'at' => $set['at'] ?? null,
                    'said' => [],
                ];
                $disputes[$field]['said'][] = ['source' => $fact->source, 'place' => $fact->place, 'value' => $said, 'at' => $saidAt];
            }
        }

        return array_values($disputes);
    }

    /**
     * @return list<array{field: string, now: string|bool, by: string|null, at: int|null, said: list<array{source: string, place: string,
     *     value: string|bool, at: int}>}>
     */
    public static function disputes(Take $take): array
    {
        return self::open($take->getAttributes(), $take->set_by ?? [], $take->saidFacts);
    }
}
