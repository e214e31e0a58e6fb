<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\FindTake;
use App\Domain\Footage\SetSlate;
use App\Domain\Footage\TakeParts;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\Device;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Log\LogLine;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Splits one long recording, picture or sound, into takes: where the others beside it ran, at its marks, or where one angle
 * started and stopped. Which take each stretch is, a person says; what ran there and has no slate comes along.
 */
final class SplitIntoTakes
{
    public const MOST = 500;

    private const LEAST_TICKS = Ticks::PER_SECOND;

    /** Of a clip that lies in one stretch for at least so much, all of it belongs to the take. */
    private const NEARLY_ALL = 0.8;

    public function __construct(private readonly FindTake $find) {}

    /**
     * Where the clip would be split; nothing is written.
     *
     * @param  'windows'|'marks'|'angle'  $by
     * @param  Device|null  $angle  whose clips start and stop the stretches
     * @return list<array{from: int, to: int, slate: string|null}> in order; ticks from the clip's first frame
     *
     * @throws Problem if there is nothing to split it by
     */
    public function plan(Clip $clip, User $user, string $by, ?Device $angle = null): array
    {
        $spans = $by === 'marks' ? $this->marks($clip, $user) : $this->windows($clip, $by === 'angle' ? $angle : null);
        if ($spans === []) {
            throw Problem::refused(
                'split.nothing',
                match (true) {
                    $by === 'marks' => $clip->title() . ' has no marks.',
                    $clip->placement?->start_ticks === null => $clip->title() . ' has no place in the line-up yet.',
                    $by === 'angle' => 'Nothing of ' . ($angle->letter ?? 'that device') . ' ran beside ' . $clip->title() . '.',
                    default => 'Nothing ran beside ' . $clip->title() . '.',
                },
                $by === 'marks' ? 'Set an in and an out mark on it in Bins, or split it another way.' : 'Split it at its marks.',
            );
        }

        return array_slice($spans, 0, self::MOST);
    }

    /**
     * @param  list<array{from: int, to: int, slate: string}>  $spans
     * @param  string|null  $seen  the slate or slates that the person saw on the clip
     * @return list<Take>
     *
     * @throws Problem if a slate cannot be read, a stretch is not of the clip, or somebody gave the clip another slate meanwhile
     */
    public function __invoke(Clip $clip, User $user, array $spans, ?string $seen): array
    {
        $day = $clip->day;
        usort($spans, static fn(array $x, array $y): int => $x['from'] <=> $y['from']);
        $read = [];
        foreach ($spans as $span) {
            $line = LogLine::parse($span['slate'], $day->production->slate_style);
            if ($line->slate === null || !$line->namesSlate || $line->fields !== []) {
                throw Problem::refused(
                    'slate.unreadable',
                    sprintf('"%s" is not a slate.', mb_substr($span['slate'], 0, 40)),
                    'Write setup and take, such as 3B/1.',
                );
            }
            if ($span['from'] < 0 || $span['to'] > (int) $clip->duration_ticks || $span['to'] - $span['from'] < self::LEAST_TICKS) {
                throw Problem::refused(
                    'split.span',
                    'A stretch lies outside ' . $clip->title() . ', or is shorter than a second.',
                    'Load the page again.',
                );
            }
            if ($read !== [] && $span['from'] < $read[count($read) - 1]['to']) {
                throw Problem::refused(
                    'split.overlap',
                    'Two stretches of ' . $clip->title() . ' lie over each other.',
                    'Let one end where the next begins.',
                );
            }
            $read[] = ['slate' => $line->slate, 'from' => $span['from'], 'to' => $span['to']];
        }
        $takes = DB::transaction(function () use ($clip, $day, $user, $read, $seen): array {
            SetSlate::refuseOther($clip, ['slate' => $seen]);
            $log = new ChangeLog();
            $parts = array_map(
                fn(array $span): array => [
                    'take' => ($this->find)($day, $span['slate'], $log),
                    'in' => $span['from'],
                    'out' => $span['to'],
                ],
                $read,
            );
            TakeParts::set($clip, $parts, 'person', $log);
            foreach ($this->beside($clip) as $other) {
                $own = self::within($other, $clip, $parts);
                if ($own !== []) {
                    TakeParts::set($other, $own, 'lineup', $log);
                }
            }
            $log->finish($day->production, $user, sprintf('Split %s into %d takes', $clip->title(), count($parts)));

            return array_column($parts, 'take');
        });
        Live::tell($day->production_id, Topic::Takes);

        return $takes;
    }

    /** @return list<array{from: int, to: int, slate: string|null}> between its marks; the ends of the clip are marks too */
    private function marks(Clip $clip, User $user): array
    {
        $at = $clip->markers()->pluck('in_ticks')->all();
        $own = ClipMark::query()->where('clip_id', $clip->id)->where('user_id', $user->id)->first();
        $at = [...$at, ...array_filter([$own?->in_ticks, $own?->out_ticks], is_int(...))];
        if ($at === []) {
            return [];
        }
        $length = (int) $clip->duration_ticks;
        $at = array_values(array_unique([0, ...array_filter($at, static fn(int $one): bool => $one > 0 && $one < $length), $length]));
        sort($at);
        $spans = [];
        for ($n = 1; $n < count($at); $n++) {
            if ($at[$n] - $at[$n - 1] >= self::LEAST_TICKS) {
                $spans[] = ['from' => $at[$n - 1], 'to' => $at[$n], 'slate' => null];
            }
        }

        return $spans;
    }

    /** @return list<array{from: int, to: int, slate: string|null}> */
    private function windows(Clip $clip, ?Device $angle): array
    {
        $others = $this->beside($clip, true)->filter(
            static fn(Clip $other): bool => $angle !== null
                ? $other->device_id === $angle->id
                : $other->kind !== $clip->kind || $clip->isPicture(),
        );
        // A long picture is split by the recorder where there is one, else by the other cameras.
        if ($angle === null && $clip->isPicture() && $others->contains(static fn(Clip $other): bool => $other->isSound())) {
            $others = $others->filter(static fn(Clip $other): bool => $other->isSound());
        }
        $spans = [];
        foreach ($others->sortBy('placement.start_ticks') as $other) {
            $at = $other->placement->start_ticks - $clip->placement->start_ticks;
            $from = max(0, $at);
            $to = min((int) $clip->duration_ticks, $at + (int) $other->duration_ticks);
            $last = count($spans) - 1;
            if ($last >= 0 && $from < $spans[$last]['to']) {
                $spans[$last]['to'] = max($spans[$last]['to'], $to);
                $spans[$last]['slate'] ??= $other->slates();
            } else {
                $spans[] = ['from' => $from, 'to' => $to, 'slate' => $other->parts->count() > 1 ? null : $other->slates()];
            }
        }

        return $spans;
    }

    /**
     * @param  bool  $all  those with a slate of their own too
     * @return Collection<int, Clip> what ran beside the clip, on one clock
     */
    private function beside(Clip $clip, bool $all = false): Collection
    {
        if ($clip->placement?->start_ticks === null) {
            return collect();
        }

        return Clip::shotOn($clip->shoot_day_id)
            ->with(['placement', 'parts.take', 'device'])
            ->whereKeyNot($clip->id)
            ->where('is_false_start', false)
            ->get()
            ->filter(
                static fn(Clip $other): bool => Windows::overlap($clip, $other) >= self::LEAST_TICKS &&
                    ($all ||
                        (!$other->has_no_slate &&
                            !$other->is_wild &&
                            $other->parts->every(static fn($part): bool => $part->said_by === 'lineup'))),
            )
            ->values();
    }

    /**
     * @param  list<array{take: Take, in: int, out: int}>  $parts  of the clip
     * @return list<array{take: Take, in: int|null, out: int|null}> of the other one
     */
    private static function within(Clip $other, Clip $clip, array $parts): array
    {
        $at = $other->placement->start_ticks - $clip->placement->start_ticks;
        $length = (int) $other->duration_ticks;
        $own = [];
        foreach ($parts as $part) {
            $from = max(0, $part['in'] - $at);
            $to = min($length, $part['out'] - $at);
            if ($to - $from >= min(self::LEAST_TICKS, $length)) {
                $own[] = ['take' => $part['take'], 'in' => $from, 'out' => $to];
            }
        }
        $isOne = count($own) === 1 && $own[0]['out'] - $own[0]['in'] >= self::NEARLY_ALL * $length;

        return $isOne ? [['take' => $own[0]['take'], 'in' => null, 'out' => null]] : $own;
    }
}
