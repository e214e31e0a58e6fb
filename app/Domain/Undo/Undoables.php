<?php

declare(strict_types=1);

namespace App\Domain\Undo;

use App\Models\Change;
use App\Support\Topic;

/**
 * The tables whose rows a step may touch, said by the domains that own them. Nothing else is ever written back.
 *
 * Columns are compared one by one, so that two people's steps on different fields of one row never meet. Those that only
 * mean something together are taken back together; a column of JSON whose keys are separate things is compared by key.
 */
final class Undoables
{
    /**
     * @var array<string, array{topic: Topic, together: list<list<string>>, byKey: list<string>, derived: list<string>,
     *     called: string, take: string|null, keyed: list<string>, clip: string|null}> by table
     */
    private array $tables = [];

    /** @var array<string, Replay> by table */
    private array $replays = [];

    /** @var array<string, true> by table */
    private array $attached = [];

    /** @var list<callable(Change): void> */
    private array $guards = [];

    /** @var list<callable(Change): ?string> */
    private array $wholes = [];

    /** @var list<callable(Change): void> */
    private array $followers = [];

    /**
     * @param  Topic  $topic  what open pages are told when rows of it change
     * @param  string  $called  one row of it, in a sentence
     * @param  list<list<string>>  $together  columns that are one value
     * @param  list<string>  $byKey  columns of JSON objects that are kept beside the values, such as who set what
     * @param  list<string>  $derived  columns that the desk fills by itself; they are not compared
     * @param  list<string>  $keyed  columns of JSON objects whose keys are values of their own
     * @param  string|null  $take  the column that names the take whose history a change of a row belongs to
     * @param  string|null  $clip  the column that names the clip whose words a row is of
     */
    public function table(
        string $name,
        Topic $topic,
        string $called,
        array $together = [],
        array $byKey = [],
        array $derived = [],
        ?string $take = null,
        array $keyed = [],
        ?string $clip = null,
    ): void {
        $this->tables[$name] = [
            'topic' => $topic,
            'together' => $together,
            'byKey' => $byKey,
            'derived' => ['updated_at', ...$derived],
            'called' => $called,
            'take' => $take,
            'keyed' => $keyed,
            'clip' => $clip,
        ];
    }

    /** A table whose rows are steps of their own kind; it is registered with {@see self::table}, too. */
    public function replay(string $table, Replay $how): void
    {
        $this->replays[$table] = $how;
    }

    public function replayOf(string $table): ?Replay
    {
        return $this->replays[$table] ?? null;
    }

    /** A table whose rows go with the row they hang on, unless another person made them. */
    public function attached(string $table): void
    {
        $this->attached[$table] = true;
    }

    /** Whether a row that hangs on a made one keeps it from being taken back by somebody. */
    public function holds(string $table, ?int $by, int $user): bool
    {
        return !isset($this->attached[$table]) || ($by !== null && $by !== $user);
    }

    /** @param  callable(Change): void  $guard  throws when a step must not be taken back now */
    public function guard(callable $guard): void
    {
        $this->guards[] = $guard;
    }

    /**
     * For steps that go whole or not at all.
     *
     * @param  callable(Change): ?string  $whole  says why a step cannot be written back now, as a clause; called while the step is written
     */
    public function whole(callable $whole): void
    {
        $this->wholes[] = $whole;
    }

    /** Why a step that goes whole cannot go now; null where it can. */
    public function whyNot(Change $change): ?string
    {
        foreach ($this->wholes as $whole) {
            $why = $whole($change);
            if ($why !== null) {
                return $why;
            }
        }

        return null;
    }

    /** @param  callable(Change): void  $follow  called after a step was taken back or done again */
    public function after(callable $follow): void
    {
        $this->followers[] = $follow;
    }

    public function knows(string $table): bool
    {
        return isset($this->tables[$table]);
    }

    /** @return array{topic: Topic, together: list<list<string>>, byKey: list<string>, derived: list<string>, called: string,
     *     take: string|null, keyed: list<string>, clip: string|null} */
    public function of(string $table): array
    {
        return $this->tables[$table] ?? throw new \LogicException("No domain registered $table for undo.");
    }

    public function check(Change $change): void
    {
        foreach ($this->guards as $guard) {
            $guard($change);
        }
    }

    public function follow(Change $change): void
    {
        foreach ($this->followers as $follow) {
            $follow($change);
        }
    }

    /**
     * The takes that a change of a row is about, for their histories.
     *
     * @param  array<string, mixed>  $before
     * @param  array<string, mixed>  $after
     * @return list<int> ids
     */
    public function takes(string $table, int $id, array $before, array $after): array
    {
        $column = $this->tables[$table]['take'] ?? null;
        $takes = $column === 'id' ? [$id] : [$before[$column ?? ''] ?? null, $after[$column ?? ''] ?? null];

        return array_values(array_filter(array_map(intval(...), $takes)));
    }
}
