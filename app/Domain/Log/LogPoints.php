<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\SetSlate;
use App\Domain\Footage\TakeFacts;
use App\Domain\Points\OpenPoint;
use App\Domain\Points\PointSource;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Placement;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Clock;
use Cartella\Core\Time\FrameRate;
use Illuminate\Support\Collection;

/**
 * What of the slate sheet a person has to look at: takes that lack something, sources that differ, clips without a slate.
 *
 * @phpstan-import-type Dispute from TakeFacts
 */
final class LogPoints implements PointSource
{
    private FrameRate $rate;

    /** @var Collection<string, Device> by letter */
    private Collection $devices;

    /** @var list<string> letters of those that ran on the day */
    private array $recorders = [];

    public function __construct(
        private readonly SlateSheet $sheet,
        private readonly EditTake $edit,
        private readonly SetSlate $slate,
        private readonly SettleClaim $claim,
        private readonly Settle $settle,
        private readonly MarkWild $wild,
    ) {}

    public function of(ShootDay $day): array
    {
        $this->rate = $day->production->rate();
        $this->devices = $day->production->devices()->get()->keyBy('letter');
        $sheet = $this->sheet->of($day);
        $this->recorders = $sheet['recorders'];
        $isLinedUp = Placement::query()->where('shoot_day_id', $day->id)->exists();

        return [...$this->takes($sheet['takes'], $isLinedUp), ...$this->unclaimed($sheet['unslated'], $isLinedUp)];
    }

    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void
    {
        $clip = isset($point->place['clip']) ? Clip::query()->where('ulid', $point->place['clip'])->firstOrFail() : null;
        if ($clip !== null) {
            match ($step) {
                'false' => ($this->slate)($day, $user, collect([$clip]), null, true),
                'wildclip' => ($this->wild)($clip, $user),
                default => throw new \LogicException("No step $step"),
            };

            return;
        }
        $take = Take::query()
            ->where('ulid', $point->place['take'] ?? '')
            ->firstOrFail();
        match ($step) {
            'guide' => ($this->edit)($take, $user, ['is_guide_only' => ['was' => false, 'now' => true]]),
            'mos' => ($this->edit)($take, $user, ['is_mos' => ['was' => false, 'now' => true]]),
            'wild' => ($this->edit)($take, $user, ['is_wild' => ['was' => false, 'now' => true]]),
            'absent' => ($this->edit)($take, $user, [
                'absent_devices' => ['was' => $take->absent_devices ?? [], 'now' => [...$take->absent_devices ?? [], $value]],
            ]),
            'slate' => ($this->claim)($take, $user, $value),
            // A field of the production's own has a colon in its key.
            'use' => ($this->settle)($day, $user, $take, ...[...self::halves($value), false]),
            default => throw new \LogicException("No step $step"),
        };
    }

    /** @return array{string, string} what stands before the last colon, and after it */
    private static function halves(string $text): array
    {
        $at = strrpos($text, ':') ?: 0;

        return [substr($text, 0, $at), substr($text, $at + 1)];
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
                    [
                        ['name' => 'guide', 'label' => 'Mark guide sound only'],
                        ['name' => 'mos', 'label' => 'It was MOS'],
                        ...array_map(
                            static fn(string $letter): array => ['name' => "absent:$letter", 'label' => "$letter did not roll"],
                            $this->recorders,
                        ),
                    ],
                    awaits: ['offload', 'catalogue', 'lineup'],
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
                    awaits: ['offload', 'catalogue'],
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
                    awaits: ['offload', 'catalogue', 'lineup'],
                );
            }
            foreach ($pictures === [] ? [] : $take['missed'] as $letter) {
                $points[] = new OpenPoint(
                    "camera.{$take['ulid']}.$letter",
                    'fault',
                    sprintf('%s: %s %s is missing', $label, in_array($letter, $this->recorders, true) ? 'recorder' : 'camera', $letter),
                    "Other takes of {$take['setup']} have it. No clip of $letter at " . $this->when($pictures) . '.',
                    $place,
                    [['name' => "absent:$letter", 'label' => 'It did not roll']],
                    awaits: ['offload', 'catalogue'],
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
     * @param  Dispute  $dispute
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
        $sources = ['person' => 'A person', 'ixml' => 'The recorder', 'name' => 'The name'];
        // Of several files of notes each has its own name.
        $who = static fn(?string $by, ?string $place): string => match (true) {
            $by === 'script' => $place ?? 'A file of notes',
            $place !== null && isset($sources[$by ?? '']) => "{$sources[$by]} ($place)",
            default => $sources[$by ?? ''] ?? 'The log',
        };
        $sentences = [$who($dispute['by'], $dispute['place']) . ' says ' . $value($dispute['now']) . $at($dispute['at']) . '.'];
        $fixes = [['name' => "use:{$dispute['field']}:now", 'label' => 'Keep ' . $value($dispute['now'])]];
        $values = array_count_values(array_map(static fn(array $said): string => $value($said['value']), $dispute['said']));
        foreach ($dispute['said'] as $said) {
            $text = $value($said['value']);
            $sentences[] = $who($said['source'], $said['place']) . " says $text" . $at($said['at']) . '.';
            if (($values[$text] ?? 0) > 0) {
                // Two sources that say the same need no two buttons.
                $fixes[] = ['name' => "use:{$dispute['field']}:{$said['id']}", 'label' => "Use $text"];
                unset($values[$text]);
            }
        }
        $count = count(
            array_unique([
                $who($dispute['by'], $dispute['place']),
                ...array_map(static fn(array $said): string => $who($said['source'], $said['place']), $dispute['said']),
            ]),
        );

        return new OpenPoint(
            "differ.$ulid.{$dispute['field']}",
            'warning',
            sprintf('%s: %s sources differ on its %s', $label, [2 => 'two', 3 => 'three'][$count] ?? ($count < 2 ? 'two' : $count), $field),
            implode(' ', $sentences),
            $place,
            $fixes,
            awaits: ['notes'],
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
            awaits: ['notes'],
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
                    awaits: ['offload', 'catalogue', 'lineup', 'notes'],
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
                    awaits: ['offload', 'catalogue', 'lineup', 'notes'],
                );
            }
        }

        return $points;
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
}
