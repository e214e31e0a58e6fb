<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** One person's in and out on a clip: theirs alone, and taken back like everything else. Ticks from its first frame. */
final class SetMarks
{
    public function __invoke(Clip $clip, User $user, ?int $inTicks, ?int $outTicks): void
    {
        DB::transaction(static function () use ($clip, $user, $inTicks, $outTicks): void {
            // Two windows of one person may set the first mark at once; the clip's row lets them in one by one.
            Clip::query()
                ->whereKey($clip->id)
                ->lockForUpdate()
                ->first(['id']);
            $mark = ClipMark::query()->firstOrNew(['clip_id' => $clip->id, 'user_id' => $user->id]);
            [$in, $out] = [$mark->in_ticks, $mark->out_ticks];
            $mark->fill(['in_ticks' => $inTicks, 'out_ticks' => $outTicks]);
            $log = new ChangeLog();
            $log->save($mark);
            $log->finish(
                $clip->production,
                $user,
                match (true) {
                    $in !== $inTicks && $out !== $outTicks => 'In and out of ',
                    $in !== $inTicks => 'In point of ',
                    default => 'Out point of ',
                } . $clip->title(),
            );
        });
        Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);
    }
}
