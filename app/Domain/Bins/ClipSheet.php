<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Cards\Returned;
use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\Screened;
use App\Domain\Lineup\Corrections;
use App\Domain\Lineup\SoundOfTake;
use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\Look;
use App\Models\Production;
use App\Models\Take;
use App\Models\TakePart;
use App\Models\User;
use App\Support\Clock;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;

/** Everything about one clip that its sheet shows, and one person's marks on it. */
final class ClipSheet
{
    public function __construct(private readonly ClipPlaces $places) {}

    /** @return array<string, mixed> */
    public function of(Clip $clip, User $user, Production $production): array
    {
        $clip->loadMissing(['device', 'take', 'card', 'placement', 'day', 'production', 'subclips', 'markers.user']);
        $rate = $clip->rate() ?? $clip->production->rate();
        $mark = ClipMark::query()->where('clip_id', $clip->id)->where('user_id', $user->id)->first();

        $correction = (new Corrections($clip->day))->of($clip);

        return [
            'ulid' => $clip->ulid,
            'name' => $clip->title(),
            'file' => $clip->name,
            'kind' => $clip->kind,
            'import_kind' => $clip->import_kind,
            'device' => $clip->device?->letter,
            'roll' => $clip->card?->roll,
            'path' => $clip->path,
            'parts' => $clip->paths(),
            'sidecars' => $clip->facts['sidecars'] ?? [],
            'day' => $clip->day->ulid,
            'duration_ticks' => $clip->duration_ticks,
            'frames' => $clip->frames,
            'start_ticks' => $clip->start_ticks,
            'start_timecode' => Clock::label($clip->start_ticks, $rate),
            'corrected_timecode' =>
                $correction === 0 || $clip->start_ticks === null ? null : Clock::label($clip->start_ticks + $correction, $rate),
            'placed_ticks' => $clip->placement?->start_ticks,
            'rate' => $rate,
            'sample_rate' => $clip->sample_rate,
            'channels' => $clip->channels ?? [],
            'width' => $clip->facts['width'] ?? null,
            'height' => $clip->facts['height'] ?? null,
            'recorded_at' => $clip->recorded_at,
            'problems' => $clip->problems ?? [],
            'ready' => $clip->proxied_at !== null,
            'synced' => Windows::hasSound($clip),
            'has_sound' => ($clip->channels ?? []) !== [],
            'media_version' => ClipMedia::version($clip),
            'look' => Look::told($clip),
            'sound' => SoundOfTake::of($clip),
            'head_frames' => $clip->head_frames,
            'take' =>
                $clip->take === null
                    ? null
                    : [
                        'ulid' => $clip->take->ulid,
                        'setup' => $clip->take->setup,
                        'take' => $clip->take->take,
                        'part' => $clip->take->part,
                        'status' => $clip->take->status,
                        'description' => $clip->take->description,
                    ],
            'fields' => $clip->take === null ? [] : self::fields($clip->take, $production->fields()),
            'screening' => $clip->take === null ? '' : Screened::lines([$clip->take->id])[$clip->take->id] ?? '',
            'sources' => array_map(
                static fn(array $one): array => ['by' => $one['by'] ?? null, 'place' => $one['place'] ?? null],
                $clip->take->set_by ?? [],
            ),
            // Of a recording over several takes, each with its stretch.
            'takes' => $clip->parts
                ->map(
                    static fn(TakePart $part): array => [
                        'ulid' => $part->take->ulid,
                        'label' => $part->take->label(),
                        'in_ticks' => $part->in_ticks,
                        'out_ticks' => $part->out_ticks,
                    ],
                )
                ->all(),
            'marks' => ['in_ticks' => $mark?->in_ticks, 'out_ticks' => $mark?->out_ticks],
            'subclips' => $clip->subclips->sortBy('in_ticks')->values()->all(),
            'markers' => $clip->markers->all(),
            'bins' => $this->places->bins($clip),
            'files' => $this->places->files($clip),
            'away_at' => $clip->away_at?->toIso8601String(),
            'found' => Returned::way($clip),
            'library' => $clip->production_id === $production->id ? null : $clip->production->name,
        ];
    }

    /** @return array<string, string> what is said of a take, by the fields' keys; the slate stands by itself */
    private static function fields(Take $take, TakeFields $known): array
    {
        $said = [];
        foreach ($known->all() as $key => $field) {
            $text = $field->type === FieldType::Slate ? '' : $field->text($take->valueOf($key));
            if ($text !== '') {
                $said[$key] = $text;
            }
        }

        return $said;
    }
}
