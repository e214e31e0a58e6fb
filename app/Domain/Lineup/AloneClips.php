<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\TakeFacts;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use Cartella\Core\Lineup\RanAlone;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Sound\GuideTrack;
use Illuminate\Support\Collection;

/** Clips of a lined-up day that ran alone, and nobody has said why yet. */
final class AloneClips
{
    /** @var array<int, true> takes that a recording belongs to, wherever it lies */
    private array $recorded = [];

    /** @param  Collection<int, Clip>  $clips  of one day, with their placements and takes */
    public function __construct(Collection $clips, private readonly Windows $windows)
    {
        foreach ($clips as $clip) {
            foreach ($clip->isSound() ? $clip->parts : [] as $part) {
                $this->recorded[$part->take_id] = true;
            }
        }
    }

    /** @param  bool  $hasSlate  whether line-up knows of which take it is */
    public function of(Clip $clip, bool $hasSlate): ?RanAlone
    {
        $take = $clip->take;
        $isSaid = $clip->is_wild || $clip->is_false_start || $take?->is_wild || $take?->is_mos || $take?->is_guide_only;
        if (
            $clip->placement === null ||
            $clip->placement->left_out_at !== null ||
            $isSaid ||
            $this->windows->partner($clip, $clip->isSound() ? 'picture' : 'sound') !== null
        ) {
            return null;
        }
        if ($clip->isPicture() && $take !== null && isset($this->recorded[$take->id])) {
            return null;
        }

        return RanAlone::of(
            $clip->isSound(),
            (int) $clip->duration_ticks,
            $hasSlate || $take !== null,
            self::isHeard($clip),
            $clip->name . ' ' . ($clip->facts['ixml']['note'] ?? ''),
        );
    }

    /** Writes it down; false where somebody has said it meanwhile. */
    public static function mark(Clip $clip, RanAlone $what, ChangeLog $log): bool
    {
        $take = $clip->take;
        if ($what === RanAlone::Mos) {
            if ($take === null || $take->is_mos) {
                return false;
            }
            $take->is_mos = true;
            TakeFacts::mark($take, ['is_mos'], 'person');
            $log->save($take);

            return true;
        }
        $clip->fill($what === RanAlone::FalseStart ? ['is_false_start' => true] : ['is_wild' => true]);
        $log->save($clip);
        if ($what === RanAlone::RoomTone && $take !== null && (string) $take->description === '') {
            $take->description = 'Room tone';
            TakeFacts::mark($take, ['description'], 'person');
            $log->save($take);
        }

        return true;
    }

    /** Whether anything stands out of what the clip has recorded; true where that is not known. */
    private static function isHeard(Clip $clip): bool
    {
        $guide = MediaFolder::of($clip)->read(MediaFile::Guide);
        if ($clip->isPicture() && ($clip->channels ?? []) === []) {
            return false;
        }
        try {
            return !is_file($guide) || GuideTrack::ofFile($guide)->hasUsableSound();
        } catch (UnableToReadMedia) {
            return true;
        }
    }
}
