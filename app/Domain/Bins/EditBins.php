<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\References;
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
use Cartella\Core\Footage\ChannelSet;
use Cartella\Core\Footage\Span;
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
     * @param  list<string>  $refs  what goes in, as references are written
     * @param  Bin|null  $from  the bin they leave; null when they came from one that fills itself
     * @return int how many were not there yet
     *
     * @throws Problem if one of them is nothing of this production
     */
    public function move(Production $production, User $user, array $refs, Bin $to, ?Bin $from): int
    {
        $found = References::find($production, $refs);
        $moved = 0;
        $this->step($production, $user, sprintf('Put %s into %s', count($found) === 1 ? 'one' : count($found), $to->name), static function (
            ChangeLog $log,
        ) use ($found, $to, $from, &$moved): void {
            $refs = array_map(static fn(array $one): string => (string) $one['reference'], $found);
            $there = BinItem::query()->where('bin_id', $to->id)->whereIn('ref', $refs)->pluck('ref')->flip();
            foreach ($found as ['reference' => $reference, 'id' => $id]) {
                $ref = (string) $reference;
                if (!$there->has($ref)) {
                    $log->save(new BinItem(['bin_id' => $to->id, References::column($reference->kind) => $id, 'ref' => $ref]));
                    $moved++;
                }
            }
            if ($from !== null && $from->id !== $to->id) {
                foreach (BinItem::query()->where('bin_id', $from->id)->whereIn('ref', $refs)->get() as $left) {
                    $log->delete($left);
                }
            }
        });

        return $moved;
    }

    /** @param  list<string>  $refs  what of it is not there stays out */
    public function takeOut(Production $production, User $user, array $refs, Bin $bin): void
    {
        $this->step($production, $user, sprintf('Take %d out of %s', count($refs), $bin->name), static function (ChangeLog $log) use (
            $refs,
            $bin,
        ): void {
            foreach (BinItem::query()->where('bin_id', $bin->id)->whereIn('ref', $refs)->get() as $item) {
                $log->delete($item);
            }
        });
    }

    /**
     * Gives a stretch of a clip, some of its channels, or both a name.
     *
     * @param  ChannelSet|null  $channels  null for all
     *
     * @throws Problem if it leaves the clip, or would be all of it
     */
    public function keepSubclip(Clip $clip, User $user, string $name, ?Span $span, ?ChannelSet $channels): Subclip
    {
        if (($span === null && $channels === null) || $span?->isInside((int) $clip->duration_ticks) === false) {
            throw self::noRange();
        }
        $known = array_column($clip->channels ?? [], 'index');
        if ($channels !== null && array_diff($channels->numbers, $known) !== []) {
            throw Problem::refused('subclip.channels', "{$clip->title()} has no such channel.", 'Choose among those it has.');
        }
        $subclip = new Subclip([
            'clip_id' => $clip->id,
            'user_id' => $user->id,
            'name' => $name,
            'in_ticks' => $span?->inTicks,
            'out_ticks' => $span?->outTicks,
            'channels' => $channels?->numbers,
        ]);
        $this->step($clip->production, $user, "Keep the subclip $name", static fn(ChangeLog $log) => $log->save($subclip));

        return $subclip;
    }

    /** It goes out of the bins that hold it, and comes back to them when this is taken back. */
    public function removeSubclip(Subclip $subclip, User $user): void
    {
        $this->step($subclip->clip->production, $user, "Remove the subclip $subclip->name", static function (ChangeLog $log) use (
            $subclip,
        ): void {
            foreach (BinItem::query()->where('subclip_id', $subclip->id)->get() as $item) {
                $log->delete($item);
            }
            $log->delete($subclip);
        });
    }

    public static function noRange(): Problem
    {
        return Problem::refused(
            'subclip.range',
            'The out point must come after the in point, both inside the clip.',
            'Set them again with I and O.',
        );
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
