<?php

declare(strict_types=1);

namespace App\Domain\Assembly;

use App\Domain\Lineup\Windows;
use App\Domain\Sequences\Material;
use App\Domain\Sequences\PutPieces;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\TrackPlan;
use App\Domain\Words\SceneReads;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Scene;
use App\Models\SequenceKind;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Fields\TakeStatus;
use Illuminate\Database\Eloquent\Builder;

/**
 * First string-outs, each made in one step: the circled takes in the script's order, all reads of a line, all takes with a keyword.
 * What could not be laid, such as a take without a picture or sound, is named.
 */
final readonly class StringOut
{
    /** More than anybody watches; a cut of so many is still opened at once. */
    public const MOST = 1000;

    public function __construct(private SequenceStore $store, private SceneReads $reads) {}

    /**
     * @param  string|null  $scene  null for all of the script
     * @return array{cut: StoredSequence, left: list<string>}
     *
     * @throws Problem where none is circled
     */
    public function ofCircled(Production $production, User $user, ?string $scene): array
    {
        $order = Scene::query()->where('production_id', $production->id)->whereNotNull('script_order')->pluck('script_order', 'name');
        $takes = self::takes($production)
            ->where('status', TakeStatus::Circled->value)
            ->when($scene !== null, static fn(Builder $query) => $query->where('scene', $scene))
            ->orderBy('sort_key')
            ->get()
            // Scenes that the script does not know come behind it.
            ->sortBy(static fn(Take $take): array => [$order[$take->scene] ?? PHP_INT_MAX, $take->sort_key])
            ->values();
        if ($takes->isEmpty()) {
            throw Problem::refused('string_out.none', 'No take is circled here.', 'Circle takes in the log, then try again.');
        }

        return $this->made(
            $production,
            $user,
            $scene === null ? 'Circled takes' : "Circled takes of scene $scene",
            array_map(self::ofTake(...), $takes->all()),
        );
    }

    /**
     * @param  int  $line  its number in the scene, from 0
     * @return array{cut: StoredSequence, left: list<string>}
     *
     * @throws Problem where nobody was heard saying it
     */
    public function ofLine(Production $production, User $user, string $scene, int $line): array
    {
        $found =
            array_values(
                array_filter($this->reads->of($production, $scene)['lines'], static fn(array $one): bool => $one['number'] === $line),
            )[0] ?? null;
        if ($found === null || $found['reads'] === []) {
            throw Problem::refused('string_out.unheard', 'Nobody was heard saying that line.', 'Have the words of its takes found first.');
        }
        $takes = self::takes($production)->whereIn('ulid', array_column($found['reads'], 'take'))->get()->keyBy('ulid');
        $clips = self::clips($production)->whereIn('ulid', array_column($found['reads'], 'clip'))->get()->keyBy('ulid');
        $pieces = array_map(
            static fn(array $read): array => [
                'clip' => $clips[$read['clip']],
                'in' => $read['start_ticks'],
                'out' => $read['end_ticks'],
                'take' => $takes[$read['take']] ?? null,
                'character' => $found['character'],
                'label' => $read['label'],
            ],
            $found['reads'],
        );
        $text = mb_strimwidth($found['text'], 0, 40, '…');

        return $this->made($production, $user, "Reads of \"$text\"", $pieces);
    }

    /**
     * @return array{cut: StoredSequence, left: list<string>} takes that have the keyword, in the order of slates
     *
     * @throws Problem where none has
     */
    public function ofKeyword(Production $production, User $user, string $keyword): array
    {
        $pieces = array_map(
            self::ofTake(...),
            self::takes($production)
                ->whereRaw('takes.keywords LIKE ?', ['%' . addcslashes($keyword, '%_\\') . '%'])
                ->orderBy('sort_key')
                ->get()
                ->all(),
        );
        if ($pieces === []) {
            throw Problem::refused('string_out.keyword', "Nothing has the keyword \"$keyword\".", 'Look for another one.');
        }

        return $this->made($production, $user, "Keyword $keyword", $pieces);
    }

    /** @return Builder<Take> */
    private static function takes(Production $production): Builder
    {
        return Take::query()
            ->where('takes.production_id', $production->id)
            ->with(['parts.clip.placement', 'parts.clip.device', 'parts.clip.card', 'parts.clip.day', 'parts.clip.production'])
            ->limit(self::MOST + 1);
    }

    /** @return Builder<Clip> */
    private static function clips(Production $production): Builder
    {
        return Clip::query()
            ->where('clips.production_id', $production->id)
            ->whereNull('away_at')
            ->with(['placement', 'device', 'card', 'day', 'production'])
            ->limit(self::MOST + 1);
    }

    /** @return array{clip: Clip|null, in: int, out: int, take: Take, label: string} its best picture as far as it goes, or its sound */
    private static function ofTake(Take $take): array
    {
        $best = null;
        foreach ($take->parts as $part) {
            $clip = $part->clip;
            $length = ($part->out_ticks ?? (int) $clip->duration_ticks) - (int) $part->in_ticks;
            if ($length <= 0 || $clip->away_at !== null) {
                continue;
            }
            // Pictures first, and of those the first lane's; a camera's false start is shorter than the take.
            $rank = [$clip->isPicture() ? 0 : 1, -intdiv($length, 705_600_000 * 2), $clip->device->lane ?? 99, $clip->id];
            if ($best === null || $rank < $best[0]) {
                $best = [$rank, $clip, (int) $part->in_ticks, (int) $part->in_ticks + $length];
            }
        }

        return [
            'clip' => $best[1] ?? null,
            'in' => $best[2] ?? 0,
            'out' => $best[3] ?? 0,
            'take' => $take,
            'label' => $take->label(),
        ];
    }

    /**
     * @param  list<array{clip: Clip|null, in: int, out: int, take: Take|null, label: string, character?: string}>  $pieces
     * @return array{cut: StoredSequence, left: list<string>}
     */
    private function made(Production $production, User $user, string $name, array $pieces): array
    {
        if (count($pieces) > self::MOST) {
            throw Problem::refused(
                'string_out.many',
                sprintf('That is more than %d pieces.', self::MOST),
                'Narrow it, for instance to a scene.',
            );
        }
        $left = $materials = [];
        $rate = $size = null;
        foreach ($pieces as $piece) {
            if ($piece['clip'] === null) {
                $left[] = $piece['label'];

                continue;
            }
            if ($rate === null && $piece['clip']->isPicture()) {
                $rate = $piece['clip']->rate();
                $size = $piece['clip']->pictureSize();
            }
            $materials[] = $piece;
        }
        if ($materials === []) {
            throw Problem::refused('string_out.empty', 'None of them has a picture or sound.', 'Offload their cards first.');
        }
        $name = SequenceStore::freeName($production, $name);
        $sequence = new Sequence($name, $rate ?? $production->rate(), 0, TrackPlan::tracks($production));
        if ($size !== null) {
            $sequence = $sequence->shaped($sequence->rate, $size);
        }
        $days = self::days(array_map(static fn(array $piece): int => $piece['clip']->shoot_day_id, $materials));
        foreach ($materials as $piece) {
            try {
                $material = Material::of(
                    $piece['clip'],
                    $piece['in'],
                    $piece['out'],
                    $sequence->rate,
                    $piece['take'],
                    channel: $piece['character'] ?? null,
                    beside: $days[$piece['clip']->shoot_day_id] ?? null,
                );
                $sequence = PutPieces::put(
                    $sequence,
                    $material,
                    'append',
                    $sequence->durationTicks(),
                    'both',
                    null,
                    $piece['character'] ?? null,
                );
            } catch (Problem) {
                $left[] = $piece['label'];
            }
        }

        return [
            'cut' => $this->store->create($production, $user, SequenceKind::StringOut, $sequence, label: "Lay the string-out \"$name\""),
            'left' => $left,
        ];
    }

    /**
     * @param  list<int>  $days  ids
     * @return array<int, Windows> what ran beside what, by day: asked once, not for each of a thousand pieces
     */
    private static function days(array $days): array
    {
        return Clip::query()
            ->whereIn('shoot_day_id', array_values(array_unique($days)))
            ->whereNull('away_at')
            ->whereHas('placement', static fn($place) => $place->whereNotNull('start_ticks'))
            ->with(['placement', 'device', 'card', 'day', 'production'])
            ->get()
            ->groupBy('shoot_day_id')
            ->map(static fn($clips): Windows => new Windows($clips))
            ->all();
    }
}
