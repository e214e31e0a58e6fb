<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ScreeningNote;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Keeps what somebody said while watching, at the frame they saw. */
final class AddNote
{
    public function __invoke(Take $take, User $user, ?Clip $clip, int $atTicks, string $text): ScreeningNote
    {
        $note = new ScreeningNote([
            'take_id' => $take->id,
            'clip_id' => $clip?->id,
            'user_id' => $user->id,
            'at_ticks' => $atTicks,
            'text' => $text,
        ]);
        DB::transaction(static function () use ($take, $user, $note): void {
            $log = new ChangeLog();
            $log->save($note);
            $log->finish($take->production, $user, 'Note on ' . $take->label());
        });
        Live::tell($take->production_id, Topic::Notes, ['take' => $take->ulid]);

        return $note;
    }
}
