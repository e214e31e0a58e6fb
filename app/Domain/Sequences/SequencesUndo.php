<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Domain\Undo\Replay;
use App\Domain\Undo\Undoables;
use App\Models\Change;
use App\Models\SequenceStep;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Topic;
use Cartella\Core\Cutting\Edit\Refused;

/** What of sequences can be taken back: making and removing one as a row, an edit as a step that leads back. */
final class SequencesUndo implements Replay
{
    public function __construct(private readonly SequenceStore $store) {}

    public static function register(Undoables $tables): void
    {
        $tables->table(
            'sequences',
            Topic::Sequences,
            'a reel or cut',
            derived: ['content', 'content_step', 'step', 'items', 'running_ticks', 'made_of', 'built_takes'],
        );
        $tables->table('sequence_steps', Topic::Sequences, 'a change of a cut');
        $tables->table('sequence_versions', Topic::Sequences, 'a kept version');
        foreach (['sequence_steps', 'sequence_versions', 'sequence_uses'] as $table) {
            $tables->attached($table);
        }
        $tables->replay('sequence_steps', app(self::class));
        $tables->after(static function (Change $change): void {
            foreach ($change->rows as $row) {
                $stored = $row['table'] === 'sequences' && $row['before'] === null ? StoredSequence::query()->find($row['id']) : null;
                if ($stored !== null) {
                    app(SequenceStore::class)->indexUses($stored);
                }
            }
        });
    }

    public function turn(Change $change, int $id, array $row, bool $back): ?string
    {
        $user = User::query()->findOrFail($change->user_id);
        $step = $this->newest($id);
        if ($step === null) {
            $isThere =
                !$back && $this->store->again((int) $row['sequence_id'], $user, (string) $row['forward'], (string) $row['label'], $id);

            return $isThere ? null : 'the cut is gone';
        }
        try {
            $this->store->takeBack($step, $user);
        } catch (Refused) {
            $who = SequenceStep::query()
                ->where('sequence_id', $step->sequence_id)
                ->where('number', '>', $step->number)
                ->where('user_id', '!=', $user->id)
                ->with('user')
                ->latest('number')
                ->first();

            return sprintf('%s changed the same place of the cut since', $who?->user->name ?? 'somebody');
        }

        return null;
    }

    /**
     * What a change of one cut became when it was taken back or done again, so that a page need not ask for it.
     *
     * @return SequenceStep|null null where it was not one step of one cut
     */
    public function led(Change $change): ?SequenceStep
    {
        $row = count($change->rows) === 1 ? $change->rows[0] : null;

        // Of the cut only its name in addresses is wanted: what it holds is long.
        return $row === null || $row['table'] !== 'sequence_steps' ? null : $this->newest((int) $row['id'])?->load('sequence:id,ulid');
    }

    /** What stands for the step now: the step itself, or what took it back, or what took that back. */
    private function newest(int $id): ?SequenceStep
    {
        // One that went and came again with its cut has another number, and says which it had.
        $step = SequenceStep::query()->find($id) ?? SequenceStep::query()->where('takes_back', $id)->first();
        while ($step !== null && ($next = SequenceStep::query()->where('takes_back', $step->id)->first()) !== null) {
            $step = $next;
        }

        return $step;
    }
}
