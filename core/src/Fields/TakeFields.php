<?php

declare(strict_types=1);

namespace Cartella\Core\Fields;

/**
 * The one list of what is known of a take. Editing, notes, names, columns, search, lists and metadata read it; a field that
 * a production adds is one more entry, and works wherever the others do.
 */
final class TakeFields
{
    private static ?self $standard = null;

    /** @var array<string, Field> by key, in the order of columns */
    private readonly array $fields;

    /** @param  list<Field>  $own  of a production */
    public function __construct(array $own = [])
    {
        $all = [...self::list(), ...$own];
        $this->fields = array_combine(array_map(static fn(Field $field): string => $field->key, $all), $all);
    }

    public static function standard(): self
    {
        return self::$standard ??= new self();
    }

    /** @return array<string, Field> by key */
    public function all(): array
    {
        return $this->fields;
    }

    public function get(string $key): ?Field
    {
        return $this->fields[$key] ?? null;
    }

    /** @return array<string, Field> those that a production added, by key */
    public function own(): array
    {
        return array_filter($this->fields, static fn(Field $field): bool => $field->isOwn());
    }

    /** @return list<string> keys of those that others than a person can speak of */
    public function said(): array
    {
        return array_keys(array_filter($this->fields, static fn(Field $field): bool => $field->isSaid));
    }

    /** @return array<string, Field> by what name patterns call them */
    public function byName(): array
    {
        $named = [];
        foreach ($this->fields as $field) {
            $named[$field->name] = $field;
        }

        return $named;
    }

    /** What stands between what several sources say of a field; null where one of them is kept. */
    public static function glue(string $key): ?string
    {
        return self::standard()->get($key)?->glue;
    }

    /** @return list<Field> */
    private static function list(): array
    {
        $mark = static fn(string $key, string $name, string $word): Field => new Field($key, $name, FieldType::YesNo, $word);

        return [
            new Field('scene', 'scene', FieldType::Slate, 'Scene', 20, isSaid: false),
            new Field('setup', 'setup', FieldType::Slate, 'Setup', 24, isSaid: false),
            new Field('take', 'take', FieldType::Slate, 'Take', isSaid: false),
            new Field('part', 'part', FieldType::Slate, 'Series', 1, isSaid: false),
            new Field('description', 'description', FieldType::Text, 'What happens', 300, [
                'description',
                'action',
                'what happens',
                'desc',
                'content',
                'happens',
                'beschreibung',
            ]),
            new Field('size', 'size', FieldType::Text, 'Size', 30, ['size', 'shot size', 'framing', 'frame']),
            new Field('status', 'status', FieldType::Status, 'Status', 0, [
                'status',
                'circled',
                'circle',
                'circ',
                'print',
                'mark',
                'c/ng',
                'good',
            ]),
            new Field(
                'notes',
                'notes',
                FieldType::Lines,
                'Notes',
                4000,
                ['notes', 'note', 'remarks', 'remark', 'comment', 'comments', 'director', "director's notes", 'continuity', 'bemerkung'],
                glue: "\n",
            ),
            new Field('keywords', 'keywords', FieldType::Text, 'Keywords', 300, ['keywords', 'keyword', 'tags', 'characters'], glue: ', '),
            $mark('is_mos', 'mos', 'MOS'),
            $mark('is_tail_slate', 'tail', 'tail slate'),
            $mark('is_false_start', 'falsestart', 'false start'),
            $mark('is_wild', 'wild', 'wild'),
            $mark('is_pickup', 'pickup', 'pick-up'),
            $mark('is_guide_only', 'guide', 'guide only'),
            new Field('absent_devices', 'absent', FieldType::Devices, 'Not rolling', isSaid: false),
        ];
    }
}
