<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\Clip;
use App\Models\Marker;
use App\Models\MarkerKind;
use Cartella\Core\Media\FoundBy;
use Cartella\Core\Media\MediaInfo;
use Cartella\Core\Media\MediaNames;
use Illuminate\Support\Str;

/** Writes down what one recording says of itself as a clip; done again it changes nothing that a person has set. */
final class CatalogueFile
{
    /**
     * @param  array{layout: string, parts: non-empty-list<string>, sidecars: list<string>, infos: non-empty-list<MediaInfo>}  $recording
     * @param  array{clip: int, by: FoundBy, was: string}|null  $found  the clip whose media these are, where they went and came back
     */
    public function __invoke(Card $card, int $day, array $recording, ?array $found = null): Clip
    {
        $path = $recording['parts'][0];
        $info = $recording['infos'][0];
        $ixml = $info->ixml;
        $place = ['card_id' => $card->id, 'path_hash' => hash('xxh128', $path)];
        $clip = $found === null ? Clip::query()->firstOrNew($place) : self::again($found, $place);
        $clip->away_at = null;
        if (!$clip->exists) {
            // What a person may change later is only set once.
            $clip->fill([
                'shoot_day_id' => $day,
                'device_id' => $card->device_id,
                'import_kind' => $card->device_id === null ? $card->import_kind ?? MediaNames::importKind($path) : null,
            ]);
        }
        $isSpan = $recording['layout'] === 'span';
        // Heard when its media was made, which is not made again.
        $ltc = $clip->facts['ltc'] ?? null;
        $clip
            ->fill([
                'production_id' => $card->production_id,
                'kind' => $info->kind,
                'name' => mb_substr(pathinfo($path, PATHINFO_FILENAME), 0, 255),
                'path' => $path,
                'duration_ticks' => $isSpan
                    ? array_sum(array_map(static fn(MediaInfo $part): int => (int) $part->durationTicks, $recording['infos']))
                    : $info->durationTicks,
                'rate_num' => $info->rate?->num,
                'rate_den' => $info->rate?->den,
                'drop_frame' => $info->rate !== null && $info->rate->dropFrame,
                'frames' =>
                    $isSpan && $info->frames !== null
                        ? array_sum(array_map(static fn(MediaInfo $part): int => (int) $part->frames, $recording['infos']))
                        : $info->frames,
                'start_ticks' => $ltc['start_ticks'] ?? $info->startTicks,
                'recorded_at' => $info->createdAt,
                'sample_rate' => $info->sampleRate,
                'channels' => $recording['layout'] === 'split' ? self::tracks($recording['infos']) : $info->channels,
                'is_wild' => $clip->exists ? $clip->is_wild : $ixml?->wildTrack === true,
                'facts' => [
                    'width' => $info->width,
                    'height' => $info->height,
                    'rotation' => $info->rotation,
                    'variable_rate' => $info->isVariable,
                    'tape' => $ixml->tape ?? $info->tape,
                    'start_source' => $ltc === null ? $info->startSource : 'ltc',
                    'ltc' => $ltc,
                    'audio_streams' => $recording['layout'] === 'split' ? [count($recording['parts'])] : $info->audioStreams,
                    'layout' => $recording['layout'],
                    'parts' => $recording['parts'],
                    'sidecars' => $recording['sidecars'],
                    'ixml' =>
                        $ixml === null
                            ? null
                            : [
                                'scene' => $ixml->scene,
                                'take' => $ixml->take,
                                'note' => $ixml->note,
                                'circled' => $ixml->circled,
                                'no_good' => $ixml->noGood,
                                'false_start' => $ixml->falseStart,
                                'wild' => $ixml->wildTrack,
                            ],
                ],
                'problems' =>
                    array_values(
                        array_unique(array_merge(...array_map(static fn(MediaInfo $part): array => $part->problems, $recording['infos']))),
                    ) ?:
                    null,
            ])
            ->save();
        self::keepMarkers($clip, $info);

        return $clip;
    }

    /**
     * The clip of media that came back, at their new place; whatever pointed at it still does.
     *
     * @param  array{clip: int, by: FoundBy, was: string}  $found
     * @param  array{card_id: int, path_hash: string}  $place
     */
    private static function again(array $found, array $place): Clip
    {
        $clip = Clip::query()->findOrFail($found['clip']);
        $clip->fill($place);
        $clip->found = ['by' => $found['by']->value, 'was' => $found['was'], 'at' => now()->toIso8601String()];
        if ($found['by'] !== FoundBy::Hash) {
            // Its bytes may be others: what was made of them is made anew.
            $clip->proxied_at = null;
        }

        return $clip;
    }

    /** What the file itself marks, however much that is; what people marked stays, and so does what was there before. */
    private static function keepMarkers(Clip $clip, MediaInfo $info): void
    {
        $open = [];
        foreach (
            $clip
                ->markers()
                ->where('kind', MarkerKind::File)
                ->get(['id', 'in_ticks', 'name'])
            as $kept
        ) {
            $open["$kept->in_ticks $kept->name"][] = $kept->id;
        }
        $new = array_values(
            array_filter($info->markers, static function (array $marker) use (&$open): bool {
                $key = $marker['ticks'] . ' ' . mb_substr($marker['name'], 0, 160);

                return ($open[$key] ?? []) === [] || array_pop($open[$key]) === null;
            }),
        );
        $clip->markers()->whereIntegerInRaw('id', array_merge([], ...array_values($open)))->delete();
        foreach (array_chunk($new, 500) as $some) {
            Marker::query()->insert(
                array_map(
                    static fn(array $marker): array => [
                        'ulid' => (string) Str::ulid(),
                        'clip_id' => $clip->id,
                        'kind' => MarkerKind::File->value,
                        'in_ticks' => $marker['ticks'],
                        'out_ticks' => ($marker['duration_ticks'] ?? 0) > 0 ? $marker['ticks'] + $marker['duration_ticks'] : null,
                        'name' => mb_substr($marker['name'], 0, 160),
                        'created_at' => now(),
                        'updated_at' => now(),
                    ],
                    $some,
                ),
            );
        }
    }

    /**
     * One track of each file, in their order.
     *
     * @param  non-empty-list<MediaInfo>  $parts
     * @return list<array{index: int, name: string, function: string|null}>
     */
    private static function tracks(array $parts): array
    {
        return array_map(
            static fn(MediaInfo $part, int $number): array => [
                'index' => $number + 1,
                'name' => $part->channels[0]['name'] ?: 'Track ' . ($number + 1),
                'function' => $part->channels[0]['function'] ?? null,
            ],
            $parts,
            array_keys($parts),
        );
    }
}
