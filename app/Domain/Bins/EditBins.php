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
use Cartella\Core\Rules\InvalidRule;
use Cartella\Core\Rules\Rule;
use Illuminate\Support\Facades\DB;

/** What people do to their own bins and subclips; each an undoable step, none touching a recording. */
final class EditBins
{
    /** References that one step can be about. */
    public const MOST = 50_000;

    /** @param  array<mixed>|null  $rule  of a bin that fills itself, as JSON */
    public function make(Production $production, User $user, string $name, ?Bin $parent, ?array $rule = null): Bin
    {
        $this->refuseTaken($production, $name, $parent?->id, null);
        $bin = new Bin([
            'production_id' => $production->id,
            'parent_id' => $parent?->id,
            'user_id' => $user->id,
            'name' => $name,
            'place' => $this->last($production, $parent?->id),
            'rule' => $rule === null ? null : self::rule($production, $rule, null)->jsonSerialize(),
        ]);
        if ($parent?->rule !== null) {
            throw self::noParent($parent);
        }
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

    public function colour(Bin $bin, Production $production, User $user, ?string $colour): void
    {
        $bin->colour = $colour;
        $this->step($production, $user, "Colour the bin $bin->name", static fn(ChangeLog $log) => $log->save($bin));
    }

    /**
     * @param  array<mixed>  $rule  as JSON
     * @param  array<mixed>|null  $was  as the person saw it; null asks for nothing
     *
     * @throws Problem for a rule that nobody can answer, that asks for its own bin, or that a colleague changed meanwhile
     */
    public function setRule(Bin $bin, Production $production, User $user, array $rule, ?array $was = null): void
    {
        if ($was !== null && $bin->rule != $was) {
            throw Problem::refused('bin.changed', "A colleague changed the rule of $bin->name meanwhile.", 'Put yours back to see theirs.');
        }
        if ($bin->rule === null) {
            throw Problem::refused('bin.no_rule', "$bin->name is filled by hand.", 'Make a rule bin.');
        }
        $bin->rule = self::rule($production, $rule, $bin)->jsonSerialize();
        $this->step($production, $user, "Change the rule of $bin->name", static fn(ChangeLog $log) => $log->save($bin));
    }

    /** Puts a bin into another or to the top, before one of those there or behind all of them. */
    public function place(Bin $bin, Production $production, User $user, ?Bin $parent, ?Bin $before): void
    {
        for ($up = $parent; $up !== null; $up = $up->parent_id === null ? null : Bin::query()->find($up->parent_id)) {
            if ($up->id === $bin->id) {
                throw Problem::refused('bin.inside_itself', "$bin->name cannot lie in itself.", 'Choose another place.');
            }
        }
        if ($parent?->rule !== null) {
            throw self::noParent($parent);
        }
        if ($parent?->id !== $bin->parent_id) {
            $this->refuseTaken($production, $bin->name, $parent?->id, $bin->id);
        }
        $this->step($production, $user, "Move the bin $bin->name", static function (ChangeLog $log) use (
            $bin,
            $production,
            $parent,
            $before,
        ): void {
            $others = Bin::query()
                ->where('production_id', $production->id)
                ->where('parent_id', $parent?->id)
                ->whereKeyNot($bin->id)
                ->orderBy('place')
                ->orderBy('name')
                ->get();
            $at = $before === null ? false : $others->search(static fn(Bin $one): bool => $one->id === $before->id);
            $order = $others->all();
            array_splice($order, $at === false ? count($order) : (int) $at, 0, [$bin]);
            foreach ($order as $place => $one) {
                $one->place = $place;
                $one->parent_id = $parent?->id;
                $log->save($one);
            }
        });
    }

    /** A plain bin with what lies in a rule bin now. */
    public function freeze(Bin $bin, Production $production, User $user): Bin
    {
        if ($bin->rule === null) {
            throw Problem::refused('bin.no_rule', "$bin->name is filled by hand.", 'There is nothing to freeze.');
        }
        $query = BinQuery::of($production, BinKey::own($bin->ulid));
        $entries = $query?->page(0, self::MOST) ?? [];
        if (count($entries) >= self::MOST) {
            throw Problem::refused(
                'bin.too_many',
                sprintf('More than %s lie in %s.', number_format(self::MOST - 1, 0, '.', ' '), $bin->name),
                'Narrow its rule first.',
            );
        }
        $name = $this->free($production, sprintf('%s, %s', mb_substr($bin->name, 0, 100), now()->format('j M')), $bin->parent_id);
        $frozen = new Bin([
            'production_id' => $production->id,
            'parent_id' => $bin->parent_id,
            'user_id' => $user->id,
            'name' => $name,
            'place' => $bin->place,
        ]);
        $this->step($production, $user, "Freeze $bin->name", static function (ChangeLog $log) use ($frozen, $entries): void {
            $log->save($frozen);
            $log->createAll(
                array_map(
                    static fn(array $one): BinItem => new BinItem([
                        'bin_id' => $frozen->id,
                        "{$one['kind']->value}_id" => $one['id'],
                        'ref' => $one['ref'],
                    ]),
                    $entries,
                ),
            );
        });

        return $frozen;
    }

    /** The clips stay in the production and in their other bins. */
    public function remove(Bin $bin, Production $production, User $user): void
    {
        if (Bin::query()->where('parent_id', $bin->id)->exists()) {
            throw Problem::refused('bin.not_empty', "$bin->name holds other bins.", 'Remove those first.');
        }
        foreach (Bin::query()->where('production_id', $production->id)->whereNotNull('rule')->whereKeyNot($bin->id)->get() as $other) {
            if (in_array($bin->ulid, self::asks($other->rule ?? []), true)) {
                throw Problem::refused('bin.asked', "The rule of $other->name asks for $bin->name.", 'Change that rule first.');
            }
        }
        $this->step($production, $user, "Remove the bin $bin->name", static function (ChangeLog $log) use ($bin): void {
            $log->deleteAll(BinItem::query()->where('bin_id', $bin->id)->get());
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
        if ($to->rule !== null) {
            throw Problem::refused('bin.fills_itself', "$to->name fills itself.", 'Choose a bin that is filled by hand.');
        }
        $found = References::find($production, $refs);
        $moved = 0;
        $this->step($production, $user, sprintf('Put %s into %s', count($found) === 1 ? 'one' : count($found), $to->name), static function (
            ChangeLog $log,
        ) use ($found, $to, $from, &$moved): void {
            $refs = array_map(static fn(array $one): string => (string) $one['reference'], $found);
            $there = BinItem::query()->where('bin_id', $to->id)->pluck('ref')->flip();
            $new = [];
            foreach ($found as ['reference' => $reference, 'id' => $id]) {
                $ref = (string) $reference;
                if (!$there->has($ref)) {
                    // Columns in one order, whatever each row names: they go into one statement.
                    $new[] = new BinItem(
                        ['bin_id' => $to->id, 'ref' => $ref] + [References::column($reference->kind) => $id] + [
                                'clip_id' => null,
                                'take_id' => null,
                                'sequence_id' => null,
                                'subclip_id' => null,
                            ],
                    );
                }
            }
            $moved = count($new);
            $log->createAll($new);
            if ($from !== null && $from->id !== $to->id && $from->rule === null) {
                $log->deleteAll(self::items($from, $refs));
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
            $log->deleteAll(self::items($bin, $refs));
        });
    }

    /**
     * @param  list<string>  $refs
     * @return list<BinItem> what of them lies in a bin
     */
    private static function items(Bin $bin, array $refs): array
    {
        $wanted = array_flip($refs);

        return BinItem::query()
            ->where('bin_id', $bin->id)
            ->get()
            ->filter(static fn(BinItem $item): bool => isset($wanted[$item->ref]))
            ->values()
            ->all();
    }

    /**
     * Gives a stretch of a clip, some of its channels, or both a name.
     *
     * @param  ChannelSet|null  $channels  null for all
     *
     * @throws Problem if it leaves the clip, or would be all of it
     */
    public function keepSubclip(Clip $clip, User $user, string $name, ?Span $span, ?ChannelSet $channels, int $handleTicks = 0): Subclip
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
            'handle_ticks' => $handleTicks,
        ]);
        $this->step($clip->production, $user, "Keep the subclip $name", static fn(ChangeLog $log) => $log->save($subclip));

        return $subclip;
    }

    /**
     * Another name or another stretch for a subclip; bins and cuts that point at it point at what it is then.
     *
     * @param  Span|null  $span  null for all of the clip, which only a choice of channels can be
     * @param  int|null  $handleTicks  null leaves its handles
     *
     * @throws Problem if the stretch leaves the clip
     */
    public function changeSubclip(Subclip $subclip, User $user, string $name, ?Span $span, ?int $handleTicks = null): void
    {
        $clip = $subclip->clip;
        if ($span === null ? $subclip->channels === null : !$span->isInside((int) $clip->duration_ticks)) {
            throw self::noRange();
        }
        $subclip->fill([
            'name' => $name,
            'in_ticks' => $span?->inTicks,
            'out_ticks' => $span?->outTicks,
            'handle_ticks' => $handleTicks ?? $subclip->handle_ticks,
        ]);
        $this->step($clip->production, $user, "Change the subclip $name", static fn(ChangeLog $log) => $log->save($subclip));
    }

    /**
     * Each channel of some recordings under its own name, in one step; those that are there already stay as they are.
     *
     * @param  list<string>  $clips  ULIDs
     * @return int how many channels got a name
     *
     * @throws Problem if a clip is none of the production
     */
    public function splitChannels(Production $production, User $user, array $clips): int
    {
        $found = Clip::query()->where('production_id', $production->id)->whereIn('ulid', $clips)->with('subclips')->get();
        if ($found->count() !== count(array_unique($clips))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }
        $new = [];
        foreach ($found as $clip) {
            $known = $clip->subclips
                ->filter(static fn(Subclip $one): bool => $one->in_ticks === null && count($one->channels ?? []) === 1)
                ->map(static fn(Subclip $one): int => (int) $one->channels[0])
                ->all();
            foreach (count($clip->channels ?? []) > 1 ? $clip->channels : [] as $channel) {
                if (in_array((int) $channel['index'], $known, true)) {
                    continue;
                }
                $called = trim((string) ($channel['name'] ?? '')) ?: 'channel ' . $channel['index'];
                $new[] = new Subclip([
                    'clip_id' => $clip->id,
                    'user_id' => $user->id,
                    'name' => mb_substr("{$clip->title()} $called", 0, 160),
                    'channels' => [(int) $channel['index']],
                ]);
            }
        }
        if ($new !== []) {
            $this->step(
                $production,
                $user,
                sprintf('Split %s into channels', count($found) === 1 ? $found[0]->title() : count($found) . ' clips'),
                static function (ChangeLog $log) use ($new): void {
                    foreach ($new as $one) {
                        $log->save($one);
                    }
                },
            );
        }

        return count($new);
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

    /**
     * @param  array<mixed>  $json
     *
     * @throws Problem for a rule that nobody can answer, or that leads back to its own bin
     */
    public static function rule(Production $production, array $json, ?Bin $own): Rule
    {
        try {
            $rule = Rule::of($json, RuleSubjects::of($production));
        } catch (InvalidRule $fault) {
            throw Problem::refused('bin.rule', $fault->getMessage(), 'Change that part of the sentence.');
        }
        $next = self::asks($rule->jsonSerialize());
        for ($seen = []; $next !== []; ) {
            $ulid = array_pop($next);
            if ($ulid === $own?->ulid) {
                throw Problem::refused(
                    'bin.loop',
                    'A rule cannot ask for its own bin, nor for one that asks for it.',
                    'Choose another bin.',
                );
            }
            if (!isset($seen[$ulid])) {
                $seen[$ulid] = true;
                $asked = Bin::query()->where('production_id', $production->id)->where('ulid', $ulid)->first();
                array_push($next, ...self::asks($asked->rule ?? []));
            }
        }

        return $rule;
    }

    /**
     * @param  array<mixed>  $json  a rule or part of one
     * @return list<string> the bins that it asks for, by ULID
     */
    private static function asks(array $json): array
    {
        $asked = in_array($json['about'] ?? null, ['bin', 'rule'], true)
            ? array_values(array_filter($json['values'] ?? [], is_string(...)))
            : [];
        foreach ($json['parts'] ?? [] as $part) {
            array_push($asked, ...is_array($part) ? self::asks($part) : []);
        }

        return $asked;
    }

    private function last(Production $production, ?int $parentId): int
    {
        return 1 + (int) Bin::query()->where('production_id', $production->id)->where('parent_id', $parentId)->max('place');
    }

    /** A name that no neighbour has. */
    private function free(Production $production, string $name, ?int $parentId): string
    {
        $taken = Bin::query()->where('production_id', $production->id)->where('parent_id', $parentId)->pluck('name')->flip();
        for ($free = $name, $n = 2; $taken->has($free); $n++) {
            $free = "$name ($n)";
        }

        return $free;
    }

    private static function noParent(Bin $bin): Problem
    {
        return Problem::refused('bin.fills_itself', "$bin->name fills itself and holds no other bins.", 'Choose another place.');
    }

    /**
     * Which groups the tree of a production shows, for everybody.
     *
     * @param  list<string>  $groups  of {@see BinTree::GROUPS}, in their order
     */
    public function groups(Production $production, User $user, array $groups): void
    {
        $production->bin_groups = $groups;
        $this->step($production, $user, 'Change what the tree of bins shows', static fn(ChangeLog $log) => $log->save($production));
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
