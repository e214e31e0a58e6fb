<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\Clip;
use Cartella\Core\Media\Probe;

/** Writes down what one file says of itself as a clip; done again it changes nothing that a person has set. */
final class CatalogueFile
{
    public function __invoke(Card $card, string $folder, string $path): Clip
    {
        $info = Probe::file($folder.'/'.$path);
        $ixml = $info->ixml;

        return Clip::query()->updateOrCreate(['card_id' => $card->id, 'path_hash' => hash('xxh128', $path)], [
            'production_id' => $card->production_id,
            'shoot_day_id' => $card->shoot_day_id,
            'device_id' => $card->device_id,
            'kind' => $info->kind,
            'import_kind' => $card->device_id === null ? self::importKind($path) : null,
            'name' => mb_substr(pathinfo($path, PATHINFO_FILENAME), 0, 255),
            'path' => $path,
            'duration_ticks' => $info->durationTicks,
            'rate_num' => $info->rate?->num,
            'rate_den' => $info->rate?->den,
            'drop_frame' => $info->rate !== null && $info->rate->dropFrame,
            'frames' => $info->frames,
            'start_ticks' => $info->startTicks,
            'recorded_at' => $info->createdAt,
            'sample_rate' => $info->sampleRate,
            'channels' => $info->channels,
            'is_wild' => $ixml?->wildTrack === true,
            'facts' => [
                'width' => $info->width, 'height' => $info->height, 'rotation' => $info->rotation, 'tape' => $ixml->tape ?? $info->tape,
                'start_source' => $info->startSource, 'audio_streams' => $info->audioStreams,
                'ixml' => $ixml === null ? null : [
                    'scene' => $ixml->scene, 'take' => $ixml->take, 'note' => $ixml->note, 'circled' => $ixml->circled,
                    'no_good' => $ixml->noGood, 'false_start' => $ixml->falseStart, 'wild' => $ixml->wildTrack,
                ],
            ],
            'problems' => $info->problems === [] ? null : $info->problems,
        ]);
    }

    /** A folder's name says what an import is; anything else is stock picture or effects sound. */
    private static function importKind(string $path): string
    {
        $folder = strtolower(str_contains($path, '/') ? strstr($path, '/', true) : '');

        return match (true) {
            in_array($folder, ['music', 'effects', 'graphics', 'stills', 'stock'], true) => $folder,
            MediaNames::kindOf($path) === 'sound' => 'effects',
            MediaNames::kindOf($path) === 'still' => 'stills',
            default => 'stock',
        };
    }
}
