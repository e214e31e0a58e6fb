<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Sequences\ClipSource;
use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SoundPiece;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Take;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Fields\FieldType;
use Illuminate\Database\Eloquent\Collection;

/** A sequence as a package hands it on: media by where the package keeps it, everything known of each take, the looks. */
final class ExchangeSequence
{
    /** @param  callable(Clip): string  $pathOf where the package keeps a clip's media */
    public function of(Playlist $playlist, callable $pathOf): Sequence
    {
        $rate = $playlist->sequence->rate;
        $takes = array_filter(array_map(static fn(PicturePiece|SoundPiece $piece): ?Take => $piece->take, $playlist->pictures));
        (new Collection($takes))->loadMissing('production');
        $pictures = array_map(
            static fn(PicturePiece $piece): Item => new Item(
                $piece->name,
                ClipSource::of($piece->clip, $rate, $pathOf($piece->clip)),
                $piece->inTicks,
                $piece->durationTicks,
                $piece->atTicks,
                markers: self::markers($piece),
                metadata: self::facts($piece->take),
                look: Look::of($piece->clip)?->cdl(),
            ),
            $playlist->pictures,
        );
        // The sound of a picture goes with the picture itself.
        $recordings = array_values(array_filter($playlist->sounds, static fn(SoundPiece $piece): bool => !$piece->clip->isPicture()));
        $sounds = array_map(
            static fn(SoundPiece $piece): Item => new Item(
                $piece->name,
                ClipSource::of($piece->clip, $rate, $pathOf($piece->clip)),
                $piece->inTicks,
                $piece->durationTicks,
                $piece->atTicks,
                markers: self::markers($piece),
                metadata: self::facts($piece->take),
            ),
            $recordings,
        );

        return new Sequence(
            $playlist->sequence->title,
            $rate,
            $playlist->sequence->startTicks,
            [new Track(TrackKind::Picture, 'V', $pictures), new Track(TrackKind::Sound, 'A', $sounds)],
            ['production' => $playlist->stored->production->name],
        );
    }

    /** @return list<Marker> what is marked in the stretch of a clip that is shown or heard, from where that begins */
    private static function markers(PicturePiece|SoundPiece $piece): array
    {
        $found = [];
        foreach ($piece->clip->markers as $one) {
            $begin = max(0, $one->in_ticks - $piece->inTicks);
            $end = min($piece->durationTicks, ($one->out_ticks ?? $one->in_ticks + 1) - $piece->inTicks);
            if ($end > $begin) {
                $about = $one->about === null ? '' : $one->about->value . ': ';
                $found[] = new Marker($begin, $one->out_ticks === null ? 0 : $end - $begin, $one->name, trim($about . $one->note, ': '));
            }
        }

        return $found;
    }

    /** @return array<string, mixed> everything that is known of a take, by the fields' keys */
    private static function facts(?Take $take): array
    {
        $facts = [];
        foreach ($take?->production->fields()->all() ?? [] as $field) {
            $value = $take->valueOf($field->key);
            // The slate stands there always; of the rest, what somebody said.
            if (
                $field->type === FieldType::Slate ||
                ($value !== null && $value !== [] && $value !== $field->nothing()) ||
                $field->key === 'status'
            ) {
                $facts[$field->key] = $value;
            }
        }

        return $take === null ? [] : $facts + ['description' => $take->description];
    }
}
