<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Marker;
use App\Models\MarkerAbout;
use App\Models\MarkerKind;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Places and stretches of clips that people name; each an undoable step. What a file marks itself stays as it is. */
final class EditMarkers
{
    /**
     * @param  int|null  $outTicks  null for a place
     *
     * @throws Problem if it lies outside the clip
     */
    public function add(
        Clip $clip,
        User $user,
        int $inTicks,
        ?int $outTicks,
        string $name,
        string $note,
        ?MarkerAbout $about = null,
    ): Marker {
        $end = $outTicks ?? $inTicks + 1;
        if ($inTicks < 0 || $end <= $inTicks || $end > (int) $clip->duration_ticks) {
            throw Problem::refused('marker.place', "That place lies outside {$clip->title()}.", 'Set it again.');
        }
        $marker = new Marker([
            'clip_id' => $clip->id,
            'user_id' => $user->id,
            'kind' => MarkerKind::Person,
            'in_ticks' => $inTicks,
            'out_ticks' => $outTicks,
            'name' => $name,
            'note' => $note,
            'about' => $about,
        ]);
        $this->step(
            $clip,
            $user,
            $name === '' ? "Mark {$clip->title()}" : "Mark \"$name\"",
            static fn(ChangeLog $log) => $log->save($marker),
        );

        return $marker;
    }

    /** @throws Problem if it is the file's own */
    public function change(Marker $marker, User $user, string $name, string $note, ?MarkerAbout $about): void
    {
        $this->refuseOfFile($marker);
        $marker->fill(['name' => $name, 'note' => $note, 'about' => $about]);
        $this->step($marker->clip, $user, "Name a marker \"$name\"", static fn(ChangeLog $log) => $log->save($marker));
    }

    /** @throws Problem if it is the file's own */
    public function remove(Marker $marker, User $user): void
    {
        $this->refuseOfFile($marker);
        $this->step($marker->clip, $user, "Remove the marker \"$marker->name\"", static fn(ChangeLog $log) => $log->delete($marker));
    }

    private function refuseOfFile(Marker $marker): void
    {
        if ($marker->kind === MarkerKind::File) {
            throw Problem::refused('marker.file', 'That marker stands in the recording itself.', 'Set one of your own beside it.');
        }
    }

    /** @param  callable(ChangeLog): void  $work */
    private function step(Clip $clip, User $user, string $label, callable $work): void
    {
        DB::transaction(static function () use ($clip, $user, $label, $work): void {
            $log = new ChangeLog();
            $work($log);
            $log->finish($clip->production, $user, $label);
        });
        Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);
    }
}
