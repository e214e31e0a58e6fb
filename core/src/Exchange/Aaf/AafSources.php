<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\FrameRate;

/**
 * What the clips of an AAF file read: each master mob followed down to its file and its tape.
 *
 * @internal
 */
final class AafSources
{
    /** Mobs one below the other. */
    private const DEEPEST = 12;

    /** @var array<string, Source|null> by master mob and kind */
    private array $known = [];

    /** @var array<string, array<string, string>> by the source's id */
    private array $facts = [];

    /** @param  array<string, AafObject>  $mobs */
    public function __construct(private readonly array $mobs, private readonly FrameRate $rate) {}

    /** A source of nothing: where a chain ends, or black is meant. */
    public function isNothing(AafObject $clip): bool
    {
        return trim($clip->bytes[Model::SOURCE_ID] ?? '', "\0") === '';
    }

    public function of(AafObject $clip, TrackKind $kind): ?Source
    {
        $id = $clip->bytes[Model::SOURCE_ID] ?? '';
        $slot = (int) $clip->int(Model::SOURCE_SLOT);
        $key = "$id $slot";
        if (!array_key_exists($key, $this->known)) {
            $this->known[$key] = $this->found($id, $slot);
        }

        return $this->known[$key];
    }

    /** @return array<string, string> what the file says of a source */
    public function factsOf(string $id): array
    {
        return $this->facts[$id] ?? [];
    }

    /** The source, as long as what is read of it: files say lengths that are too short. */
    public function holding(Source $source, int $begin, int $reads): Source
    {
        $end = max($begin, $begin + $reads, 1);

        return $end <= $source->durationTicks
            ? $source
            : new Source($source->id, $source->name, $source->path, $source->reel, $source->startTicks, $end, $source->rate);
    }

    private function found(string $id, int $slotId): ?Source
    {
        $master = $this->mobs[$id] ?? null;
        if ($master === null) {
            return null;
        }
        $path = $reel = $length = $rate = null;
        $name = $master->text(Model::MOB_NAME);
        $offset = 0;
        $start = null;
        $mob = $master;
        for ($depth = 0; $depth < self::DEEPEST && $mob !== null; $depth++) {
            $descriptor = $mob->owned[Model::DESCRIPTION] ?? null;
            if ($descriptor?->class === 'TapeDescriptor') {
                $reel ??= $mob->text(Model::MOB_NAME);
            } elseif ($descriptor !== null) {
                $path ??= self::address($descriptor);
                $name ??= $mob->text(Model::MOB_NAME);
            }
            // The file's own label holds, else that of the tape where the file begins on it.
            $label = $this->labelOf($mob);
            if ($label !== null) {
                $start ??= $label[0] + $offset;
                $rate ??= $label[1];
            }
            $slot = self::slot($mob, $slotId);
            $edit = $slot?->ratio(Model::EDIT_RATE);
            $clip = $slot?->owned[Model::SEGMENT] ?? null;
            $clip = $clip?->class === 'Sequence' ? $clip->all(Model::COMPONENTS)[0] ?? null : $clip;
            if ($clip?->class !== 'SourceClip' || $edit === null) {
                break;
            }
            $length ??= AafObject::ticks(max(0, (int) $clip->int(Model::LENGTH)), ...$edit);
            $offset += AafObject::ticks((int) $clip->int(Model::START_TIME), ...$edit);
            $slotId = (int) $clip->int(Model::SOURCE_SLOT);
            $mob = $this->mobs[$clip->bytes[Model::SOURCE_ID] ?? ''] ?? null;
        }
        $said = AafReader::said($master->all(Model::MOB_COMMENTS));
        $source = new Source(bin2hex($id), $name ?: 'Untitled', $path, $reel ?: null, $start ?? 0, max(1, (int) $length), $rate);
        $this->facts[$source->id] = $said;

        return $source;
    }

    /** @return array{int, FrameRate}|null ticks of the label at the mob's beginning */
    private function labelOf(AafObject $mob): ?array
    {
        foreach ($mob->all(Model::SLOTS) as $slot) {
            $edit = $slot->ratio(Model::EDIT_RATE);
            $timecode = isset($slot->owned[Model::SEGMENT]) ? self::timecodeOf($slot->owned[Model::SEGMENT]) : null;
            if ($timecode === null || $edit === null) {
                continue;
            }
            $isDrop = $timecode->int(Model::TIMECODE_DROP) === 1;
            $rate = FrameRate::near($edit[0] / $edit[1]) ?? $this->rate;
            $rate = $rate->withDropFrame($isDrop && $rate->allowsDropFrame());

            return [AafObject::ticks((int) $timecode->int(Model::TIMECODE_START), $rate->num, $rate->den), $rate];
        }

        return null;
    }

    public static function timecodeOf(AafObject $segment): ?AafObject
    {
        $one = $segment->class === 'Sequence' ? $segment->all(Model::COMPONENTS)[0] ?? null : $segment;

        return $one?->class === 'Timecode' ? $one : null;
    }

    private static function slot(AafObject $mob, int $id): ?AafObject
    {
        foreach ($mob->all(Model::SLOTS) as $slot) {
            if ($slot->int(Model::SLOT_ID) === $id) {
                return $slot;
            }
        }

        return null;
    }

    private static function address(AafObject $descriptor): ?string
    {
        foreach ($descriptor->all(Model::LOCATOR) as $locator) {
            $url = $locator->text(Model::URL) ?? '';
            if ($url !== '') {
                return mb_scrub(rawurldecode((string) preg_replace('/\Afile:\/\/(?:localhost)?(?=\/)/i', '', $url)));
            }
        }

        return null;
    }
}
