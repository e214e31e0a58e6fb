<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Tasks\StartTask;
use App\Models\StoredSequence;
use App\Models\Task;
use App\Models\User;
use App\Support\Folders;
use App\Support\Problem;
use Illuminate\Database\Eloquent\Collection;

/** A reel as one file to be watched elsewhere, and its sound: begun here, written by a worker. */
final readonly class ExportReel
{
    /** Heights of picture that can be asked for. */
    public const HEIGHTS = [540, 720, 1080];

    public function __construct(private StartTask $start) {}

    /**
     * @param  array{slate: bool, timecode: bool, name: string, originals: bool, height: int, tracks: bool}  $wanted  what is written
     *     over the picture, whether it is made of the recordings themselves, how high it is, and whether each track of a cut is
     *     written by itself, too
     *
     * @throws Problem if the reel shows nothing
     */
    public function __invoke(StoredSequence $reel, User $user, array $wanted): Task
    {
        if ($reel->items === 0) {
            throw Problem::refused('reel.empty', "The {$reel->kind->called()} shows nothing.", 'Put something into it first.');
        }

        return ($this->start)($reel->production, $user, 'reel', "File of $reel->name", [
            'reel' => $reel->id,
            'day' => $reel->shoot_day_id,
            'step' => $reel->step,
            'name' => $reel->name,
            'over' => $wanted['name'],
            ...array_diff_key($wanted, ['name' => true]),
        ]);
    }

    /** Where the files of an export lie. */
    public static function folder(Task $task): string
    {
        return Folders::var('exports/' . $task->ulid);
    }

    /** @return Collection<int, Task> of a reel, the newest first */
    public static function of(StoredSequence $reel): Collection
    {
        return Task::query()
            ->where('production_id', $reel->production_id)
            ->where('kind', 'reel')
            ->where('subject->reel', $reel->id)
            ->latest('id')
            ->limit(20)
            ->get();
    }
}
