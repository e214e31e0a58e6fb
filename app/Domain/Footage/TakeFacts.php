<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Take;
use App\Models\TakeFact;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Slate\FieldMerge;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;

/**
 * Keeps what each source says of a take, and gives the take the most trusted value; see {@see FieldMerge}.
 *
 * A source is a kind and a place: two files of notes are two sources.
 *
 * @phpstan-type Said array{id: string, source: string, place: string, value: string|bool, at: int}
 * @phpstan-type Dispute array{field: string, now: string|bool, by: string|null, place: string|null, at: int|null, said: list<Said>}
 */
final class TakeFacts
{
    /**
     * The take is changed and not saved yet.
     *
     * @param  'script'|'ixml'|'name'  $source
     * @param  string  $place  the file or clip that says it
     * @param  array<string, string|bool>  $fields  of a correction, `''` and false take older words away
     * @param  list<string>  $corrects  places of the same source whose words give way to these
     * @param  bool  $isMore  whether the place has spoken of this take before, in another row of the same file
     */
    public static function say(
        Take $take,
        string $source,
        string $place,
        array $fields,
        ChangeLog $log,
        array $corrects = [],
        bool $isMore = false,
    ): void {
        $place = self::place($place);
        foreach (self::weigh($take, $source, $place, $fields, $corrects, $isMore) as $field => $word) {
            $about = $take->production->fields()->get($field) ?? throw new \LogicException("No field $field");
            foreach ($word['old'] as $gone) {
                if ($gone !== $word['fact']) {
                    $log->delete($gone);
                    self::forget($take, $gone);
                }
            }
            if (FieldMerge::saysNothing($word['value'])) {
                if ($word['fact'] !== null) {
                    $log->delete($word['fact']);
                    self::forget($take, $word['fact']);
                }
            } else {
                $fact = $word['fact'] ?? new TakeFact(['take_id' => $take->id, 'field' => $field, 'source' => $source]);
                $text = json_encode($word['value'], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE);
                if ($fact->value !== $text || $fact->place !== $place) {
                    $fact->fill(['place' => $place] + ($fact->value === $text ? [] : ['value' => $text, 'said_at' => now()]));
                    $log->save($fact);
                    if ($word['fact'] === null) {
                        $take->saidFacts->push($fact);
                    }
                }
            }
            if ($word['decided'] !== null) {
                $take->setValueOf($field, $about->clean($word['decided']));
                self::mark($take, [$field], $source, $place);
            }
        }
    }

    /**
     * What would come of a source's words, without anything being changed.
     *
     * @param  array<string, string|bool>  $fields
     * @param  list<string>  $corrects
     * @return array<string, array{now: string|bool, value: string|bool, decided: string|bool|null, fact: TakeFact|null,
     *     old: list<TakeFact>}> by field: its value, what the source says of it in all, what the field
     *     becomes, the row that keeps it, and all that it replaces
     */
    public static function weigh(
        Take $take,
        string $source,
        string $place,
        array $fields,
        array $corrects = [],
        bool $isMore = false,
    ): array {
        $place = self::place($place);
        $known = $take->saidFacts->where('source', $source);
        $all = $take->production->fields();
        $words = [];
        foreach (array_intersect_key($fields, array_flip($all->said())) as $field => $value) {
            $about = $all->get($field) ?? throw new \LogicException("No field $field");
            $value = $about->clean($value);
            $ofField = $known->where('field', $field);
            $own = $ofField->firstWhere('place', $place);
            $old = $isMore
                ? []
                : $ofField
                    ->whereIn('place', $corrects)
                    ->sortBy(static fn(TakeFact $fact): bool => $fact->place !== $place)
                    ->values()
                    ->all();
            $now = $start = $take->valueOf($field) ?? $about->nothing();
            $by = $take->set_by[$field]['by'] ?? null;
            $glue = TakeFields::glue($field);
            // Words that another source says, too, are not this one's to take away.
            $shared = static fn(TakeFact $gone): bool => $glue !== null &&
                $take->saidFacts->contains(
                    static fn(TakeFact $fact): bool => $fact->field === $field &&
                        !in_array($fact, $old, true) &&
                        str_contains((string) self::valueOf($fact), (string) self::valueOf($gone)),
                );
            foreach (array_slice($old, 1) as $gone) {
                $now = $shared($gone)
                    ? $now
                    : FieldMerge::correct($field, $now, $by, self::valueOf($gone), $about->nothing(), $source) ?? $now;
            }
            $decided =
                isset($old[0]) && !$shared($old[0])
                    ? FieldMerge::correct($field, $now, $by, self::valueOf($old[0]), $value, $source)
                    : FieldMerge::decide($field, $now, $by, $value, $source);
            if ($isMore && $own !== null && $glue !== null && is_string($value)) {
                $before = (string) self::valueOf($own);
                $value = str_contains($before, $value) ? $before : $before . $glue . $value;
            }
            $words[$field] = [
                'now' => $start,
                'value' => $value,
                'decided' => $decided ?? ($now === $start ? null : $now),
                'fact' => $own ?? ($old[0] ?? null),
                'old' => $old,
            ];
        }

        return $words;
    }

    /** A source's name as it is kept with what it said. */
    public static function place(string $name): string
    {
        return mb_substr($name, 0, 190);
    }

    private static function forget(Take $take, TakeFact $gone): void
    {
        $take->setRelation('saidFacts', $take->saidFacts->reject(static fn(TakeFact $fact): bool => $fact === $gone)->values());
    }

    private static function valueOf(TakeFact $fact): string|bool
    {
        $said = json_decode($fact->value, true);

        return is_bool($said) ? $said : (string) $said;
    }

    /** @param  list<string>  $fields */
    public static function mark(Take $take, array $fields, string $source, string $place = ''): void
    {
        $set = $take->set_by ?? [];
        foreach ($fields as $field) {
            $set[$field] = ['by' => $source, 'at' => now()->timestamp] + ($place === '' ? [] : ['place' => $place]);
        }
        $take->set_by = $set;
    }

    /**
     * The words among which {@see open} looks, of takes that `facts` chooses: not those that add up, and not those that are what the
     * take says already. Most sources agree, and two thousand takes are gone through for each page.
     *
     * @return Collection<int, \stdClass> rows of `take_facts`, in the order in which they were said
     */
    public static function differing(Builder $facts): Collection
    {
        $same = '';
        $glued = [];
        foreach (TakeFields::standard()->all() as $key => $field) {
            if ($field->glue !== null) {
                $glued[] = $key;
            } elseif ($field->isSaid && in_array($field->type, [FieldType::Text, FieldType::Status], true)) {
                $same .= " WHEN '$key' THEN BINARY take_facts.value = CONCAT('\"', takes.`$key`, '\"')";
            }
        }

        return $facts
            ->join('takes', 'takes.id', '=', 'take_facts.take_id')
            ->whereNotIn('field', $glued)
            ->whereRaw("NOT COALESCE(CASE field$same END, FALSE)")
            ->orderBy('take_facts.id')
            ->get(['take_facts.*']);
    }

    /**
     * What is still to be asked about a take.
     *
     * @param  array<string, mixed>  $values  its fields
     * @param  array<string, array{by: string, at: int, place?: string}>  $setBy
     * @param  iterable<object{field: string, source: string, place: string, value: string,
     *     said_at: mixed}>  $facts  rows as the database holds them, or models
     * @return list<Dispute>
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
                    'place' => $set['place'] ?? null,
                    'at' => $set['at'] ?? null,
                    'said' => [],
                ];
                $disputes[$field]['said'][] = [
                    // Of the words, too: a button that was shown for one value never writes another.
                    'id' => substr(hash('xxh128', "$fact->source\0$fact->place\0$fact->value"), 0, 16),
                    'source' => $fact->source,
                    'place' => $fact->place,
                    'value' => $said,
                    'at' => $saidAt,
                ];
            }
        }

        return array_values($disputes);
    }

    /**
     * @return list<Dispute>
     */
    public static function disputes(Take $take): array
    {
        return self::open($take->getAttributes(), $take->set_by ?? [], $take->saidFacts);
    }
}
