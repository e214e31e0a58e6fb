<?php

declare(strict_types=1);

namespace App\Domain\Productions;

use App\Domain\Undo\ChangeLog;
use App\Models\Production;
use App\Models\ProductionField;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** The fields of takes that a production adds for itself; each an undoable step. Values stay when one is retired. */
final class EditFields
{
    public const MOST = 40;

    public const CHOICES = 50;

    /**
     * @param  list<string>  $choices
     *
     * @throws Problem if the name is taken, or there are too many
     */
    public function add(Production $production, User $user, string $label, FieldType $type, array $choices): ProductionField
    {
        $choices = self::choices($type, $choices);
        $field = DB::transaction(function () use ($production, $user, $label, $type, $choices): ProductionField {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            $this->refuseTaken($production, $label, null);
            if ($production->productionFields()->whereNull('retired_at')->count() >= self::MOST) {
                throw Problem::refused('field.many', sprintf('There are %d fields already.', self::MOST), 'Retire one that nobody uses.');
            }
            $log = new ChangeLog();
            $field = new ProductionField([
                'production_id' => $production->id,
                'name' => $this->name($production, $label),
                'label' => $label,
                'type' => $type,
                'choices' => $choices,
            ]);
            $log->save($field);
            $log->finish($production, $user, "Add the field $label");

            return $field;
        });
        Live::tell($production->id, Topic::Settings);

        return $field;
    }

    /**
     * @param  array{label?: string, choices?: list<string>, retired?: bool}  $values  only what changes
     *
     * @throws Problem if the name is taken
     */
    public function change(ProductionField $field, Production $production, User $user, array $values): ProductionField
    {
        DB::transaction(function () use ($field, $production, $user, $values): void {
            $log = new ChangeLog();
            if (isset($values['label'])) {
                $this->refuseTaken($production, $values['label'], $field->id);
                $field->label = $values['label'];
            }
            if (isset($values['choices'])) {
                $field->choices = self::choices($field->type, $values['choices']);
            }
            if (array_key_exists('retired', $values)) {
                $field->retired_at = $values['retired'] ? $field->retired_at ?? now() : null;
            }
            $log->save($field);
            $log->finish($production, $user, "Change the field $field->label");
        });
        Live::tell($production->id, Topic::Settings);

        return $field;
    }

    /**
     * @param  list<string>  $choices
     * @return list<string>
     */
    private static function choices(FieldType $type, array $choices): array
    {
        $choices = array_values(array_unique(array_filter(array_map(trim(...), $choices), static fn(string $one): bool => $one !== '')));
        if ($type === FieldType::Choice && $choices === []) {
            throw Problem::refused(
                'field.choices',
                'A choice needs something to choose from.',
                'Write what can be chosen, with commas between.',
            );
        }

        return $type === FieldType::Choice ? $choices : [];
    }

    private function refuseTaken(Production $production, string $label, ?int $except): void
    {
        $taken = array_map(static fn($field): string => mb_strtolower($field->label), TakeFields::standard()->all());
        $isOwn = ProductionField::query()
            ->where('production_id', $production->id)
            ->where('label', $label)
            ->when($except !== null, static fn($query) => $query->whereKeyNot($except))
            ->exists();
        if ($isOwn || in_array(mb_strtolower($label), $taken, true)) {
            throw Problem::refused('field.taken', "There is a field $label already.", 'Choose another name, or bring that one back.');
        }
    }

    /** What name patterns call it: letters and digits, like no other field. */
    private function name(Production $production, string $label): string
    {
        $plain = substr((string) preg_replace('/[^a-z0-9]/', '', strtolower(Str::ascii($label))), 0, 16);
        $plain = preg_match('/\A[a-z]/', $plain) === 1 ? $plain : 'f' . $plain;
        $used = [
            ...array_keys(TakeFields::standard()->byName()),
            ...['device', 'roll', 'day', 'date', 'original', 'n', 'slate', 'time', 'clip', 'marks'],
            ...ProductionField::query()->where('production_id', $production->id)->pluck('name')->all(),
        ];
        for ($name = $plain, $number = 2; in_array($name, $used, true); $number++) {
            $name = $plain . $number;
        }

        return $name;
    }
}
