<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Domain\Footage\FindTake;
use App\Domain\Footage\TakeFacts;
use App\Domain\Footage\TakeParts;
use App\Domain\Undo\ChangeLog;
use App\Models\Change;
use App\Models\Clip;
use App\Models\ScriptNoteFile;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\TakeFact;
use App\Models\User;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Topic;
use Cartella\Core\Log\NoteColumns;
use Cartella\Core\Log\NoteRow;
use Cartella\Core\Slate\FieldMerge;
use Cartella\Core\Slate\Slate;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Reads a file of notes against the log: what is new, the same, different or of no take at all; and applies it, one
 * undoable step. Rows with a fault in them are told by row and column, and the rest comes in.
 */
final class ReadNotes
{
    private const CHUNK = 200;

    private const SAMPLES = 200;

    public function __construct(private readonly FindTake $find) {}

    /**
     * @param  callable(int): void  $progress  rows read so far
     * @return array<string, mixed> the report, as the interface shows it
     */
    public function preview(ScriptNoteFile $file, callable $progress): array
    {
        $file->layout = array_diff_key($file->layout, ['place' => 1]);
        $isSaid = array_key_exists('corrects', $file->layout);
        $source = new NoteSource($file, $isSaid ? $file->layout['corrects'] : null);
        $report = $this->through($source, null, $progress);
        $guess = $isSaid ? null : $source->guess();
        if ($guess !== null) {
            $source = new NoteSource($file, $guess);
            $report = $this->through($source, null, $progress);
        }
        // What was looked at is what comes in.
        $file->update(['layout' => ['place' => $source->place, 'is' => $source->corrects] + $file->layout]);

        return $report;
    }

    /**
     * @param  callable(int): void  $progress
     * @return array<string, mixed>
     */
    public function apply(ScriptNoteFile $file, User $user, callable $progress): array
    {
        // Piece by piece, so that others can log meanwhile and a killed run goes on; it is one step to take back all the same.
        $log = ChangeLog::long(
            $file->production,
            $user,
            "Bring in $file->name",
            $file->change_id === null ? null : Change::query()->find($file->change_id),
        );
        $report = $this->through(new NoteSource($file, $file->layout['is'] ?? null), $log, $progress);
        $log->finish($file->production, $user, "Bring in $file->name");
        $file->update(['applied_at' => now()]);
        Live::tell($file->production_id, Topic::Takes);

        return $report;
    }

    /**
     * @param  callable(int): void  $progress
     * @return array<string, mixed>
     */
    private function through(NoteSource $source, ?ChangeLog $log, callable $progress): array
    {
        $file = $source->file;
        $layout = $file->layout;
        $matcher = new NoteMatcher($file->production, $file->day);
        $report = [
            'rows' => 0,
            'made' => 0,
            'joined' => 0,
            'counts' => ['new' => 0, 'same' => 0, 'different' => 0, 'unmatched' => 0],
            'samples' => ['new' => [], 'same' => [], 'different' => [], 'unmatched' => []],
            'faults' => [],
            'fault_count' => 0,
            'corrects' => $source->corrects,
            'left' => 0,
        ];
        $faults = NoteFaults::of($file);
        $faults->begin();
        $heading = $layout['heading'];
        $headingCells = [];
        $above = $chunk = [];
        foreach (NoteTable::open(Folders::var($file->path))->rows((int) ($layout['sheet'] ?? 0)) as $number => $cells) {
            if ($number - 1 <= $heading) {
                $headingCells = $number - 1 === $heading ? $cells : $headingCells;

                continue;
            }
            // Long tables print their heading again on every page.
            if ($headingCells !== [] && NoteColumns::signature($cells) === NoteColumns::signature($headingCells)) {
                continue;
            }
            $row = NoteRow::read(
                NoteColumns::sorted($cells, $layout['columns']),
                $file->production->slate_style,
                $above,
                $file->production->fields(),
            );
            if ($row === null) {
                continue;
            }
            $report['rows']++;
            foreach ($row->problems as $problem) {
                $report['fault_count']++;
                $fault = [
                    'row' => $number,
                    'column' => $this->columnOf($layout['columns'], $problem['column']),
                    'what' => $problem['column'],
                    'why' => $problem['why'],
                ];
                $faults->add($fault);
                if (count($report['faults']) < self::SAMPLES) {
                    $report['faults'][] = $fault;
                }
            }
            $chunk[] = [$number, $row];
            if (count($chunk) >= self::CHUNK) {
                $this->piece($source, $chunk, $matcher, $log, $report);
                $chunk = [];
                $progress($report['rows']);
            }
        }
        $this->piece($source, $chunk, $matcher, $log, $report);
        $progress($report['rows']);
        $faults->end();
        $report['left'] = $source->left();

        return $report;
    }

    /**
     * @param  list<array{int, NoteRow}>  $chunk
     * @param  array<string, mixed>  $report
     */
    private function piece(NoteSource $source, array $chunk, NoteMatcher $matcher, ?ChangeLog $log, array &$report): void
    {
        if ($log === null) {
            $this->chunk($source, $chunk, $matcher, null, $report);

            return;
        }
        DB::transaction(function () use ($source, $chunk, $matcher, $log, &$report): void {
            $this->chunk($source, $chunk, $matcher, $log, $report);
            $source->file->update(['change_id' => $log->flush()]);
        });
    }

    /**
     * @param  list<array{int, NoteRow}>  $chunk
     * @param  array<string, mixed>  $report
     */
    private function chunk(NoteSource $source, array $chunk, NoteMatcher $matcher, ?ChangeLog $log, array &$report): void
    {
        $found = array_map(static fn(array $one): array => $matcher->find($one[1]), $chunk);
        $ids = array_merge(...array_map(static fn(array $one): array => array_filter(array_column($one['takes'], 'id')), $found));
        /** @var Collection<int, Take> $takes */
        $takes = Take::query()
            ->with('saidFacts')
            ->whereKey($ids)
            ->when($log !== null, static fn($query) => $query->lockForUpdate())
            ->get()
            ->each(static fn(Take $take) => $take->setRelation('production', $source->file->production))
            ->keyBy('id');
        foreach ($chunk as $at => [$number, $row]) {
            $match = $found[$at];
            if ($match['takes'] === [] || $match['day'] === null) {
                // A slate that could not be read is why nothing matches, whatever else the row names.
                $this->sample($report, 'unmatched', [
                    'row' => $number,
                    'slate' => '',
                    'take' => null,
                    'why' => $row->problems[0]['why'] ?? ($match['why'] ?? 'It names no take.'),
                    'fields' => $this->asNew($row),
                ]);

                continue;
            }
            foreach ($match['takes'] as $one) {
                $take = $one['id'] === null ? null : $takes[$one['id']] ?? null;
                $this->one(
                    $source,
                    $number,
                    $row,
                    $match['day'],
                    $take,
                    $one['slate'],
                    count($match['takes']) === 1 ? $match['clip'] : null,
                    $matcher,
                    $takes,
                    $log,
                    $report,
                );
            }
        }
    }

    /**
     * @param  array{id: int, take: int|null}|null  $clip
     * @param  Collection<int, Take>  $takes
     * @param  array<string, mixed>  $report
     */
    private function one(
        NoteSource $source,
        int $number,
        NoteRow $row,
        ShootDay $day,
        ?Take $take,
        ?Slate $slate,
        ?array $clip,
        NoteMatcher $matcher,
        Collection $takes,
        ?ChangeLog $log,
        array &$report,
    ): void {
        $joins = $clip !== null && $clip['take'] === null && $slate !== null;
        if ($take === null && $slate !== null) {
            $report['made']++;
            $sample = [
                'row' => $number,
                'slate' => $slate->label(),
                'take' => null,
                'why' => 'This take is not in the log yet' . ($joins ? '' : '; no clip shows it') . '.',
                'fields' => $this->asNew($row),
            ];
            $this->sample($report, 'new', $sample);
            if ($log === null) {
                // A second row of the same take is no second new take.
                $matcher->know($day, $slate->label(), 0);

                return;
            }
            $take = ($this->find)($day, $slate, $log);
            $takes[$take->id] = $take;
            $matcher->know($day, $slate->label(), $take->id);
            [$fields, $corrects, $isMore] = [$row->fields, [], false];
        } elseif ($take !== null) {
            [$fields, $corrects, $isMore] = $source->words($take, $row);
            [$verdict, $shown] = $this->compare($take, TakeFacts::weigh($take, 'script', $source->place, $fields, $corrects, $isMore));
            $this->sample($report, $joins && $verdict === 'same' ? 'new' : $verdict, [
                'row' => $number,
                'slate' => $take->label(),
                'take' => $take->ulid,
                'why' => $joins ? 'Its clip joins the take.' : '',
                'fields' => $shown,
            ]);
        } else {
            return;
        }
        $report['joined'] += (int) $joins;
        if ($log === null) {
            return;
        }
        TakeFacts::say($take, 'script', $source->place, $fields, $log, $corrects, $isMore);
        $log->save($take);
        if ($joins) {
            $joining = Clip::query()->findOrFail($clip['id']);
            TakeParts::whole($joining, $take, 'script', $log);
        }
    }

    /**
     * @param  array<string, array{now: string|bool, value: string|bool, decided: string|bool|null, fact: TakeFact|null,
     *     old: list<TakeFact>}>  $words
     * @return array{string, list<array{field: string, was: string|bool, said: string|bool, becomes: string|bool|null}>}
     */
    private function compare(Take $take, array $words): array
    {
        $fields = [];
        $verdict = 'same';
        foreach ($words as $field => ['now' => $now, 'value' => $said, 'decided' => $decided]) {
            $by = $take->set_by[$field]['by'] ?? null;
            if ($decided === null && !FieldMerge::isOpen($field, $now, $by, null, $said, PHP_INT_MAX)) {
                continue;
            }
            $isFresh = FieldMerge::saysNothing($now) || $by === 'carried';
            $verdict = $isFresh && $verdict !== 'different' ? 'new' : 'different';
            $fields[] = ['field' => $field, 'was' => $now, 'said' => $said, 'becomes' => $decided];
        }

        return [$verdict, $fields];
    }

    /** @return list<array{field: string, was: string|bool, said: string|bool, becomes: string|bool|null}> */
    private function asNew(NoteRow $row): array
    {
        return array_map(
            static fn(string $field, string|bool $said): array => ['field' => $field, 'was' => '', 'said' => $said, 'becomes' => $said],
            array_keys($row->fields),
            $row->fields,
        );
    }

    /**
     * @param  array<string, mixed>  $report
     * @param  array<string, mixed>  $sample
     */
    private function sample(array &$report, string $verdict, array $sample): void
    {
        $report['counts'][$verdict]++;
        if (count($report['samples'][$verdict]) < self::SAMPLES) {
            $report['samples'][$verdict][] = $sample;
        }
    }

    /**
     * A column as spreadsheets name it.
     *
     * @param  array<int|string, string>  $columns
     */
    private function columnOf(array $columns, string $target): string
    {
        $at = array_search($target, $columns, true);
        $at = $at === false ? array_search('slate', $columns, true) : $at;

        return $at === false ? '' : NoteColumns::letters((int) $at);
    }
}
