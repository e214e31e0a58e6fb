<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Footage\ClipMedia;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Reel;
use App\Models\ReelItem;
use App\Models\ScreeningNote;
use App\Models\Take;
use App\Support\Clock;

/** A reel as the dark room shows it: each take with its picture, its other angles, its status and its notes. */
final class ReelPage
{
    /** @return array<string, mixed> */
    public function of(Reel $reel): array
    {
        $reel->loadMissing([
            'items.take.screeningNotes.user',
            'items.take.screeningNotes.clip',
            'items.take.clips.device.look',
            'items.take.clips.look',
            'items.take.clips.placement',
            'items.clip.device',
            'production',
            'day',
        ]);

        return [
            'ulid' => $reel->ulid,
            'name' => $reel->name,
            'circled_only' => $reel->circled_only,
            'day' => $reel->day->ulid,
            'items' => $reel->items->map(fn(ReelItem $item): array => $this->item($item, $reel))->all(),
        ];
    }

    /** @return array<string, mixed> */
    private function item(ReelItem $item, Reel $reel): array
    {
        $take = $item->take;
        $angles = $take->clips
            ->filter(static fn(Clip $clip): bool => $clip->isPicture() && $clip->proxied_at !== null)
            ->sortBy(static fn(Clip $clip): array => [$clip->device->lane ?? 99, $clip->start_ticks]);

        return [
            'position' => $item->position,
            'clip' => $item->clip->ulid,
            'in_ticks' => $item->in_ticks,
            'out_ticks' => $item->out_ticks,
            'take' => [
                'ulid' => $take->ulid,
                'setup' => $take->setup,
                'take' => $take->take,
                'part' => $take->part,
                'scene' => $take->scene,
                'status' => $take->status,
                'description' => $take->description,
                'size' => $take->size,
                'log_note' => $take->notes,
            ],
            'angles' => $angles->map(fn(Clip $clip): array => $this->angle($clip, $reel))->values()->all(),
            'notes' => self::notes($take, $reel),
        ];
    }

    /** @return array<string, mixed> */
    private function angle(Clip $clip, Reel $reel): array
    {
        $rate = $clip->rate() ?? $reel->production->rate();

        return [
            'clip' => $clip->ulid,
            'name' => $clip->title(),
            'device' => $clip->device?->letter,
            'device_note' => $clip->device?->note,
            'start_ticks' => $clip->start_ticks,
            'placed_ticks' => $clip->placement?->start_ticks,
            'duration_ticks' => $clip->duration_ticks,
            'frames' => $clip->frames,
            'synced' => $clip->sound_synced_at !== null,
            'media_version' => ClipMedia::version($clip),
            'look' => Look::told($clip),
            'rate' => Clock::rate($rate),
        ];
    }

    /** @return list<array<string, mixed>> newest first */
    public static function notes(Take $take, Reel $reel): array
    {
        return $take->screeningNotes
            ->sortByDesc('id')
            ->map(
                static fn(ScreeningNote $note): array => [
                    'ulid' => $note->ulid,
                    'by' => $note->user->name ?? 'Somebody',
                    'text' => $note->text,
                    'at_ticks' => $note->at_ticks,
                    'clip' => $note->clip?->ulid,
                    'timecode' =>
                        $note->clip?->start_ticks === null
                            ? null
                            : Clock::label($note->clip->start_ticks + $note->at_ticks, $note->clip->rate() ?? $reel->production->rate()),
                ],
            )
            ->values()
            ->all();
    }
}
