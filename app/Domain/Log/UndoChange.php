<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Lineup\LaySoundJob;
use App\Domain\Lineup\SoundOfTake;
use App\Domain\Log\Notes\BringNotes;
use App\Models\Change;
use App\Models\NoteFile;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Illuminate\Support\Facades\DB;

/** Takes back a person's own last step, or does it again; refuses where somebody else has changed the same since. */
final class UndoChange
{
    /** Tables whose rows a step may touch; nothing else is ever written back. */
    private const TABLES = ['takes', 'clips', 'placements', 'bins', 'bin_items', 'subclips', 'scenes', 'clock_offsets', 'settled_points', 'notes', 'reels', 'reel_items', 'cards', 'devices', 'productions', 'take_facts', 'looks'];

    public function undo(Production $production, User $user): ?Change
    {
        $change = $this->own($production, $user)->whereNull('undone_at')->latest('id')->first();

        $file = $change === null ? null : NoteFile::query()->where('change_id', $change->id)->whereNull('applied_at')->first();
        if ($file !== null && BringNotes::taskOf($file)?->isOver() === false) {
            throw Problem::refused('undo.busy', "$file->name is still being brought in.", 'Wait until it is done, or stop it; then take it back.');
        }

        return $change === null ? null : $this->write($change, true);
    }

    public function redo(Production $production, User $user): ?Change
    {
        $change = $this->own($production, $user)->whereNotNull('undone_at')->oldest('id')->first();

        return $change === null ? null : $this->write($change, false);
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Change> */
    private function own(Production $production, User $user)
    {
        return Change::query()->where('production_id', $production->id)->where('user_id', $user->id);
    }

    private function write(Change $change, bool $back): Change
    {
        $tables = [];
        DB::transaction(function () use ($change, $back, &$tables): void {
            foreach ($change->steps($back) as $row) {
                $tables[$row['table']] = true;
                if (! in_array($row['table'], self::TABLES, true)) {
                    throw Problem::cannotUndo($change->label);
                }
                $this->row($change, $row, $back ? $row['after'] : $row['before'], $back ? $row['before'] : $row['after']);
            }
            $change->update(['undone_at' => $back ? now() : null]);
        });
        $this->layAgain($change);
        foreach (array_keys($tables) as $table) {
            Live::tell($change->production_id, match ($table) {
                'placements', 'clock_offsets' => 'lineup',
                'bins', 'bin_items', 'subclips' => 'bins',
                'productions' => 'patterns',
                'looks' => 'looks',
                'cards' => 'cards',
                'devices' => 'lanes',
                'notes' => 'notes',
                'reels', 'reel_items' => 'reels',
                default => 'takes',
            });
        }

        return $change;
    }

    /** Sound that was laid under a picture follows it back to where it was, and to what was heard of it. */
    private function layAgain(Change $change): void
    {
        foreach ($change->stepsOf('takes') as $row) {
            if (array_key_exists('listening', $row['before'] ?? [])) {
                SoundOfTake::layAgain((int) $row['id']);
            }
        }
        foreach ($change->stepsOf('placements') as $row) {
            if (array_intersect_key($row['before'] ?? [], ['start_ticks' => true, 'drift_applied' => true]) !== []) {
                $clip = DB::table('placements')->where('id', $row['id'])->value('clip_id');
                if ($clip !== null) {
                    LaySoundJob::dispatch((int) $clip)->onQueue('media');
                }
            }
        }
    }

    /**
     * @param  array{table: string, id: int}  $row
     * @param  array<string, mixed>|null  $from  what must be there now
     * @param  array<string, mixed>|null  $to
     */
    private function row(Change $change, array $row, ?array $from, ?array $to): void
    {
        $table = DB::table($row['table'])->where('id', $row['id']);
        if ($to === null) {
            $table->delete();
        } elseif ($from === null) {
            DB::table($row['table'])->insert($to);
        } else {
            $now = (array) $table->lockForUpdate()->first();
            foreach ($from as $column => $value) {
                if ($column !== 'updated_at' && (! array_key_exists($column, $now) || ! self::same($now[$column], $value))) {
                    throw Problem::cannotUndo($change->label);
                }
            }
            DB::table($row['table'])->where('id', $row['id'])->update($to);
        }
    }

    /** The database gives numbers and truth values back as it stores them. */
    private static function same(mixed $stored, mixed $kept): bool
    {
        if (is_string($stored) && is_string($kept) && ($stored[0] ?? '') === '[' || is_string($stored) && ($stored[0] ?? '') === '{') {
            return json_decode($stored, true) == (is_string($kept) ? json_decode($kept, true) : $kept);
        }
        if (is_bool($kept)) {
            $kept = (int) $kept;
        }

        return $stored === null || $kept === null ? $stored === $kept : (is_numeric($stored) && is_numeric($kept) ? (float) $stored === (float) $kept : (string) $stored === (string) $kept);
    }
}
