<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Lineup\SoundsUnder;
use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Reel;
use App\Models\ReelItem;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/** A review reel as the core's sequence: the pictures one after the other, the recorder's sound under them. */
final class ReelSequence
{
    /** The label of the first frame: one hour, as is usual. */
    private const START_TICKS = 3600 * Ticks::PER_SECOND;

    /** @param  callable(Clip): string  $pathOf where the package keeps a clip's media */
    public function of(Reel $reel, callable $pathOf): Sequence
    {
        $reel->loadMissing([
            'items.take.production',
            'items.clip.card',
            'items.clip.placement',
            'items.clip.look',
            'items.clip.device.look',
            'production',
        ]);
        $rate = $reel->production->rate();
        $sounds = Clip::query()
            ->with(['placement', 'card'])
            ->where('shoot_day_id', $reel->shoot_day_id)
            ->where('kind', 'sound')
            ->whereNull('import_kind')
            ->get();
        $windows = new Windows($sounds);
        $pictures = $laid = [];
        $at = 0;
        foreach ($reel->items as $item) {
            $frames = Ticks::toFrames($item->out_ticks - $item->in_ticks, $rate);
            if ($frames < 1) {
                continue;
            }
            $length = Ticks::ofFrames($frames, $rate);
            $pictures[] = new Item(
                $item->take->label() . ' ' . $item->clip->title(),
                self::source($item->clip, $pathOf($item->clip), $rate),
                $item->in_ticks,
                $length,
                $at,
                metadata: self::facts($item),
                look: Look::of($item->clip)?->cdl(),
            );
            foreach (SoundsUnder::of($item->clip, $windows) as $piece) {
                $under = self::under($item, $piece, $length, $at, $pathOf($piece['sound']), $rate);
                if ($under !== null) {
                    $laid[] = $under;
                }
            }
            $at += $length;
        }

        return new Sequence(
            $reel->name,
            $rate,
            self::START_TICKS,
            [new Track(TrackKind::Picture, 'V', $pictures), new Track(TrackKind::Sound, 'A', self::inOrder($laid))],
            ['production' => $reel->production->name],
        );
    }

    /**
     * @param  list<Item>  $items
     * @return list<Item>
     */
    private static function inOrder(array $items): array
    {
        usort($items, static fn(Item $x, Item $y): int => $x->recordStartTicks <=> $y->recordStartTicks);

        return $items;
    }

    /** @param  array{sound: Clip, from: int, to: int}  $piece  ticks from the picture's first frame */
    private static function under(ReelItem $item, array $piece, int $length, int $at, string $path, FrameRate $rate): ?Item
    {
        $sound = $piece['sound'];
        $start = max($item->in_ticks, $piece['from']);
        $end = min($item->in_ticks + $length, $piece['to']);

        return $end <= $start
            ? null
            : new Item(
                $item->take->label() . ' ' . $sound->title(),
                self::source($sound, $path, $rate),
                $item->clip->placement->start_ticks + $start - $sound->placement->start_ticks,
                $end - $start,
                $at + $start - $item->in_ticks,
                metadata: self::facts($item),
            );
    }

    private static function source(Clip $clip, string $path, FrameRate $rate): Source
    {
        return new Source(
            $clip->ulid,
            $clip->name,
            $path,
            $clip->card?->roll,
            (int) $clip->start_ticks,
            (int) $clip->duration_ticks,
            $clip->rate() ?? $rate,
        );
    }

    /** @return array<string, mixed> everything that is known of its take, by the fields' keys */
    private static function facts(ReelItem $item): array
    {
        $facts = [];
        foreach ($item->take->production->fields()->all() as $field) {
            $value = $item->take->valueOf($field->key);
            // The slate stands there always; of the rest, what somebody said.
            if (
                $field->type === FieldType::Slate ||
                ($value !== null && $value !== [] && $value !== $field->nothing()) ||
                $field->key === 'status'
            ) {
                $facts[$field->key] = $value;
            }
        }

        return $facts + ['description' => $item->take->description];
    }
}
