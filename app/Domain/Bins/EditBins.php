<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Undo\ChangeLog;
use App\Models\Bin;
use App\Models\BinItem;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Subclip;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What people do to their own bins and subclips; each an undoable step, none touching a recording. */
final class EditBins
{
    public function make(Production $production, User $user, string $name, ?Bin $parent): Bin
    {
        $this->refuseTaken($production, $name, $parent?->id, null);
        $bin = new Bin(['production_id' => $production->id, 'parent_id' => $parent?->id, 'user_id' => $user->id, 'name' => $name]);
        $this->step($production, $user, "Make the bin $name", static fn(ChangeLog $log) => $log->save($bin));

        return $bin;
    }

    public function rename(Bin $bin, Production $production, User $user, string $name): Bin
    {
        $this->refuseTaken($production, $name, $bin->parent_id, $bin->id);
        $bin->name = $name;
        $this->step($production, $user, "Rename a bin to $name", static fn(ChangeLog $log) => $log->save($bin));

        return $bin;
    }

    /** The clips stay in the production and in their other bins. */
    public function remove(Bin $bin, Production $production, User $user): void
    {
        if (Bin::query()->where('parent_id', $bin->id)->exists()) {
            throw Problem::refused('bin.not_empty', "$bin->name holds other bins.", 'Remove those first.');
        }
        $this->step($production, $user, "Remove the bin $bin->name", static function (ChangeLog $log) use ($bin): void {
            foreach (BinItem::query()->where('bin_id', $bin->id)->get() as $item) {
                $log->delete($item);
            }
            $log->delete($bin);
        });
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  Bin|null  $from  the bin they leave; null when they came from one that fills itself
     */
    public function move(Production $production, User $user, Collection $clips, Bin $to, ?Bin $from): int
    {
        $moved = 0;
        $this->step(
            $production,
            $user,
            sprintf('Put %d %s into %s', $clips->count(), $clips->count() === 1 ? 'clip' : 'clips', $to->name),
            static function (ChangeLog $log) use ($clips, $to, $from, &$moved): void {
                foreach ($clips as $clip) {
                    if (!BinItem::query()->where('bin_id', $to->id)->where('clip_id', $clip->id)->exists()) {
                        $log->save(new BinItem(['bin_id' => $to->id, 'clip_id' => $clip->id]));
                        $moved++;
                    }
                    $left = $from === null ? null : BinItem::query()->where('bin_id', $from->id)->where('clip_id', $clip->id)->first();
                    if ($left !== null && $from->id !== $to->id) {
                        $log->delete($left);
                    }
                }
            },
        );

        return $moved;
    }

    /** @param  Collection<int, Clip>  $clips */
    public function takeOut(Production $production, User $user, Collection $clips, Bin $bin): void
    {
        $this->step($production, $user, sprintf('Take %d out of %s', $clips->count(), $bin->name), static function (ChangeLog $log) use (
            $clips,
            $bin,
        ): void {
            foreach (BinItem::query()->where('bin_id', $bin->id)->whereIn('clip_id', $clips->pluck('id'))->get() as $item) {
                $log->delete($item);
            }
        });
    }

    /** @throws Problem if the range is empty or leaves the clip */
    public function keepSubclip(Clip $clip, User $user, string $name, int $inTicks, int $outTicks): Subclip
    {
        if ($inTicks < 0 || $outTicks <= $inTicks || $outTicks > (int) $clip->duration_ticks) {
            throw Problem::refused(
                'subclip.range',
                'The out point must come after the in point, both inside the clip.',
                'Set them again with I and O.',
            );
        }
        $subclip = new Subclip([
            'clip_id' => $clip->id,
            'user_id' => $user->id,
            'name' => $name,
            'in_ticks' => $inTicks,
            'out_ticks' => $outTicks,
        ]);
        $this->step($clip->production, $user, "Keep the subclip $name", static fn(ChangeLog $log) => $log->save($subclip));

        return $subclip;
    }

    private function refuseTaken(Production $production, string $name, ?int $parentId, ?int $exceptId): void
    {
        if (
            Bin::query()
                ->where('production_id', $production->id)
                ->where('parent_id', $parentId)
                ->where('name', $name)
                ->when($exceptId !== null, static fn($query) => $query->whereKeyNot($exceptId))
                ->exists()
        ) {
            throw Problem::refused('bin.taken', "There is a bin named $name already.", 'Choose another name.');
        }
    }

    /** @param  callable(ChangeLog): void  $work */
    private function step(Production $production, User $user, string $label, callable $work): void
    {
        DB::transaction(static function () use ($production, $user, $label, $work): void {
            $log = new ChangeLog();
            $work($log);
            $log->finish($production, $user, $label);
        });
        Live::tell($production->id, Topic::Bins);
    }
}
