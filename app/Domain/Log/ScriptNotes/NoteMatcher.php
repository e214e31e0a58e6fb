<?php

declare(strict_types=1);

namespace App\Domain\Log\ScriptNotes;

use App\Models\Production;
use App\Models\ShootDay;
use Cartella\Core\CartellaException;
use Cartella\Core\Log\NoteRow;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Time\Instant;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\DB;

/**
 * Finds the takes that a row of somebody's notes is about: by day, setup and take, else by the time at which a clip ran,
 * else by the clip's name. Keeps an index of each day that rows name, ids only.
 */
final class NoteMatcher
{
    /** How many takes before the last one that began are looked at for one that still ran. */
    private const LOOK_BACK = 12;

    /**
     * @var array<int, array{takes: array<string, int>, spans: list<array{int, int, int}>, clips: array<string, array{id: int,
     *     take: int|null}>}> by day
     */
    private array $index = [];

    /** @var array<string, ShootDay> by number and by date */
    private array $days = [];

    public function __construct(private readonly Production $production, private readonly ShootDay $day)
    {
        foreach ($production->days()->get() as $one) {
            $this->days[(string) $one->number] = $one;
            $this->days[$one->date->format('Y-m-d')] = $one;
        }
    }

    /**
     * A take without id is not logged yet; `why` says why nothing matches.
     *
     * @return array{day: ShootDay|null, takes: list<array{id: int|null, slate: Slate|null}>, clip: array{id: int, take: int|null}|null,
     *     why: string|null}
     */
    public function find(NoteRow $row): array
    {
        $day = $row->day === null ? $this->day : $this->days[(string) $row->day] ?? null;
        if ($day === null) {
            return [
                'day' => null,
                'takes' => [],
                'clip' => null,
                'why' => sprintf('No shoot day is %s.', is_int($row->day) ? "day $row->day" : $row->day),
            ];
        }
        $index = $this->index[$day->id] ??= $this->of($day);
        $clip = $row->clip === null ? null : $index['clips'][self::plain($row->clip)] ?? null;
        if ($row->slates !== []) {
            $takes = array_map(
                static fn(Slate $slate): array => ['id' => $index['takes'][$slate->label()] ?? null, 'slate' => $slate],
                $row->slates,
            );

            return ['day' => $day, 'takes' => $takes, 'clip' => $clip, 'why' => null];
        }
        $take = $this->byTime($row, $index['spans']) ?? ($clip['take'] ?? null);
        $why = match (true) {
            $take !== null => null,
            $clip !== null => sprintf('%s has no slate yet.', $row->clip),
            $row->clip !== null => sprintf('No clip of day %d is called %s.', $day->number, mb_substr($row->clip, 0, 40)),
            $row->seconds !== null || $row->timecode !== null => 'No take ran at that time.',
            default => 'It names neither slate, time nor clip.',
        };

        return ['day' => $day, 'takes' => $take === null ? [] : [['id' => $take, 'slate' => null]], 'clip' => $clip, 'why' => $why];
    }

    /** A take that was made while rows are applied. */
    public function know(ShootDay $day, string $label, int $id): void
    {
        $this->index[$day->id]['takes'][$label] = $id;
    }

    /** @param  list<array{int, int, int}>  $spans */
    private function byTime(NoteRow $row, array $spans): ?int
    {
        $ticks = $row->seconds === null ? null : (int) round($row->seconds * Ticks::PER_SECOND);
        if ($row->timecode !== null) {
            try {
                $ticks = Instant::parse($row->timecode, $this->production->rate());
            } catch (CartellaException) {
                return null;
            }
        }
        if ($ticks === null || $spans === []) {
            return null;
        }
        [$low, $high] = [0, count($spans)];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            $spans[$middle][0] <= $ticks ? ($low = $middle + 1) : ($high = $middle);
        }
        for ($at = $low - 1; $at >= 0 && $at >= $low - self::LOOK_BACK; $at--) {
            if ($spans[$at][1] > $ticks) {
                return $spans[$at][2];
            }
        }

        return null;
    }

    /** @return array{takes: array<string, int>, spans: list<array{int, int, int}>, clips: array<string, array{id: int, take: int|null}>} */
    private function of(ShootDay $day): array
    {
        $takes = $clips = $spans = [];
        foreach (
            DB::table('takes')
                ->where('shoot_day_id', $day->id)
                ->get(['id', 'setup', 'take', 'part'])
            as $row
        ) {
            $takes[$row->setup . '/' . $row->take . $row->part] = (int) $row->id;
        }
        $rows = DB::table('clips')
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->leftJoin('take_parts', 'take_parts.clip_id', '=', 'clips.id')
            ->where('clips.shoot_day_id', $day->id)
            ->whereIn('clips.kind', ['picture', 'sound'])
            ->whereNull('clips.away_at')
            ->get([
                'clips.id',
                'clips.name',
                'clips.label',
                'take_parts.take_id',
                'take_parts.in_ticks',
                'take_parts.out_ticks',
                'clips.duration_ticks',
                DB::raw('COALESCE(placements.start_ticks, clips.start_ticks) AS at'),
            ]);
        foreach ($rows as $row) {
            $known = ['id' => (int) $row->id, 'take' => $row->take_id === null ? null : (int) $row->take_id];
            // A recording over several takes names none of them by its name.
            $known['take'] = isset($clips[self::plain($row->name)]) && $row->in_ticks !== null ? null : $known['take'];
            $clips[self::plain($row->name)] = $known;
            if ($row->label !== null) {
                $clips[self::plain($row->label)] ??= $known;
            }
            if ($row->take_id !== null && $row->at !== null && $row->duration_ticks !== null) {
                $spans[] = [
                    (int) $row->at + (int) $row->in_ticks,
                    (int) $row->at + (int) ($row->out_ticks ?? $row->duration_ticks),
                    (int) $row->take_id,
                ];
            }
        }
        sort($spans);

        return ['takes' => $takes, 'spans' => $spans, 'clips' => $clips];
    }

    private static function plain(string $name): string
    {
        return mb_strtolower((string) preg_replace('/\.[A-Za-z0-9]{2,4}\z/', '', basename($name)));
    }
}
