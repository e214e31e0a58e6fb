<?php

declare(strict_types=1);

namespace App\Domain\Day;

use App\Domain\Cards\ClipCheck;
use App\Domain\Log\ClaimedSlate;
use App\Domain\Log\SlateSheet;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\ClockOffset;
use App\Models\Device;
use App\Models\Placement;
use App\Models\Scene;
use App\Models\SettledPoint;
use App\Models\ShootDay;
use App\Models\Store;
use App\Models\Take;
use App\Support\Clock;
use Cartella\Core\Time\FrameRate;
use Illuminate\Support\Collection;

/** Finds the open points of a day from what is in the database; nothing is stored but a person's "it is right so". */
final class OpenPoints
{
    private FrameRate $rate;

    /** @var Collection<string, Device> by letter */
    private Collection $devices;

    public function __construct(private readonly SlateSheet $sheet, private readonly ClipCheck $check) {}

    /** @return list<OpenPoint> faults first */
    public function of(ShootDay $day): array
    {
        $this->rate = $day->production->rate();
        $this->devices = $day->production->devices()->get()->keyBy('letter');
        $sheet = $this->sheet->of($day);
        $isLinedUp = Placement::query()->where('shoot_day_id', $day->id)->exists();
        $work = new RunningWork($day);
        $points = [
            ...$this->takes($sheet['takes'], $isLinedUp),
            ...$this->unclaimed($sheet['unslated'], $isLinedUp),
            ...$this->cards($day),
            ...$this->placements($day),
            ...$this->clocks($day),
            ...$this->clipCheck($day),
            ...$this->script($day, $sheet['takes']),
        ];
        $points = array_values(array_filter($points, static fn(OpenPoint $point): bool => !self::waits($point, $work)));
        $settled = SettledPoint::query()->where('shoot_day_id', $day->id)->pluck('point')->flip();
        $points = array_values(array_filter($points, static fn(OpenPoint $point): bool => !$settled->has($point->key)));
        usort($points, static fn(OpenPoint $x, OpenPoint $y): int => ($x->weight !== 'fault') <=> ($y->weight !== 'fault'));

        return $points;
    }

    /** Whether a point may be true only because work on it is not done: it is said when the work has ended. */
    private static function waits(OpenPoint $point, RunningWork $work): bool
    {
        return match (strtok($point->key, '.')) {
            'sound', 'picture' => $work->isComingIn() || $work->isLiningUp(),
            'file', 'camera', 'clips', 'script' => $work->isComingIn(),
            'clip' => $work->isComingIn() || $work->isLiningUp() || $work->isLogging(),
            'stray', 'group', 'unsure', 'clock' => $work->isLiningUp(),
            'claim', 'differ' => $work->isLogging(),
            default => false,
        };
    }

    /**
     * @param  list<array<string, mixed>>  $takes
     * @return list<OpenPoint>
     */
    private function takes(array $takes, bool $isLinedUp): array
    {
        $points = [];
        foreach ($takes as $take) {
            $label = $take['setup'] . '/' . $take['take'] . $take['part'];
            $place = ['stage' => 'log', 'take' => $take['ulid']];
            $pictures = array_values(array_filter($take['clips'], static fn(array $clip): bool => $clip['kind'] === 'picture'));
            if ($take['sync'] === 'no sound' && $isLinedUp) {
                $points[] = new OpenPoint(
                    "sound.{$take['ulid']}",
                    'fault',
                    "$label has no sound",
                    $this->ran($pictures) . ', the recorder did not.',
                    $place,
                    [['name' => 'guide', 'label' => 'Mark guide sound only'], ['name' => 'mos', 'label' => 'It was MOS']],
                );
            }
            if ($take['clips'] === []) {
                $points[] = new OpenPoint(
                    "file.{$take['ulid']}",
                    'fault',
                    "No file shows $label",
                    $take['said_by'] === null
                        ? 'It is in the log, and no clip belongs to it.'
                        : "It is in {$take['said_by']}, and no clip belongs to it.",
                    $place,
                    [['name' => 'settle', 'label' => 'It was not shot']],
                );
            }
            if ($take['sync'] === 'no picture' && $take['clips'] !== [] && $isLinedUp) {
                $points[] = new OpenPoint(
                    "picture.{$take['ulid']}",
                    'fault',
                    "$label has no picture",
                    $this->ran($take['clips']) . ', no camera did.',
                    $place,
                    [['name' => 'wild', 'label' => 'It is a wild track']],
                );
            }
            foreach ($pictures === [] ? [] : $take['missed'] as $letter) {
                $points[] = new OpenPoint(
                    "camera.{$take['ulid']}.$letter",
                    'fault',
                    "$label: camera $letter is missing",
                    "Other takes of {$take['setup']} have it. No clip of $letter at " . $this->when($pictures) . '.',
                    $place,
                    [['name' => "absent:$letter", 'label' => 'It did not roll']],
                );
            }
            if ($take['claims'] !== []) {
                $points[] = $this->disagreement($take, $place);
            }
            foreach ($take['disputes'] as $dispute) {
                $points[] = $this->dispute($label, $take['ulid'], $dispute, $place);
            }
        }

        return $points;
    }

    /**
     * @param  array{field: string, now: string|bool, by: string|null, at: int|null, said: list<array{source: string, place: string,
     *     value: string|bool, at: int}>}  $dispute
     * @param  array{stage: string, take: string}  $place
     */
    private function dispute(string $label, string $ulid, array $dispute, array $place): OpenPoint
    {
        $field = strtr($dispute['field'], ['is_' => '', '_' => ' ']);
        $value = static fn(string|bool $value): string => is_bool($value)
            ? ($value
                ? 'yes'
                : 'no')
            : ($value === '' || $value === 'none'
                ? 'nothing'
                : '“' . $value . '”');
        $at = static fn(?int $at): string => $at === null ? '' : ', ' . date('j M H:i', $at);
        $sources = ['person' => 'A person', 'script' => 'The script notes', 'ixml' => 'The recorder', 'name' => 'The name'];
        $sentences = [
            ($sources[$dispute['by'] ?? ''] ?? 'The log') .
            ($dispute['by'] === 'script' ? ' say ' : ' says ') .
            $value($dispute['now']) .
            $at($dispute['at']) .
            '.',
        ];
        $fixes = [['name' => "use:{$dispute['field']}:now", 'label' => 'Keep ' . $value($dispute['now'])]];
        foreach ($dispute['said'] as $said) {
            $sentences[] =
                "{$sources[$said['source']]} ({$said['place']}) " .
                ($said['source'] === 'script' ? 'say ' : 'says ') .
                $value($said['value']) .
                $at($said['at']) .
                '.';
            $fixes[] = ['name' => "use:{$dispute['field']}:{$said['source']}", 'label' => 'Use ' . $value($said['value'])];
        }

        return new OpenPoint(
            "differ.$ulid.{$dispute['field']}",
            'warning',
            "$label: two sources differ on its $field",
            implode(' ', $sentences),
            $place,
            $fixes,
        );
    }

    /**
     * @param  array<string, mixed>  $take
     * @param  array{stage: string, take: string}  $place
     */
    private function disagreement(array $take, array $place): OpenPoint
    {
        $bySlate = [];
        foreach ($take['claims'] as $claim) {
            // A recorder file is named after its own fields; that is one source, not two.
            $bySlate[ClaimedSlate::label($claim)][$claim['where']] ??=
                ($claim['from'] === 'ixml' ? 'the recorder' : 'the name') . ' (' . $claim['where'] . ')';
        }
        $own = ClaimedSlate::label($take);
        uksort($bySlate, static fn(string $x, string $y): int => [$y === $own, $x] <=> [$x === $own, $y]);
        $sentences = $fixes = [];
        foreach ($bySlate as $slate => $who) {
            $sentences[] = ucfirst(implode(' and ', $who)) . (count($who) > 1 ? ' say ' : ' says ') . $slate . '.';
            $fixes[] = ['name' => "slate:$slate", 'label' => ($slate === $own ? 'Keep ' : 'Use ') . $slate];
        }

        return new OpenPoint(
            "claim.{$take['ulid']}",
            'warning',
            implode(' or ', array_keys($bySlate)) . '?',
            implode(' ', $sentences),
            $place,
            $fixes,
        );
    }

    /**
     * @param  list<array<string, mixed>>  $clips
     * @return list<OpenPoint>
     */
    private function unclaimed(array $clips, bool $isLinedUp): array
    {
        $points = [];
        foreach ($clips as $clip) {
            $place = ['stage' => 'log', 'clip' => $clip['ulid']];
            if ($clip['kind'] === 'other') {
                $points[] = new OpenPoint(
                    "clip.{$clip['ulid']}",
                    'fault',
                    $clip['name'] . ' cannot be read',
                    $clip['problems'][0] ?? 'Neither picture nor sound was found in it.',
                    $place,
                    [['name' => 'settle', 'label' => 'Leave it aside']],
                );
            } elseif ($clip['is_wild'] || $clip['is_false_start'] || !$isLinedUp) {
                continue;
            } else {
                $length = Clock::distance((int) $clip['duration_ticks'], $this->rate);
                $points[] = new OpenPoint(
                    "clip.{$clip['ulid']}",
                    'warning',
                    $clip['name'] . ' belongs to no take',
                    sprintf(
                        '%s of %s from %s; nothing on it says a slate.',
                        $length,
                        lcfirst(($this->devices[$clip['device']] ?? null)?->title() ?? 'an unknown device'),
                        Clock::time((int) ($clip['placed_ticks'] ?? $clip['start_ticks'])),
                    ),
                    $place,
                    $clip['kind'] === 'picture'
                        ? [['name' => 'false', 'label' => 'Mark false start']]
                        : [['name' => 'wildclip', 'label' => 'It is wild']],
                );
            }
        }

        return $points;
    }

    /** @return list<OpenPoint> */
    private function cards(ShootDay $day): array
    {
        $points = [];
        $stores = Store::query()->where('production_id', $day->production_id)->pluck('name', 'key');
        foreach (Card::query()->with('copies')->where('shoot_day_id', $day->id)->get() as $card) {
            foreach ($card->copies->reject(static fn(CardCopy $copy): bool => $copy->isWhole()) as $copy) {
                $names = [
                    ...$copy->differences['missing'],
                    ...$copy->differences['altered'],
                    ...array_column($copy->differences['renamed'], 'from'),
                    ...$copy->differences['problems'],
                ];
                $points[] = new OpenPoint(
                    "copy.$card->ulid.$copy->store",
                    'fault',
                    sprintf('%s on %s is not as it was copied', $card->roll, $stores[$copy->store] ?? $copy->store),
                    implode(', ', array_map('basename', array_slice($names, 0, 3))) .
                        (count($names) > 3 ? sprintf(' and %d more', count($names) - 3) : '') .
                        '.',
                    ['stage' => 'cards', 'card' => $card->ulid],
                    [['name' => 'check', 'label' => 'Verify again']],
                );
            }
        }
        foreach (
            Card::query()
                ->where('shoot_day_id', $day->id)
                ->whereIn('state', ['fault', 'stopped'])
                ->get()
            as $card
        ) {
            $fault = $card->faults[0] ?? null;
            $points[] = new OpenPoint(
                "card.$card->ulid",
                'fault',
                "$card->roll cannot be released",
                sprintf(
                    '%s %d of %d files are safe twice.',
                    $fault === null ? 'Its offload was stopped.' : self::faultOf($fault),
                    $card->verified_files,
                    $card->files,
                ),
                ['stage' => 'cards', 'card' => $card->ulid],
                [['name' => 'retry', 'label' => 'Try again']],
            );
        }

        return $points;
    }

    /** @param  array{path: string, reason: string, byte?: int}  $fault */
    private static function faultOf(array $fault): string
    {
        $where = basename($fault['path']) . (isset($fault['byte']) ? sprintf(', byte %s', number_format($fault['byte'], 0, '.', ' ')) : '');

        return $where === '' ? $fault['reason'] : "$where: {$fault['reason']}";
    }

    /** @return list<OpenPoint> */
    private function placements(ShootDay $day): array
    {
        $points = [];
        $rows = Placement::query()
            ->with('clip.device')
            ->where('shoot_day_id', $day->id)
            ->whereNull('left_out_at')
            ->where(static fn($query) => $query->whereNotNull('stray_reason')->orWhere('is_sure', false)->orWhere('group', '>', 0))
            ->get();
        foreach ($rows as $row) {
            $place = ['stage' => 'lineup', 'clip' => $row->clip->ulid];
            if ($row->clip->is_false_start) {
                continue;
            }
            $points[] = match (true) {
                $row->stray_reason !== null => new OpenPoint(
                    "stray.{$row->clip->ulid}",
                    'fault',
                    $row->clip->name . ' is a stray',
                    $row->stray_reason,
                    $place,
                    [['name' => 'false', 'label' => 'Mark false start']],
                ),
                $row->group > 0 => new OpenPoint(
                    "group.{$row->clip->ulid}",
                    'warning',
                    $row->clip->name . ' hangs on no recorder file',
                    'It is tied only to other cameras; its time of day is not known.',
                    $place,
                ),
                default => new OpenPoint(
                    "unsure.{$row->clip->ulid}",
                    'warning',
                    $row->clip->name . ': look at its place',
                    $this->doubt($row),
                    $place,
                    [['name' => 'lock', 'label' => 'It is right, lock']],
                ),
            };
        }

        return $points;
    }

    private function doubt(Placement $row): string
    {
        $miss = $row->evidence['clock_disagrees_ticks'] ?? null;

        return $miss === null
            ? sprintf('Found by %s, not sure.', $row->way)
            : sprintf(
                'By sound it begins %s %s than by its own timecode, which is right for the camera\'s other clips.',
                Clock::distance($miss, $this->rate),
                $miss > 0 ? 'later' : 'earlier',
            );
    }

    /** @return list<OpenPoint> */
    private function clocks(ShootDay $day): array
    {
        $points = [];
        foreach (ClockOffset::query()->with('device')->where('shoot_day_id', $day->id)->whereNotNull('learned_ticks')->get() as $row) {
            $off = $row->learned_ticks - (int) $row->applied_ticks;
            if ($row->device->isRecorder() || abs($off) < $this->rate->ticksPerFrame()) {
                continue;
            }
            $points[] = new OpenPoint(
                "clock.{$row->device->letter}",
                'warning',
                abs($off) > 3600 * \Cartella\Core\Time\Ticks::PER_SECOND
                    ? "{$row->device->title()}'s clock was not set"
                    : sprintf(
                        "%s's clock is %s %s all day",
                        $row->device->title(),
                        Clock::distance($off, $this->rate),
                        $off > 0 ? 'late' : 'early',
                    ),
                sprintf('Seen on %d clips that sound placed. What was recorded stays as it is.', $row->votes),
                ['stage' => 'lineup'],
                [['name' => "clock:{$row->device->letter}", 'label' => 'Apply to ' . lcfirst($row->device->title())]],
            );
        }

        return $points;
    }

    /** @return list<OpenPoint> */
    private function clipCheck(ShootDay $day): array
    {
        // The figures are part of the key: a difference that was settled comes back when another card changes it.
        return array_map(
            static fn(array $one): OpenPoint => new OpenPoint(
                'clips.' . $one['device'] . '.' . hash('xxh64', $one['evidence']),
                'warning',
                $one['title'],
                $one['evidence'],
                ['stage' => 'cards'],
                [['name' => 'settle', 'label' => 'It is right so']],
            ),
            $this->check->of($day)['differences'],
        );
    }

    /** @param  list<array<string, mixed>>  $clips */
    private function ran(array $clips): string
    {
        $letters = implode(' and ', array_unique(array_column($clips, 'device')));
        $from = min(array_map(static fn(array $clip): int => (int) ($clip['placed_ticks'] ?? $clip['start_ticks']), $clips));
        $to = max(
            array_map(
                static fn(array $clip): int => (int) ($clip['placed_ticks'] ?? $clip['start_ticks']) + (int) $clip['duration_ticks'],
                $clips,
            ),
        );

        return sprintf('%s rolled %s to %s', $letters, Clock::time($from), Clock::time($to));
    }

    /** @param  list<array<string, mixed>>  $clips */
    private function when(array $clips): string
    {
        return Clock::time((int) ($clips[0]['placed_ticks'] ?? $clips[0]['start_ticks']));
    }

    /**
     * Scenes shot that the script does not have, and, once its last day is there, those of the script that nobody shot.
     *
     * @param  list<array<string, mixed>>  $takes
     * @return list<OpenPoint>
     */
    private function script(ShootDay $day, array $takes): array
    {
        $script = Scene::query()
            ->where('production_id', $day->production_id)
            ->whereNotNull('script_order')
            ->orderBy('script_order')
            ->pluck('name')
            ->all();
        if ($script === []) {
            return [];
        }
        $points = [];
        foreach (array_values(array_unique(array_diff(array_column($takes, 'scene'), $script))) as $scene) {
            $first = array_values(array_filter($takes, static fn(array $take): bool => $take['scene'] === (string) $scene))[0];
            $points[] = new OpenPoint(
                "scene.$scene",
                'warning',
                "Scene $scene is not in the script",
                sprintf('%s has no such scene.', $day->production->script),
                ['stage' => 'log', 'take' => $first['ulid']],
                [['name' => 'settle', 'label' => 'It is right so']],
            );
        }
        // A day on which nothing was shot yet is not the last.
        $isLast =
            $takes !== [] && !ShootDay::query()->where('production_id', $day->production_id)->where('number', '>', $day->number)->exists();
        $left = $isLast
            ? array_values(
                array_diff($script, Take::query()->where('production_id', $day->production_id)->distinct()->pluck('scene')->all()),
            )
            : [];
        if ($left !== []) {
            $points[] = new OpenPoint(
                'script.left',
                'warning',
                sprintf(
                    '%d %s of the script %s not shot',
                    count($left),
                    count($left) === 1 ? 'scene' : 'scenes',
                    count($left) === 1 ? 'is' : 'are',
                ),
                'Scene ' .
                    implode(', ', array_slice($left, 0, 12)) .
                    (count($left) > 12 ? sprintf(' and %d more', count($left) - 12) : '') .
                    '.',
                ['stage' => 'log'],
                [['name' => 'settle', 'label' => 'We know']],
            );
        }

        return $points;
    }
}
