<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * Writes cuts and bins as AAF (AMWA AAF object specification 1.1, structured storage) with media outside, linked by address.
 *
 * A cut is a composition of a timecode track and one for each track; a source is a master mob, a file mob with a descriptor, an
 * address and its timecode, and, where the source has a reel, a tape mob of that name with a timecode of its own. Positions are
 * frames of the cut's rate; sound that does not lie on frames is counted in samples of 48 kHz. The classes and properties that
 * are written are those of {@see Model}; definitions of built-in properties and types are left out, as every reader has them.
 * The same cut made at the same moment gives the same bytes.
 */
final class AafWriter
{
    private const SAMPLES = 48_000;

    /** Slots of a source. */
    private const SLOTS = ['picture' => 1, 'sound' => 2, 'timecode' => 3];

    /** Slots of a composition: one of timecode, one of markers, then the tracks. */
    private const TIMECODE_SLOT = 1;

    private const MARKER_SLOT = 2;

    private const FIRST_TRACK_SLOT = 3;

    /** @var array<string, AafObject> by identifier */
    private array $mobs = [];

    /** @var array<string, array{source: Source, kinds: array<string, true>, rate: FrameRate, facts: array<string, mixed>}> by id */
    private array $sources = [];

    /** @param  array<string, array{width?: int, height?: int, channels?: int, sample_rate?: int, bits?: int}>  $media  by source */
    private function __construct(private readonly int $made, private readonly array $media) {}

    /**
     * @param  list<Sequence>  $sequences
     * @param  list<array{source: Source, kinds: list<TrackKind>, facts: array<string, mixed>}>  $bin  sources that stand by themselves
     * @param  FrameRate  $rate  of sources that say none
     * @param  array<string, array{width?: int, height?: int, channels?: int, sample_rate?: int, bits?: int}>  $media  what is known of
     *     files, by the source's id
     */
    public static function write(array $sequences, array $bin, FrameRate $rate, int $made, array $media = []): string
    {
        $writer = new self($made, $media);
        foreach ($sequences as $sequence) {
            $writer->composition($sequence);
        }
        foreach ($bin as $one) {
            foreach ($one['kinds'] as $kind) {
                $writer->used($one['source'], $kind, $rate, $one['facts']);
            }
        }
        foreach ($writer->sources as $known) {
            $writer->chain($known);
        }

        return AafStore::write($writer->root());
    }

    private function root(): AafObject
    {
        $mobs = array_values($this->mobs);
        $data = static fn(string $id, string $name): AafObject => AafObject::of('DataDefinition')
            ->raw(Model::DEFINITION_ID, Auid::bytes($id))
            ->words(Model::DEFINITION_NAME, $name);
        $operation = static fn(string $id, string $name, string $kind, int $inputs): AafObject => AafObject::of('OperationDefinition')
            ->raw(Model::DEFINITION_ID, Auid::bytes($id))
            ->words(Model::DEFINITION_NAME, $name)
            ->refers(Model::OPERATION_DATA, Model::TO_DATA, Auid::bytes($kind))
            ->flag(Model::IS_TIME_WARP, $id === Model::SPEED)
            ->whole(Model::NUMBER_INPUTS, $inputs);
        $dictionary = AafObject::of('Dictionary')
            ->set(
                Model::DATA_DEFINITIONS,
                [
                    $data(Model::PICTURE, 'Picture'),
                    $data(Model::SOUND, 'Sound'),
                    $data(Model::TIMECODE, 'Timecode'),
                    $data(Model::MARKS, 'Descriptive Metadata'),
                ],
                Model::DEFINITION_ID,
            )
            ->set(
                Model::OPERATION_DEFINITIONS,
                [
                    $operation(Model::DISSOLVE, 'Video Dissolve', Model::PICTURE, 2),
                    $operation(Model::SOUND_DISSOLVE, 'Mono Audio Dissolve', Model::SOUND, 2),
                    $operation(Model::WIPE, 'Video Wipe', Model::PICTURE, 2),
                    $operation(Model::SPEED, 'Video Speed Control', Model::PICTURE, 1),
                ],
                Model::DEFINITION_ID,
            )
            ->set(
                Model::CONTAINER_DEFINITIONS,
                [
                    AafObject::of('ContainerDefinition')
                        ->raw(Model::DEFINITION_ID, Auid::bytes(Model::EXTERNAL))
                        ->words(Model::DEFINITION_NAME, 'External'),
                ],
                Model::DEFINITION_ID,
            );
        $identification = AafObject::of('Identification')
            ->words(Model::COMPANY, 'Cartella')
            ->words(Model::PRODUCT, 'Cartella')
            ->words(Model::PRODUCT_VERSION, '1')
            ->raw(Model::PRODUCT_ID, Auid::of('Cartella'))
            ->moment(Model::DATE, $this->made)
            ->raw(Model::GENERATION, Auid::of('Cartella ' . $this->made));
        $header = AafObject::of('Header')
            ->small(Model::BYTE_ORDER, 0x4949)
            ->moment(Model::LAST_MODIFIED, $this->made)
            ->raw(Model::VERSION, "\x01\x01")
            ->whole(Model::MODEL_VERSION, 1)
            ->list(Model::IDENTIFICATIONS, [$identification])
            ->has(Model::CONTENT, AafObject::of('ContentStorage')->set(Model::MOBS, $mobs, Model::MOB_ID))
            ->has(Model::DICTIONARY, $dictionary);
        $classes = [];
        foreach (Model::CLASSES as $name => [, $parent, $isConcrete]) {
            $classes[] = AafObject::of('ClassDefinition')
                ->raw(Model::META_IDENTIFICATION, Auid::bytes(Model::classId($name)))
                ->words(Model::META_NAME, $name)
                ->refers(Model::PARENT_CLASS, Model::TO_CLASS, Auid::bytes(Model::classId($parent)))
                ->flag(Model::IS_CONCRETE, $isConcrete);
        }

        return (new AafObject('Root'))
            ->has(
                Model::META_DICTIONARY,
                AafObject::of('MetaDictionary')->set(Model::CLASS_DEFINITIONS, $classes, Model::META_IDENTIFICATION),
            )
            ->has(Model::HEADER, $header);
    }

    private function composition(Sequence $sequence): void
    {
        $rate = $sequence->rate;
        $slots = [
            $this->slot(
                self::TIMECODE_SLOT,
                'TC',
                $rate->num,
                $rate->den,
                $this->timecode($sequence->startTicks, $sequence->durationTicks(), $rate),
            ),
        ];
        $marks = $this->marks($sequence);
        if ($marks !== null) {
            $slots[] = $marks;
        }
        foreach ($sequence->tracks as $number => $track) {
            $isExact = $track->kind === TrackKind::Picture || self::isOnFrames($track, $rate->ticksPerFrame());
            [$num, $den] = $isExact ? [$rate->num, $rate->den] : [self::SAMPLES, 1];
            $slots[] = $this->slot(
                self::FIRST_TRACK_SLOT + $number,
                $track->name,
                $num,
                $den,
                $this->track($track, $rate, $num, $den),
            )->whole(
                Model::TRACK_NUMBER,
                1 +
                    count(
                        array_filter(
                            array_slice($sequence->tracks, 0, $number),
                            static fn(Track $other): bool => $other->kind === $track->kind,
                        ),
                    ),
            );
        }
        $said = ['Start ticks' => $sequence->startTicks] + $sequence->metadata;
        $this->mob(
            'CompositionMob',
            self::id('cut ' . $sequence->title . json_encode($sequence->toArray())),
            $sequence->title,
            $slots,
            $said,
        );
    }

    private static function isOnFrames(Track $track, int $frame): bool
    {
        foreach ($track->items as $item) {
            if ($item->recordStartTicks % $frame !== 0 || $item->durationTicks % $frame !== 0 || $item->sourceStartTicks % $frame !== 0) {
                return false;
            }
        }

        return true;
    }

    private function slot(int $id, string $name, int $num, int $den, AafObject $segment): AafObject
    {
        return AafObject::of('TimelineMobSlot')
            ->whole(Model::SLOT_ID, $id)
            ->words(Model::SLOT_NAME, $name)
            ->rational(Model::EDIT_RATE, $num, $den)
            ->long(Model::ORIGIN, 0)
            ->has(Model::SEGMENT, $segment);
    }

    private function timecode(int $startTicks, int $lengthTicks, FrameRate $rate): AafObject
    {
        return self::component('Timecode', Model::TIMECODE, Ticks::toFrames($lengthTicks, $rate))
            ->long(Model::TIMECODE_START, Ticks::toFrames($startTicks, $rate))
            ->small(Model::TIMECODE_FPS, $rate->nominal)
            ->flag(Model::TIMECODE_DROP, $rate->dropFrame);
    }

    private static function component(string $class, string $kind, int $length): AafObject
    {
        return AafObject::of($class)->refers(Model::DATA_DEFINITION, Model::TO_DATA, Auid::bytes($kind))->long(Model::LENGTH, $length);
    }

    private function marks(Sequence $sequence): ?AafObject
    {
        $marks = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                foreach ($item->markers as $marker) {
                    $at = Ticks::toFrames($item->recordStartTicks + $marker->atTicks, $sequence->rate);
                    $marks[] = [
                        $at,
                        self::component('DescriptiveMarker', Model::MARKS, Ticks::toFrames($marker->durationTicks, $sequence->rate))
                            ->long(Model::POSITION, $at)
                            ->words(Model::COMMENT, trim($marker->name . ($marker->note === '' ? '' : "\u{2002}" . $marker->note))),
                    ];
                }
            }
        }
        if ($marks === []) {
            return null;
        }
        usort($marks, static fn(array $x, array $y): int => $x[0] <=> $y[0]);
        $length = Ticks::toFrames($sequence->durationTicks(), $sequence->rate);

        return AafObject::of('EventMobSlot')
            ->whole(Model::SLOT_ID, self::MARKER_SLOT)
            ->words(Model::SLOT_NAME, 'Markers')
            ->rational(Model::EVENT_RATE, $sequence->rate->num, $sequence->rate->den)
            ->has(Model::SEGMENT, self::component('Sequence', Model::MARKS, $length)->list(Model::COMPONENTS, array_column($marks, 1)));
    }

    private function track(Track $track, FrameRate $rate, int $num, int $den): AafObject
    {
        $kind = $track->kind === TrackKind::Picture ? Model::PICTURE : Model::SOUND;
        $half = intdiv(Ticks::PER_SECOND * $den, 2 * $num);
        $units = static fn(int $ticks): int => Ticks::mulDivFloor($ticks + $half, $num, Ticks::PER_SECOND * $den);
        $parts = [];
        $end = $total = 0;
        // What a transition needs of the two beside it is longer than what is seen of them.
        $owed = 0;
        foreach ($track->items as $index => $item) {
            $next = $track->items[$index + 1] ?? null;
            $start = $units($item->recordStartTicks);
            $finish = $units($item->recordEndTicks());
            $in = $item->transition === null ? 0 : min($units($item->transition->beforeTicks), $units($item->sourceStartTicks));
            $length =
                $item->transition === null ? 0 : $units($item->transition->durationTicks) - $units($item->transition->beforeTicks) + $in;
            $isApart = $start > $end;
            if ($isApart || ($item->transition !== null && $index === 0)) {
                $fill = $start - $end + $owed + ($item->transition === null ? 0 : $length - $in);
                $parts[] = self::component('Filler', $kind, $fill);
                $owed = 0;
            }
            if ($item->transition !== null) {
                $parts[] = self::transition($item->transition, $kind, $length, $in);
            }
            $touches = $next !== null && $units($next->recordStartTicks) === $finish && $next->transition !== null;
            $isLast = $next === null || $units($next->recordStartTicks) > $finish;
            $ending = $isLast ? $item->ending : null;
            $out = match (true) {
                $touches => $units($next->transition->durationTicks) - $units($next->transition->beforeTicks),
                $ending !== null => $units($ending->durationTicks) - $units($ending->beforeTicks),
                default => 0,
            };
            $parts[] = $this->clip($item, $track->kind, $rate, $kind, $start - $in, $finish + $out, $units, $in);
            $end = $total = $finish;
            if ($ending !== null) {
                $before = $units($ending->beforeTicks);
                $parts[] = self::transition($ending, $kind, $out + $before, $before);
                // The nothing behind it begins with the transition.
                $owed = $before;
                if ($next === null) {
                    $parts[] = self::component('Filler', $kind, $out + $before);
                    $total = $finish + $out;
                }
            }
        }

        return self::component('Sequence', $kind, $total)->list(Model::COMPONENTS, $parts);
    }

    private static function transition(Transition $transition, string $kind, int $length, int $before): AafObject
    {
        $effect = match (true) {
            $kind === Model::SOUND => Model::SOUND_DISSOLVE,
            str_starts_with($transition->name, 'wipe') => Model::WIPE,
            default => Model::DISSOLVE,
        };

        return self::component('Transition', $kind, $length)
            ->has(
                Model::TRANSITION_OPERATION,
                self::component('OperationGroup', $kind, $length)
                    ->refers(Model::OPERATION, Model::TO_OPERATION, Auid::bytes($effect))
                    ->list(Model::COMPONENT_COMMENTS, self::comments(['Transition' => $transition->name])),
            )
            ->long(Model::CUT_POINT, $before);
    }

    /**
     * @param  callable(int): int  $units
     * @param  int  $head  units that a transition needs before it
     */
    private function clip(
        Item $item,
        TrackKind $track,
        FrameRate $rate,
        string $kind,
        int $from,
        int $to,
        callable $units,
        int $head,
    ): AafObject {
        $source = $this->used($item->source, $track, $rate, $item->metadata);
        $read = $item->speed->num < 0 ? $item->sourceEndTicks() : $item->sourceStartTicks;
        $start = $units($read) - $head;
        $isPlain = $item->speed->isPlain();
        $length = $isPlain ? $to - $from : max(1, $units(abs($item->speed->ofSource($item->durationTicks))));
        $clip = self::component('SourceClip', $kind, $length)
            ->raw(Model::SOURCE_ID, $source)
            ->whole(Model::SOURCE_SLOT, self::SLOTS[$track->value])
            ->long(Model::START_TIME, $start);
        $said = [
            ...$item->name === $item->source->name ? [] : ['Name' => $item->name],
            ...$item->enabled ? [] : ['Enabled' => 'no'],
            ...$item->look === null ? [] : ['ASC_SOP' => $item->look->sop(), 'ASC_SAT' => Cdl::number($item->look->saturation)],
        ];
        $clip->list(Model::COMPONENT_COMMENTS, self::comments($said));
        if ($isPlain) {
            return $clip;
        }

        return self::component('OperationGroup', $kind, $to - $from)
            ->refers(Model::OPERATION, Model::TO_OPERATION, Auid::bytes(Model::SPEED))
            ->list(Model::INPUT_SEGMENTS, [$clip])
            ->list(Model::PARAMETERS, [
                AafObject::of('ConstantValue')
                    ->raw(Model::PARAMETER_DEFINITION, Auid::bytes(Model::SPEED_RATIO))
                    ->raw(
                        Model::PARAMETER_VALUE,
                        'L' . Auid::bytes(Model::RATIONAL_TYPE) . pack('VV', $item->speed->num, $item->speed->den),
                    ),
            ]);
    }

    /**
     * @param  array<string, mixed>  $facts
     * @return string the identifier of its master mob
     */
    private function used(Source $source, TrackKind $kind, FrameRate $rate, array $facts): string
    {
        $this->sources[$source->id] ??= ['source' => $source, 'kinds' => [], 'rate' => $source->rate ?? $rate, 'facts' => $facts];
        $this->sources[$source->id]['kinds'][$kind->value] = true;

        return self::id('master ' . $source->id);
    }

    /** @param  array{source: Source, kinds: array<string, true>, rate: FrameRate, facts: array<string, mixed>}  $known */
    private function chain(array $known): void
    {
        ['source' => $source, 'kinds' => $kinds, 'rate' => $rate, 'facts' => $facts] = $known;
        $file = self::id('file ' . $source->id);
        $tape = $source->reel === null ? null : self::id("tape $source->reel " . $rate->label());
        $slots = $below = $tapeSlots = [];
        foreach (array_keys($kinds) as $kind) {
            [$num, $den] = $kind === 'sound' && !isset($kinds['picture']) ? [self::SAMPLES, 1] : [$rate->num, $rate->den];
            $units = static fn(int $ticks): int => Ticks::mulDivFloor($ticks, $num, Ticks::PER_SECOND * $den);
            $id = $kind === 'picture' ? Model::PICTURE : Model::SOUND;
            $length = max(1, $units($source->durationTicks));
            $clip = static fn(string $mob, int $start): AafObject => self::component('SourceClip', $id, $length)
                ->raw(Model::SOURCE_ID, $mob)
                ->whole(Model::SOURCE_SLOT, $mob === str_repeat("\0", 32) ? 0 : self::SLOTS[$kind])
                ->long(Model::START_TIME, $start);
            $slots[] = $this->slot(self::SLOTS[$kind], $kind, $num, $den, $clip($file, 0));
            $below[] = $this->slot(
                self::SLOTS[$kind],
                $kind,
                $num,
                $den,
                $tape === null ? $clip(str_repeat("\0", 32), 0) : $clip($tape, $units($source->startTicks)),
            );
            $tapeSlots[self::SLOTS[$kind]] = $this->slot(
                self::SLOTS[$kind],
                $kind,
                $num,
                $den,
                self::component('SourceClip', $id, $units(Ticks::PER_DAY))
                    ->raw(Model::SOURCE_ID, str_repeat("\0", 32))
                    ->whole(Model::SOURCE_SLOT, 0)
                    ->long(Model::START_TIME, 0),
            );
        }
        // What the file itself says: its first label.
        $below[] = $this->slot(
            self::SLOTS['timecode'],
            'TC',
            $rate->num,
            $rate->den,
            $this->timecode($source->startTicks, $source->durationTicks, $rate),
        );
        $this->mob('MasterMob', self::id('master ' . $source->id), $source->name, $slots, $facts);
        $this->mob('SourceMob', $file, $source->name, $below, [])->has(Model::DESCRIPTION, $this->descriptor($source, $kinds, $rate));
        if ($tape === null) {
            return;
        }
        $tapeSlots[self::SLOTS['timecode']] = $this->slot(
            self::SLOTS['timecode'],
            'TC',
            $rate->num,
            $rate->den,
            $this->timecode(0, Ticks::PER_DAY, $rate),
        );
        // One tape for all that came from it, with every kind that any of them has.
        $former = isset($this->mobs[$tape]) ? $this->mobs[$tape]->vectors[Model::SLOTS] : [];
        foreach ($former as $slot) {
            $tapeSlots[(int) $slot->int(Model::SLOT_ID)] ??= $slot;
        }
        ksort($tapeSlots);
        $this->mob('SourceMob', $tape, (string) $source->reel, array_values($tapeSlots), [])->has(
            Model::DESCRIPTION,
            AafObject::of('TapeDescriptor'),
        );
    }

    /** @param  array<string, true>  $kinds */
    private function descriptor(Source $source, array $kinds, FrameRate $rate): AafObject
    {
        $known = $this->media[$source->id] ?? [];
        $isPicture = isset($kinds['picture']);
        $descriptor = AafObject::of($isPicture ? 'CDCIDescriptor' : 'PCMDescriptor')
            ->refers(Model::CONTAINER_FORMAT, Model::TO_CONTAINER, Auid::bytes(Model::EXTERNAL))
            ->rational(Model::SAMPLE_RATE, $isPicture ? $rate->num : $known['sample_rate'] ?? self::SAMPLES, $isPicture ? $rate->den : 1)
            ->long(
                Model::FILE_LENGTH,
                $isPicture
                    ? Ticks::toFrames($source->durationTicks, $rate)
                    : Ticks::toSamples($source->durationTicks, $known['sample_rate'] ?? self::SAMPLES),
            );
        foreach (
            $isPicture
                ? [Model::STORED_HEIGHT => $known['height'] ?? null, Model::STORED_WIDTH => $known['width'] ?? null]
                : [Model::QUANTIZATION => $known['bits'] ?? null, Model::CHANNELS => $known['channels'] ?? null]
            as $property => $value
        ) {
            if ($value !== null) {
                $descriptor->whole($property, $value);
            }
        }
        if (!$isPicture) {
            $descriptor->rational(Model::SOUND_RATE, $known['sample_rate'] ?? self::SAMPLES, 1);
        }

        return $source->path === null
            ? $descriptor
            : $descriptor->list(Model::LOCATOR, [AafObject::of('NetworkLocator')->words(Model::URL, self::url($source->path))]);
    }

    /** A path relative to the file, percent-encoded by its parts. */
    private static function url(string $path): string
    {
        return ($path[0] === '/' ? 'file://' : '') . implode('/', array_map(rawurlencode(...), explode('/', $path)));
    }

    /**
     * @param  list<AafObject>  $slots
     * @param  array<string, mixed>  $said
     */
    private function mob(string $class, string $id, string $name, array $slots, array $said): AafObject
    {
        return $this->mobs[$id] = AafObject::of($class)
            ->raw(Model::MOB_ID, $id)
            ->words(Model::MOB_NAME, $name)
            ->list(Model::SLOTS, $slots)
            ->moment(Model::MOB_MODIFIED, $this->made)
            ->moment(Model::MOB_CREATED, $this->made)
            ->list(Model::MOB_COMMENTS, self::comments($said));
    }

    /**
     * @param  array<string, mixed>  $said
     * @return list<AafObject> a tagged value for everything that can be said in words
     */
    private static function comments(array $said): array
    {
        $list = [];
        foreach ($said as $name => $value) {
            $words = match (true) {
                is_bool($value) => $value ? 'yes' : 'no',
                is_scalar($value) => (string) $value,
                is_array($value) && array_is_list($value) && array_filter($value, is_scalar(...)) === $value => implode(', ', $value),
                default => '',
            };
            if ($words !== '') {
                $list[] = AafObject::of('TaggedValue')
                    ->words(Model::TAG_NAME, (string) $name)
                    ->raw(Model::TAG_VALUE, AafObject::saying(mb_strcut($words, 0, 20_000)));
            }
        }

        return $list;
    }

    /** A material number of 32 bytes (SMPTE ST 330) that is the same for the same words. */
    private static function id(string $words): string
    {
        return "\x06\x0A\x2B\x34\x01\x01\x01\x05\x01\x01\x0F\x20\x13\x00\x00\x00" . Auid::of($words);
    }
}
