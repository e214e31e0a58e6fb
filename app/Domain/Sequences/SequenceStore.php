<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\SequenceStep;
use App\Models\SequenceVersion;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Cutting\Edit\InvalidOperation;
use Cartella\Core\Cutting\Edit\Operations;
use Cartella\Core\Cutting\Edit\Refused;
use Cartella\Core\Cutting\Edit\Restore;
use Cartella\Core\Cutting\Packed;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Failure;
use Cartella\Core\Time\FrameRate;
use Illuminate\Support\Facades\DB;

/**
 * The one place where cuts of every kind are kept. A change is a short step: what was asked for, what it changed and what leads
 * back; the whole is written down again now and then. Two people change one cut at once: the second's change is carried over
 * the first's, or refused where they meet.
 */
final class SequenceStore
{
    /** After so many steps the whole is written down again, when the answer is on its way. */
    private const STEPS_BETWEEN = 8;

    /** Operations of one change. */
    public const MOST_OPERATIONS = 500;

    /** A name that nothing of the production has yet: two of one name cannot be told apart in a list. */
    public static function freeName(Production $production, string $name): string
    {
        // Room for the number in what is kept of a name.
        $name = mb_substr($name, 0, 150);
        $taken = StoredSequence::query()
            ->where('production_id', $production->id)
            ->where('name', 'like', addcslashes($name, '%_\\') . '%')
            ->pluck('name')
            ->flip();
        $free = $name;
        for ($number = 2; isset($taken[$free]); $number++) {
            $free = "$name, $number";
        }

        return $free;
    }

    /** @param  array<string, mixed>|null  $recipe  how it is made again, for a reel */
    public function create(
        Production $production,
        ?User $user,
        SequenceKind $kind,
        Sequence $sequence,
        ?ShootDay $day = null,
        ?array $recipe = null,
        ?string $madeOf = null,
        ?string $label = null,
    ): StoredSequence {
        return DB::transaction(function () use ($production, $user, $kind, $sequence, $day, $recipe, $madeOf, $label): StoredSequence {
            $stored = new StoredSequence([
                'production_id' => $production->id,
                'shoot_day_id' => $day?->id,
                'user_id' => $user?->id,
                'kind' => $kind,
                'name' => mb_substr($sequence->title, 0, 160),
                'recipe' => $recipe,
                'made_of' => $madeOf,
                'content' => Packed::write($sequence),
                'content_step' => 0,
                'step' => 0,
                ...self::sums($sequence),
            ]);
            $log = new ChangeLog();
            $log->save($stored);
            if ($user !== null) {
                $log->finish($production, $user, $label ?? 'Make the ' . $kind->called() . ' ' . $stored->name);
            }
            $this->keepUses($stored, null, $sequence);
            Live::tell($production->id, Topic::Sequences, ['sequence' => $stored->ulid]);

            return $stored;
        });
    }

    /** The cut as it is now, or as a step left it; 0 is as it was made. */
    public function read(StoredSequence $stored, ?int $step = null): Sequence
    {
        $step ??= $stored->step;
        $sequence = Packed::read($stored->content);
        $ahead = $step >= $stored->content_step;
        $steps = SequenceStep::query()
            ->where('sequence_id', $stored->id)
            ->where('number', '>', min($step, $stored->content_step))
            ->where('number', '<=', max($step, $stored->content_step))
            ->orderBy('number', $ahead ? 'asc' : 'desc')
            ->pluck($ahead ? 'forward' : 'inverse');
        foreach ($steps as $change) {
            $sequence = self::change($change)->apply($sequence);
        }

        return $sequence;
    }

    /**
     * Carries out operations that a page asks for on the cut as it saw it; all of them, or none.
     *
     * @param  int  $base  the step that the page saw last
     * @param  list<mixed>  $operations  as docs/formats.md writes them
     * @return SequenceStep|null null when they change nothing
     *
     * @throws Problem if one is refused, or somebody changed the same place meanwhile
     */
    public function edit(StoredSequence $stored, User $user, int $base, array $operations, string $label): ?SequenceStep
    {
        return DB::transaction(function () use ($stored, $user, $base, $operations, $label): ?SequenceStep {
            $now = $this->locked($stored);
            if ($base < 0 || $base > $now->step || count($operations) > self::MOST_OPERATIONS) {
                throw Problem::refused('cut.step', 'That change is not one of this cut.', 'Open the cut again.');
            }
            $seen = $this->read($now, $base);
            try {
                $done = Operations::run($seen, $operations);
            } catch (InvalidOperation $bad) {
                throw Problem::refused('cut.operation', $bad->getMessage(), 'Open the cut again.');
            }
            if ($done['refused'] !== []) {
                throw Problem::refused('cut.refused', $done['refused'][0]['reason'], 'Nothing was changed.', $done['refused'][0]);
            }

            return $this->step($now, $user, Restore::between($seen, $done['sequence']), $base, $label, $operations, [
                $seen,
                $done['sequence'],
            ]);
        });
    }

    /**
     * Changes the cut as a page saw it by something that is more than operations.
     *
     * @param  int|null  $base  the step that the page saw last; null for the newest
     * @param  callable(Sequence): Sequence  $work
     * @return SequenceStep|null null when nothing changed
     *
     * @throws Problem if it is refused, or somebody changed the same place meanwhile
     */
    public function rework(StoredSequence $stored, User $user, ?int $base, callable $work, string $label): ?SequenceStep
    {
        return DB::transaction(function () use ($stored, $user, $base, $work, $label): ?SequenceStep {
            $now = $this->locked($stored);
            $base ??= $now->step;
            if ($base < 0 || $base > $now->step) {
                throw Problem::refused('cut.step', 'That change is not one of this cut.', 'Open the cut again.');
            }
            $seen = $this->read($now, $base);
            try {
                $done = $work($seen);
            } catch (Refused $no) {
                throw Problem::refused('cut.refused', $no->getMessage(), 'Nothing was changed.');
            }

            return $this->step($now, $user, Restore::between($seen, $done), $base, $label, [], [$seen, $done]);
        });
    }

    /**
     * Gives a cut in which nothing lies yet the rate and the size of the picture that comes first; another one stays as it is.
     *
     * @param  array{width: int, height: int}|null  $size  pixels
     */
    public function shape(StoredSequence $stored, FrameRate $rate, ?array $size): void
    {
        DB::transaction(function () use ($stored, $rate, $size): void {
            $now = $this->locked($stored);
            $was = $this->read($now);
            $shaped = $was->shaped($rate, $size);
            if ($was->durationTicks() > 0 || $shaped->toHead() == $was->toHead()) {
                return;
            }
            $now->update(['content' => Packed::write($shaped), 'content_step' => $now->step]);
            $stored->setRawAttributes($now->getAttributes(), true);
            Live::tell($now->production_id, Topic::Sequences, ['sequence' => $now->ulid]);
        });
    }

    /**
     * Makes a cut what another one is, as one step: a recipe that was carried out again, a version that is gone back to.
     *
     * @param  User|null  $user  null when the desk does it by itself; then it is nobody's step to take back
     */
    public function replace(StoredSequence $stored, ?User $user, Sequence $with, string $label): ?SequenceStep
    {
        return DB::transaction(function () use ($stored, $user, $with, $label): ?SequenceStep {
            $now = $this->locked($stored);
            $seen = $this->read($now);

            return $this->step($now, $user, Restore::between($seen, $with), $now->step, $label, [], [$seen, $with]);
        });
    }

    /**
     * Work on a cut that others cannot change meanwhile: what is read of it is what is changed.
     *
     * @template T
     *
     * @param  callable(StoredSequence): T  $work  with the cut as it is by now
     * @return T
     */
    public function alone(StoredSequence $stored, callable $work): mixed
    {
        return DB::transaction(fn(): mixed => $work($this->locked($stored)));
    }

    public function rename(StoredSequence $stored, User $user, string $name): void
    {
        DB::transaction(static function () use ($stored, $user, $name): void {
            $log = new ChangeLog();
            $was = $stored->name;
            $stored->name = $name;
            $log->save($stored);
            $log->finish($stored->production, $user, "Name the {$stored->kind->called()} $was \"$name\"");
        });
        Live::tell($stored->production_id, Topic::Sequences, ['sequence' => $stored->ulid]);
    }

    /** Takes it off every list, undoable; its steps and versions stay with it. */
    public function remove(StoredSequence $stored, User $user): void
    {
        DB::transaction(static function () use ($stored, $user): void {
            $log = new ChangeLog();
            $stored->removed_at = now();
            $log->save($stored);
            $log->finish($stored->production, $user, "Remove the {$stored->kind->called()} $stored->name");
        });
        Live::tell($stored->production_id, Topic::Sequences, ['sequence' => $stored->ulid]);
    }

    /**
     * Keeps the cut as it is now under a name, whole.
     *
     * @param  User|null  $user  null when the desk keeps it by itself; then it is nobody's step to take back
     */
    public function keepVersion(StoredSequence $stored, ?User $user, string $name): SequenceVersion
    {
        return DB::transaction(function () use ($stored, $user, $name): SequenceVersion {
            $now = $this->locked($stored);
            $version = new SequenceVersion([
                'sequence_id' => $now->id,
                'user_id' => $user?->id,
                'name' => $name,
                'step' => $now->step,
                'content' => Packed::write($this->read($now)),
            ]);
            if ($user === null) {
                $version->save();
            } else {
                $log = new ChangeLog();
                $log->save($version);
                $log->finish($now->production, $user, "Keep \"$name\" of $now->name");
            }
            Live::tell($now->production_id, Topic::Sequences, ['sequence' => $now->ulid]);

            return $version;
        });
    }

    /** The cut as somebody kept it. */
    public function version(SequenceVersion $version): Sequence
    {
        return Packed::read($version->content);
    }

    /** @return SequenceStep|null null when the cut is as the version is */
    public function goBackTo(SequenceVersion $version, User $user): ?SequenceStep
    {
        return $this->replace($version->sequence, $user, $this->version($version), "Go back to \"$version->name\"");
    }

    /**
     * Leads a step back over everything that was done since, as a further step.
     *
     * @throws Refused if somebody changed the same place since
     */
    public function takeBack(SequenceStep $step, User $user): void
    {
        DB::transaction(function () use ($step, $user): void {
            $now = $this->locked($step->sequence);
            $this->step($now, $user, self::change($step->inverse), $step->number, "Take back: $step->label", [], null, $step->id);
        });
    }

    /** A step that went with its cut when that was taken back comes again with it. */
    public function again(int $sequence, User $user, string $forward, string $label, int $formerId): bool
    {
        return DB::transaction(function () use ($sequence, $user, $forward, $label, $formerId): bool {
            $now = StoredSequence::query()->lockForUpdate()->find($sequence);
            if ($now !== null) {
                $this->step($now, $user, self::change($forward), $now->step, $label, [], null, $formerId);
            }

            return $now !== null;
        });
    }

    /**
     * Writes down the whole of a cut at its newest step. Steps are never altered, so that nobody who edits meanwhile has to wait; what
     * another wrote down farther on stays.
     */
    public function settle(int $id): void
    {
        $now = StoredSequence::query()->find($id);
        if ($now === null || $now->step === $now->content_step) {
            return;
        }
        // Nothing of it changes for those who look at it.
        StoredSequence::query()
            ->whereKey($id)
            ->where('content_step', '<', $now->step)
            ->toBase()
            ->update(['content' => Packed::write($this->read($now)), 'content_step' => $now->step]);
    }

    /** Writes down anew which clips a cut shows. */
    public function indexUses(StoredSequence $stored): void
    {
        DB::table('sequence_uses')->where('sequence_id', $stored->id)->delete();
        $this->keepUses($stored, null, $this->read($stored));
    }

    /**
     * @param  Restore  $forward  what changes, of the cut as the step `$base` left it
     * @param  list<mixed>  $operations  as they were asked for
     * @param  array{Sequence, Sequence}|null  $known  that state and what it becomes, where they are there already
     * @param  int|null  $takesBack  the step that it takes back; null also tells the one undo of it
     */
    private function step(
        StoredSequence $now,
        ?User $user,
        Restore $forward,
        int $base,
        string $label,
        array $operations,
        ?array $known,
        ?int $takesBack = null,
    ): ?SequenceStep {
        if ($forward->isNothing()) {
            return null;
        }
        $since = $base === $now->step ? [] : $now->steps()->where('number', '>', $base)->with('user')->get();
        // What others did since is in what the newest step left, which is written down never far from it.
        $state = $since === [] && $known !== null ? $known[0] : $this->read($now);
        foreach (self::standing($since) as ['step' => $other, 'forward' => $theirs]) {
            try {
                $forward = $forward->over($theirs);
            } catch (Refused $met) {
                throw $takesBack === null ? self::met($other) : $met;
            }
        }
        try {
            $after = $known !== null && $since === [] ? $known[1] : $forward->apply($state);
        } catch (Refused $met) {
            $last = $since === [] ? null : $since[count($since) - 1];
            throw $takesBack === null && $last !== null ? self::met($last) : $met;
        }
        $step = new SequenceStep([
            'sequence_id' => $now->id,
            'number' => $now->step + 1,
            'user_id' => $user?->id,
            'label' => mb_substr($label, 0, 160),
            'operation' => json_encode($operations, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'forward' => json_encode($forward->toArray(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'inverse' => json_encode(Restore::between($after, $state)->toArray(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'takes_back' => $takesBack,
        ]);
        if ($takesBack === null && $user !== null) {
            $log = new ChangeLog();
            $log->save($step);
            $log->finish($now->production, $user, $label);
        } else {
            $step->save();
        }
        $now->update(['step' => $step->number, ...self::sums($after)]);
        $this->keepUses($now, $state, $after);
        if ($now->step - $now->content_step >= self::STEPS_BETWEEN) {
            defer(fn() => $this->settle($now->id));
        }
        Live::tell($now->production_id, Topic::Sequences, ['sequence' => $now->ulid, 'step' => $step->number]);

        return $step;
    }

    /**
     * What of some steps one after the other still stands: one that was taken back among them is as if it had never been, and what
     * came between is as it would have been without it.
     *
     * @param  iterable<SequenceStep>  $steps
     * @return list<array{step: SequenceStep, forward: Restore}>
     *
     * @throws Refused if what came between cannot be told apart from it
     */
    private static function standing(iterable $steps): array
    {
        $list = [];
        foreach ($steps as $step) {
            $list[] = ['step' => $step, 'forward' => self::change($step->forward)];
            $at = null;
            foreach ($list as $index => $one) {
                $at = $one['step']->id === $step->takes_back ? $index : $at;
            }
            if ($at === null) {
                continue;
            }
            $inverse = self::change($list[$at]['step']->inverse);
            for ($between = $at + 1; $between < count($list) - 1; $between++) {
                $theirs = $list[$between]['forward'];
                $list[$between]['forward'] = $theirs->over($inverse);
                $inverse = $inverse->over($theirs);
            }
            array_splice($list, $at, 1);
            array_pop($list);
        }

        return $list;
    }

    private static function met(SequenceStep $other): Problem
    {
        $who = $other->user->name ?? 'The desk';

        return Problem::conflict(
            'cut.conflict',
            sprintf('%s changed the same place of the cut meanwhile: %s.', $who, Failure::quote($other->label)),
            'Nothing of yours was changed. Look at it and do it again.',
        );
    }

    /** The row as it is now, and its content, which is long and fetched again only if it was written down since. */
    private function locked(StoredSequence $stored): StoredSequence
    {
        $now = StoredSequence::query()
            ->lockForUpdate()
            ->findOrFail($stored->id, array_values(array_diff(array_keys($stored->getAttributes()), ['content'])));
        $content =
            $now->content_step === $stored->content_step
                ? $stored->content
                : StoredSequence::query()->whereKey($stored->id)->value('content');

        $now->setRawAttributes(['content' => $content] + $now->getAttributes(), true);
        if ($stored->relationLoaded('production')) {
            $now->setRelation('production', $stored->production);
        }

        return $now;
    }

    private static function change(string $json): Restore
    {
        return Restore::fromArray(json_decode($json, true, 64, JSON_THROW_ON_ERROR));
    }

    /** @return array{items: int, running_ticks: int} */
    private static function sums(Sequence $sequence): array
    {
        $items = 0;
        foreach ($sequence->tracks as $track) {
            $items += $track->count();
        }

        return ['items' => $items, 'running_ticks' => $sequence->durationTicks()];
    }

    /** Only what differs is written, and tracks that are the same are not counted: most steps change no clip's uses. */
    private function keepUses(StoredSequence $stored, ?Sequence $before, Sequence $after): void
    {
        if ($before !== null && count($before->tracks) === count($after->tracks)) {
            $other = array_filter(
                $after->tracks,
                static fn(Track $track, int $at): bool => $track !== $before->tracks[$at],
                ARRAY_FILTER_USE_BOTH,
            );
            if (self::uses(array_intersect_key($before->tracks, $other)) == self::uses($other)) {
                return;
            }
        }
        $was = self::uses($before->tracks ?? []);
        $is = self::uses($after->tracks);
        $changed = array_diff_assoc($is, $was);
        $gone = array_diff_key($was, $is);
        if ($changed === [] && $gone === []) {
            return;
        }
        $ids = Clip::query()
            ->where('production_id', $stored->production_id)
            ->whereIn('ulid', array_map(strval(...), array_keys($changed + $gone)))
            ->pluck('id', 'ulid');
        foreach (array_chunk(array_keys($changed), 500) as $some) {
            $rows = [];
            foreach ($some as $ulid) {
                if (isset($ids[$ulid])) {
                    $rows[] = ['sequence_id' => $stored->id, 'clip_id' => $ids[$ulid], 'times' => $changed[$ulid]];
                }
            }
            DB::table('sequence_uses')->upsert($rows, ['sequence_id', 'clip_id'], ['times']);
        }
        DB::table('sequence_uses')
            ->where('sequence_id', $stored->id)
            ->whereIn('clip_id', $ids->only(array_keys($gone))->values())
            ->delete();
    }

    /**
     * @param  array<int, Track>  $tracks
     * @return array<string, int> how often each source plays, by its id
     */
    private static function uses(array $tracks): array
    {
        $uses = [];
        foreach ($tracks as $track) {
            foreach ($track->sourceIds() as $id) {
                $uses[$id] = ($uses[$id] ?? 0) + 1;
            }
        }

        return $uses;
    }
}
