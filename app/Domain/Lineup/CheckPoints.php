<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Tasks\StartTask;
use App\Models\Clip;
use App\Models\Placement;
use App\Support\Problem;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Flashes;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Speech;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\Log;

/**
 * The moments at which a clip's place is best judged or found: claps and other sharp beginnings of its sound, and the
 * frames at which something in its picture closes or flashes. Found once for each clip and kept beside its proxy.
 */
final class CheckPoints
{
    private const ONSETS = 5;

    /** Steps of 10 ms around a beginning in which no other one is offered. */
    private const APART = 100;

    /** After the clap its ringing goes on for so long; who speaks then is waited for so long; nobody, and it begins after so long. */
    private const RINGS = 6 * 70_560_000;

    private const SPEAKS_WITHIN = 20 * Ticks::PER_SECOND;

    private const ACTION_AFTER = 3 * Ticks::PER_SECOND;

    public function __construct(private readonly StartTask $start) {}

    /**
     * @return array{claps: list<array{ticks: int, strength: float}>, onsets: list<int>, flashes: list<array{frame: int,
     *     strength: float}>}|null
     *     ticks from the clip's start, frames from 0; the strongest first.
     *     Null while a worker looks for them
     */
    public function of(Clip $clip): ?array
    {
        $told = static fn(?array $kept): ?array => $kept === null ? null : array_diff_key($kept, ['speech' => true]);
        $kept = self::kept($clip);
        if ($kept !== null || $clip->proxied_at === null) {
            return $told($kept) ?? ['claps' => [], 'onsets' => [], 'flashes' => []];
        }
        try {
            ($this->start)($clip->production, null, 'points', "Claps of {$clip->title()}", ['clip' => $clip->id], "points.$clip->id");
        } catch (Problem) {
            // A worker looks already.
        }

        return $told(self::kept($clip));
    }

    /**
     * @return array{claps: list<array{ticks: int, strength: float}>, onsets: list<int>, flashes: list<array{frame: int,
     *     strength: float}>, speech?: list<int>}|null
     */
    private static function kept(Clip $clip): ?array
    {
        $file = MediaFolder::of($clip)->read(MediaFile::Points);
        clearstatcache(true, $file);
        $kept =
            is_file($file) && filemtime($file) >= ($clip->proxied_at?->getTimestamp() ?? 0)
                ? json_decode((string) file_get_contents($file), true)
                : null;

        return is_array($kept) ? $kept : null;
    }

    /** Looks for them now, in a worker: a long recording takes a while. */
    public function find(Clip $clip): void
    {
        $guide = MediaFolder::of($clip)->read(MediaFile::Guide);
        $track = is_file($guide) ? GuideTrack::ofFile($guide) : null;
        $points = [
            'claps' => $track === null ? [] : Claps::of($track),
            'onsets' => $track === null ? [] : self::onsets($track, 0, $track->steps()),
            'flashes' => $this->flashes($clip),
            'speech' => $track === null || !$clip->isPicture() ? [] : Speech::starts($track),
        ];
        $media = MediaFolder::of($clip);
        if (is_dir($media->folder())) {
            $file = $media->write(MediaFile::Points);
            $part = $file . '.' . bin2hex(random_bytes(4)) . '.part';
            file_put_contents($part, json_encode($points));
            rename($part, $file);
            $media->keep();
        }
    }

    /**
     * The slate's clap of each take that the clip holds, as marks by which clips of one take find each other.
     *
     * @return array<string, int> ticks from the clip's start, by `3A/4 clap`
     */
    public function marks(Clip $clip): array
    {
        $marks = [];
        foreach ($clip->parts as $part) {
            $closes = $this->slate(
                $clip,
                $part->in_ticks ?? 0,
                $part->out_ticks ?? (int) $clip->duration_ticks,
                $part->take->is_tail_slate,
            );
            if ($closes !== null) {
                $marks[$part->take->label() . ' clap'] = $closes;
            }
        }

        return $marks;
    }

    /**
     * When the slate closes within a stretch of a clip: the first clear clap of its sound, of a tail slate the last; where
     * nothing is heard, the frame at which something is seen to close.
     *
     * @return int|null ticks from the clip's start; null where nothing is known
     */
    public function slate(Clip $clip, int $fromTicks, int $toTicks, bool $isTail = false): ?int
    {
        $found = self::kept($clip);
        $rate = $clip->rate() ?? $clip->production->rate();
        $seen = array_map(
            static fn(array $flash): array => ['ticks' => Ticks::ofFrames($flash['frame'], $rate), 'strength' => $flash['strength']],
            $clip->isPicture() ? $found['flashes'] ?? [] : [],
        );

        return Claps::ofSlate($found['claps'] ?? [], $fromTicks, $toTicks, $isTail) ?? Claps::ofSlate($seen, $fromTicks, $toTicks, $isTail);
    }

    /**
     * When the slate of a take closes within a stretch of a clip, and when the action begins: with the first words after it, else three
     * seconds later; with the stretch where no slate is known, or where it comes at the end.
     *
     * @return array{slate: int|null, action: int} ticks from the clip's start
     */
    public function begins(Clip $clip, int $fromTicks, int $toTicks, bool $isTail): array
    {
        $found = self::kept($clip);
        $slate = $found === null ? SlateStart::clap($clip, $fromTicks, $toTicks) : $this->slate($clip, $fromTicks, $toTicks, $isTail);
        if ($slate === null || $isTail) {
            return ['slate' => $slate, 'action' => $fromTicks];
        }
        $until = min($toTicks, $slate + self::SPEAKS_WITHIN);
        $action = Speech::firstOf($found['speech'] ?? [], $slate + self::RINGS, $until) ?? $slate + self::ACTION_AFTER;

        return ['slate' => $slate, 'action' => $action < $toTicks ? $action : $slate];
    }

    /**
     * The moments of a placed clip at which its sound and the other one's can be compared: claps both may have heard first.
     *
     * @return list<array{ticks: int, what: string}> from the clip's start
     */
    public function shared(Clip $clip, Placement $place, Clip $other, Placement $otherPlace): array
    {
        $apart = $place->start_ticks - $otherPlace->start_ticks;
        $from = max(0, -$apart);
        $to = min((int) $clip->duration_ticks, (int) $other->duration_ticks - $apart);
        $moments = [];
        // A clap on the recorder's clean tracks is surer than one on a camera's.
        foreach ([[$other, $apart], [$clip, 0]] as [$heard, $shift]) {
            foreach ($this->of($heard)['claps'] ?? [] as $clap) {
                $ticks = $clap['ticks'] - $shift;
                if (
                    $ticks >= $from &&
                    $ticks < $to &&
                    array_filter($moments, static fn(array $one): bool => abs($one['ticks'] - $ticks) < Ticks::PER_SECOND / 2) === []
                ) {
                    $moments[] = ['ticks' => $ticks, 'what' => 'clap'];
                }
            }
        }
        $guide = MediaFolder::of($clip)->read(MediaFile::Guide);
        if (is_file($guide) && $to > $from) {
            $track = GuideTrack::ofFile($guide);
            $step = intdiv(Ticks::PER_SECOND, GuideTrack::STEP_RATE);
            foreach (self::onsets($track, intdiv($from, $step), intdiv($to, $step)) as $ticks) {
                $moments[] = ['ticks' => $ticks, 'what' => 'onset'];
            }
        }

        return array_slice($moments, 0, 8);
    }

    /** @return list<int> ticks of the strongest beginnings of a stretch */
    private static function onsets(GuideTrack $track, int $fromStep, int $toStep): array
    {
        // The strongest of each second, a piece at a time: a recording may be hours long.
        $onset = [];
        for ($from = max(0, $fromStep); $from < $toStep; $from += self::APART) {
            $values = $track->onset($from, min(self::APART, $toStep - $from));
            if ($values !== []) {
                $onset[$from + (int) array_search(max($values), $values, true)] = max($values);
            }
        }
        arsort($onset);
        $chosen = [];
        foreach ($onset as $step => $_) {
            if (array_filter($chosen, static fn(int $other): bool => abs($other - $step) < self::APART) === []) {
                $chosen[] = $step;
            }
            if (count($chosen) === self::ONSETS) {
                break;
            }
        }

        return array_map(static fn(int $step): int => $step * intdiv(Ticks::PER_SECOND, GuideTrack::STEP_RATE), $chosen);
    }

    /** @return list<array{frame: int, strength: float}> */
    private function flashes(Clip $clip): array
    {
        $proxy = MediaFolder::of($clip)->read(MediaFile::Proxy);
        if (!$clip->isPicture() || !is_file($proxy)) {
            return [];
        }
        try {
            return Flashes::ofFile($proxy);
        } catch (UnableToReadMedia $trouble) {
            Log::warning($trouble->getMessage(), ['clip' => $clip->ulid]);

            return [];
        }
    }
}
