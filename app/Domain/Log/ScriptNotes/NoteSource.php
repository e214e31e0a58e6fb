<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Domain\Footage\TakeFacts;
use App\Models\ScriptNoteFile;
use App\Models\Take;
use App\Models\TakeFact;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Log\NewerNotes;
use Cartella\Core\Log\NoteRow;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * A file of notes as a source, while it is read: under which name its words are kept, and which older file it corrects.
 */
final class NoteSource
{
    /** The name under which its words are kept. */
    public readonly string $place;

    /** @var array<int, true> takes of which it has spoken, by id */
    private array $takes = [];

    /** @var array<string, array{same: int, differ: int}> how its words stand to those of other files, by place */
    private array $like = [];

    /** @var list<string> fields of which its columns can speak */
    private readonly array $speaksOf;

    /** @param  string|null  $corrects  the place of the older file */
    public function __construct(public readonly ScriptNoteFile $file, public readonly ?string $corrects)
    {
        $layout = $file->layout;
        $name = $file->name . (($layout['sheet'] ?? 0) === 0 ? '' : ', ' . ($layout['sheets'][$layout['sheet']] ?? $layout['sheet'] + 1));
        $taken = self::others($file);
        for ($place = $name, $n = 2; $place !== $corrects && in_array(TakeFacts::place($place), $taken, true); $n++) {
            $place = mb_substr($name, 0, 180) . " ($n)";
        }
        $this->place = TakeFacts::place($place);
        $this->speaksOf = self::fieldsOf(array_values($layout['columns']), $file->production->fields());
    }

    /**
     * The names of other files whose words stand in the log.
     *
     * @return list<string>
     */
    public static function others(ScriptNoteFile $file): array
    {
        return self::facts($file)
            // Of this file itself, where a run was killed before its end.
            ->when($file->change_id !== null, static fn($query) => $query->where('take_facts.place', '!=', $file->layout['place'] ?? ''))
            ->distinct()
            ->orderBy('take_facts.place')
            ->pluck('take_facts.place')
            ->all();
    }

    /**
     * What a row would do to a take's fields; the take counts as spoken of from here on.
     *
     * @return array{array<string, string|bool>, list<string>, bool} fields, places that they correct, and whether they add to
     *     what another row of this file said
     */
    public function words(Take $take, NoteRow $row): array
    {
        $isMore = isset($this->takes[$take->id]);
        $this->takes[$take->id] = true;
        $corrects = array_values(array_unique([$this->place, ...$this->corrects === null ? [] : [$this->corrects]]));
        $fields = $row->fields;
        foreach ($isMore ? [] : $take->saidFacts->where('source', 'script') as $fact) {
            $this->compare($fact, $row);
            // A cell that is empty now takes back what it said.
            if (in_array($fact->place, $corrects, true) && in_array($fact->field, $this->speaksOf, true)) {
                $isYesNo = $take->production->fields()->get($fact->field)?->type === FieldType::YesNo;
                $fields[$fact->field] ??= $isYesNo ? false : $take->production->fields()->get($fact->field)?->nothing() ?? '';
            }
        }

        return [$fields, $corrects, $isMore];
    }

    /** The older file that these notes look like a newer version of; null where there is none. */
    public function guess(): ?string
    {
        $all = $this->said(array_map(strval(...), array_keys($this->like)))
            ->groupBy('take_facts.place')
            ->selectRaw('take_facts.place, COUNT(*) AS words')
            ->pluck('words', 'place');
        $others = [];
        foreach ($this->like as $place => $like) {
            $others[$place] = $like + ['all' => (int) ($all[$place] ?? 0)];
        }

        return NewerNotes::of($this->file->name, $others);
    }

    /** Takes of which the corrected file spoke and this one does not; what it said of them stays. */
    public function left(): int
    {
        return $this->corrects === null
            ? 0
            : $this->said([$this->corrects])
                ->distinct()
                ->pluck('take_facts.take_id')
                ->reject(fn($take): bool => isset($this->takes[(int) $take]))
                ->count();
    }

    /**
     * What stands in the log of some files.
     *
     * @param  list<string>  $places
     */
    private function said(array $places): Builder
    {
        return self::facts($this->file)->whereIn('take_facts.place', $places);
    }

    private static function facts(ScriptNoteFile $file): Builder
    {
        return DB::table('take_facts')
            ->join('takes', 'takes.id', '=', 'take_facts.take_id')
            ->where('takes.production_id', $file->production_id)
            ->where('take_facts.source', 'script');
    }

    private function compare(TakeFact $fact, NoteRow $row): void
    {
        // Its own words are there already where a run was killed.
        if ($fact->place === $this->place) {
            return;
        }
        $said = $row->fields[$fact->field] ?? null;
        if ($said === null && !in_array($fact->field, $this->speaksOf, true)) {
            return;
        }
        $this->like[$fact->place] ??= ['same' => 0, 'differ' => 0];
        // A file that speaks of a take in several rows has their words together.
        $is = json_decode($fact->value, true);
        $isSame = $is === $said || (is_string($is) && is_string($said) && $said !== '' && str_contains($is, $said));
        $this->like[$fact->place][$isSame ? 'same' : 'differ']++;
    }

    /**
     * @param  list<string>  $targets  what its columns are
     * @return list<string>
     */
    private static function fieldsOf(array $targets, TakeFields $known): array
    {
        return array_values(
            array_filter($known->said(), static function (string $key) use ($targets, $known): bool {
                $field = $known->get($key);
                $isMark = $field !== null && !$field->isOwn() && $field->type === FieldType::YesNo;

                return in_array($key, $targets, true) || ($isMark && in_array('marks', $targets, true));
            }),
        );
    }
}
