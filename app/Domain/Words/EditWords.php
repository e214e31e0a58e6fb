<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Words\SpokenText;
use Illuminate\Support\Facades\DB;

/**
 * Corrections of what was heard: a word, where a passage begins, who speaks. Each is an undoable step, and each says what the person
 * saw, so that two who correct one passage do not write over each other.
 *
 * @phpstan-import-type Kept from PassageWords
 */
final class EditWords
{
    /** Words of one passage at most. */
    private const MOST = 1000;

    /**
     * Writes something else for some words that follow each other; nothing takes them out.
     *
     * @param  int  $from  index of the first word
     * @param  list<string>  $was  the words that the person saw
     *
     * @throws Problem if somebody changed them meanwhile
     */
    public function correct(Passage $passage, User $user, int $from, array $was, string $text): void
    {
        $written = SpokenText::written($text);
        $label =
            $written === []
                ? 'Take out "' . implode(' ', $was) . '"'
                : 'Correct "' . implode(' ', $was) . '" to "' . implode(' ', $written) . '"';
        $this->step($passage, $user, $label, static function (Passage $now, ChangeLog $log) use ($user, $from, $was, $written): void {
            $words = $now->words;
            self::seen($now, $from, $was);
            $old = array_slice($words, $from, count($was));
            $start = (int) $old[0][1];
            $end = (int) $old[count($old) - 1][2];
            $new = [];
            foreach ($written as $number => $word) {
                $isSame = count($written) === count($old);
                // As many as there were keep their times; others share the stretch.
                $new[] = [
                    $word,
                    $isSame ? $old[$number][1] : $start + intdiv(($end - $start) * $number, count($written)),
                    $isSame ? $old[$number][2] : $start + intdiv(($end - $start) * ($number + 1), count($written)),
                    $isSame && $old[$number][0] === $word ? $old[$number][3] : null,
                    $isSame
                        ? $old[$number][4] ?? $old[$number][0]
                        : implode(' ', array_map(static fn(array $one): string => $one[4] ?? $one[0], $old)),
                ];
            }
            array_splice($words, $from, count($was), $new);
            self::write($now, $user, $log, $words);
        });
    }

    /**
     * Begins a new passage at a word.
     *
     * @param  string  $was  the word
     */
    public function split(Passage $passage, User $user, int $at, string $was): Passage
    {
        $made = null;
        $this->step($passage, $user, "Begin a passage at \"$was\"", static function (Passage $now, ChangeLog $log) use (
            $user,
            $at,
            $was,
            &$made,
        ): void {
            self::seen($now, $at, [$was]);
            if ($at === 0) {
                throw Problem::refused('words.first', 'A passage begins there already.', 'Choose a later word.');
            }
            $made = $now->replicate(['ulid']);
            $made->fill(PassageWords::columns(array_slice($now->words, $at)) + ['edited_by' => $user->id, 'edited_at' => now()]);
            self::write($now, $user, $log, array_slice($now->words, 0, $at));
            $log->save($made);
        });

        return $made ?? throw new \LogicException('A split makes a passage.');
    }

    /** Joins a passage with the one after it; who speaks in the first speaks in both. */
    public function merge(Passage $passage, User $user): void
    {
        $this->step($passage, $user, 'Join two passages', static function (Passage $now, ChangeLog $log) use ($user): void {
            $next = Passage::query()
                ->where('transcript_id', $now->transcript_id)
                ->where(
                    static fn($query) => $query
                        ->where('start_ticks', '>', $now->start_ticks)
                        ->orWhere(static fn($same) => $same->where('start_ticks', $now->start_ticks)->where('id', '>', $now->id)),
                )
                ->orderBy('start_ticks')
                ->orderBy('id')
                ->lockForUpdate()
                ->first();
            if ($next === null) {
                throw Problem::refused('words.last', 'No passage follows this one.', 'Join it with the one before.');
            }
            self::write($now, $user, $log, [...$now->words, ...$next->words]);
            $log->delete($next);
        });
    }

    /**
     * Says who speaks: in one passage, or everywhere in the clip where the same is said to speak.
     *
     * @param  string|null  $was  what the person saw
     */
    public function speaker(Passage $passage, User $user, ?string $was, ?string $name, bool $everywhere): int
    {
        $changed = 0;
        $this->step($passage, $user, $name === null ? 'Nobody in particular speaks' : "$name speaks", static function (
            Passage $now,
            ChangeLog $log,
        ) use ($user, $was, $name, $everywhere, &$changed): void {
            if ($now->speaker !== $was) {
                throw Problem::editedMeanwhile('who speaks', [['field' => 'speaker', 'yours' => $name, 'theirs' => $now->speaker]]);
            }
            $all = $everywhere
                ? Passage::query()->where('transcript_id', $now->transcript_id)->where('speaker', $was)->lockForUpdate()->get()
                : collect([$now]);
            foreach ($all as $one) {
                $one->fill(['speaker' => $name, 'edited_by' => $user->id, 'edited_at' => now()]);
            }
            $log->saveAll($all->all());
            $changed = $all->count();
        });

        return $changed;
    }

    /** @param  list<Kept>  $words */
    private static function write(Passage $passage, User $user, ChangeLog $log, array $words): void
    {
        if ($words === []) {
            $log->delete($passage);

            return;
        }
        if (count($words) > self::MOST) {
            throw Problem::refused('words.long', 'That would be longer than a passage can be.', 'Begin another passage first.');
        }
        $passage->fill(PassageWords::columns($words) + ['edited_by' => $user->id, 'edited_at' => now()]);
        PassageWords::remember($passage->production_id, [$passage->said]);
        $log->save($passage);
    }

    /** @param  list<string>  $was */
    private static function seen(Passage $now, int $from, array $was): void
    {
        $there = array_column(array_slice($now->words, $from, count($was)), 0);
        if ($was === [] || $there !== $was) {
            throw Problem::editedMeanwhile('these words', [
                ['field' => 'words', 'yours' => implode(' ', $was), 'theirs' => implode(' ', $there)],
            ]);
        }
    }

    /** @param  callable(Passage, ChangeLog): void  $work  with the passage as it is by now */
    private function step(Passage $passage, User $user, string $label, callable $work): void
    {
        $clip = $passage->clip;
        DB::transaction(static function () use ($passage, $clip, $user, $label, $work): void {
            Clip::query()
                ->whereKey($clip->id)
                ->lockForUpdate()
                ->first(['id']);
            $now =
                Passage::query()->lockForUpdate()->find($passage->id) ??
                throw Problem::gone('words.gone', 'This passage is not there any more.', 'Look at the words again.');
            $before = $now->said;
            $log = new ChangeLog();
            $work($now, $log);
            $log->finish($clip->production, $user, $label);
            if (HeardCalls::mayBeIn($before) || HeardCalls::mayBeIn($now->said)) {
                HeardCalls::keep($clip->id);
            } else {
                $now->transcript->touch();
            }
        });
        Live::tell($clip->production_id, Topic::Spoken, ['clip' => $clip->ulid]);
    }
}
