<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Speed;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Received;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Look\Exception\InvalidLook;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * Reads the cut of an AAF file (AMWA AAF object specification 1.1, structured storage): the composition that no other one uses,
 * its tracks of picture and sound, gaps, dissolves and wipes, speeds, markers, comments; and of each source its name, reel,
 * timecode and address through the chain of its mobs.
 *
 * Of alternatives what is selected is read, of what is nested the uppermost. What is of another kind is a gap and a problem with
 * its place. Media inside of the file are not read.
 */
final class AafReader
{
    private const MOST_PROBLEMS = 1000;

    /** @var array<string, AafObject> by identifier */
    private array $mobs = [];

    /** @var list<ListProblem> */
    private array $problems = [];

    private FrameRate $rate;

    private AafSources $sources;

    private function __construct() {}

    /** @throws InvalidSequence if it is no such file, or holds no cut */
    public static function read(string $bytes): Received
    {
        $root = AafStore::read($bytes);
        $content = ($root->owned[Model::HEADER] ?? null)?->owned[Model::CONTENT] ?? null;
        $reader = new self();
        foreach ($content?->all(Model::MOBS) ?? [] as $mob) {
            if (isset($mob->bytes[Model::MOB_ID])) {
                $reader->mobs[$mob->bytes[Model::MOB_ID]] = $mob;
            }
        }

        return $reader->cut();
    }

    private function cut(): Received
    {
        $cuts = array_filter($this->mobs, static fn(AafObject $mob): bool => $mob->class === 'CompositionMob');
        $used = [];
        foreach ($cuts as $cut) {
            $this->uses($cut, $used, 0);
        }
        $tops = array_values(array_diff_key($cuts, $used)) ?: array_values($cuts);
        $cut = $tops[0] ?? throw InvalidSequence::field('The AAF file', 'holds no cut');
        if (count($tops) > 1) {
            $this->problem('compositions', sprintf('Of %d cuts the first is read', count($tops)));
        }
        $name = $cut->text(Model::MOB_NAME) ?: 'Untitled';
        $slots = $cut->all(Model::SLOTS);
        [$this->rate, $start] = $this->clock($slots);
        $this->sources = new AafSources($this->mobs, $this->rate);
        $tracks = $places = [];
        foreach ($slots as $number => $slot) {
            $segment = $slot->owned[Model::SEGMENT] ?? null;
            $kind = Model::KINDS[$segment?->refersTo(Model::DATA_DEFINITION) ?? ''] ?? null;
            if ($segment === null || ($kind !== 'picture' && $kind !== 'sound')) {
                continue;
            }
            $label = $slot->text(Model::SLOT_NAME) ?: ($kind === 'picture' ? 'V' : 'A');
            $edit = $slot->ratio(Model::EDIT_RATE);
            if ($edit === null) {
                $this->problem($label, 'The track has no edit rate');

                continue;
            }
            [$items, $where] = $this->items($segment, $edit, TrackKind::from($kind), $label);
            $tracks[] = new Track(TrackKind::from($kind), $label, $items);
            $places[] = $where;
        }
        $said = self::said($cut->all(Model::MOB_COMMENTS));
        $exact = (int) ($said['Start ticks'] ?? $start);
        unset($said['Start ticks']);
        $sequence = new Sequence($name, $this->rate, abs($exact - $start) < $this->rate->ticksPerFrame() ? $exact : $start, $tracks, $said);

        return new Received($this->marked($sequence, $slots), $this->problems, $places);
    }

    /** @param  array<string, true>  $used */
    private function uses(AafObject $object, array &$used, int $depth): void
    {
        if (isset($object->bytes[Model::SOURCE_ID])) {
            $used[$object->bytes[Model::SOURCE_ID]] = true;
        }
        foreach ([...array_values($object->owned), ...array_merge(...array_values($object->vectors) ?: [[]])] as $inside) {
            if ($depth < 40) {
                $this->uses($inside, $used, $depth + 1);
            }
        }
    }

    /**
     * @param  list<AafObject>  $slots
     * @return array{FrameRate, int} the rate of the cut, and its first label in ticks
     */
    private function clock(array $slots): array
    {
        $rate = null;
        $start = 0;
        foreach ($slots as $slot) {
            $edit = $slot->ratio(Model::EDIT_RATE);
            $known = $edit === null ? null : FrameRate::near($edit[0] / $edit[1]);
            $segment = $slot->owned[Model::SEGMENT] ?? null;
            $kind = Model::KINDS[$segment?->refersTo(Model::DATA_DEFINITION) ?? ''] ?? null;
            if ($kind === 'picture' && $known !== null) {
                $rate ??= $known;
            }
            $timecode = $segment === null ? null : AafSources::timecodeOf($segment);
            if ($timecode !== null && $known !== null) {
                $isDrop = $timecode->int(Model::TIMECODE_DROP) === 1 && $known->allowsDropFrame();
                $rate = $known->withDropFrame($isDrop);
                $start = AafObject::ticks((int) $timecode->int(Model::TIMECODE_START), $known->num, $known->den);

                break;
            }
        }
        if ($rate === null) {
            $this->problem('timecode', 'Nothing says a frame rate that is known; it is read at 25');
        }

        return [$rate ?? FrameRate::parse('25'), $start];
    }

    /**
     * @param  array{int, int}  $edit
     * @return array{list<Item>, array<int, string>}
     */
    private function items(AafObject $segment, array $edit, TrackKind $kind, string $label): array
    {
        $parts = $segment->class === 'Sequence' ? $segment->all(Model::COMPONENTS) : [$segment];
        $items = $places = [];
        $at = 0;
        /** @var array{Transition, int, int}|null $pending a transition, its length and what of it lies before the cut, in units */
        $pending = null;
        $isAfterItem = false;
        foreach ($parts as $index => $part) {
            $where = "$label, component " . ($index + 1);
            $length = max(0, (int) $part->int(Model::LENGTH));
            if ($part->class === 'Transition') {
                $before = min($length, max(0, (int) $part->int(Model::CUT_POINT)));
                $pending = $length === 0 ? null : [$this->transition($part, $length, $before, $edit), $length, $before];
                if ($isAfterItem && $pending !== null) {
                    // What it needs of the one before it is seen no more.
                    $last = array_key_last($items);
                    $cut = $items[$last]->durationTicks - AafObject::ticks($length - $before, ...$edit);
                    if ($cut > 0) {
                        $items[$last] = $items[$last]->with(duration: $cut);
                    }
                }
                $at = max(0, $at - $length);

                continue;
            }
            if ($length === 0) {
                continue;
            }
            $head = $pending === null ? 0 : $pending[2];
            $item = $this->item($part, $at + $head, $length - $head, $head, $edit, $kind, $where, $pending[0] ?? null);
            if ($item !== null) {
                $last = array_key_last($items);
                if ($last === null || $item->recordStartTicks >= $items[$last]->recordEndTicks()) {
                    $items[] = $item;
                    $places[] = $where;
                    $isAfterItem = true;
                } else {
                    $this->problem($where, 'It lies over the one before it, and is left out');
                }
            } else {
                $last = array_key_last($items);
                if ($pending !== null && $isAfterItem && $last !== null) {
                    $items[$last] = $items[$last]->with(ending: $pending[0]);
                }
                $isAfterItem = false;
            }
            $pending = null;
            $at += $length;
        }

        return [$items, $places];
    }

    /** @param  array{int, int}  $edit */
    private function transition(AafObject $part, int $length, int $before, array $edit): Transition
    {
        $group = $part->owned[Model::TRANSITION_OPERATION] ?? null;
        $said = self::said($group?->all(Model::COMPONENT_COMMENTS) ?? []);
        $name = (string) ($said['Transition'] ?? ($group?->refersTo(Model::OPERATION) === Model::WIPE ? 'wipe 1' : 'dissolve'));

        return new Transition($name, AafObject::ticks($length, ...$edit), AafObject::ticks($before, ...$edit));
    }

    /** @param  array{int, int}  $edit */
    private function item(
        AafObject $part,
        int $at,
        int $length,
        int $head,
        array $edit,
        TrackKind $kind,
        string $where,
        ?Transition $transition,
    ): ?Item {
        $speed = new Speed();
        for ($depth = 0; $depth < 20; $depth++) {
            $inner = match ($part->class) {
                'OperationGroup' => $part->all(Model::INPUT_SEGMENTS)[0] ?? null,
                'Selector' => $part->owned[Model::SELECTED] ?? null,
                'EssenceGroup' => $part->all(Model::CHOICES)[0] ?? null,
                'NestedScope' => $part->all(Model::SCOPE_SLOTS) === []
                    ? null
                    : $part->all(Model::SCOPE_SLOTS)[count($part->all(Model::SCOPE_SLOTS)) - 1],
                'Sequence' => count($part->all(Model::COMPONENTS)) === 1 ? $part->all(Model::COMPONENTS)[0] : null,
                default => null,
            };
            if ($inner === null) {
                break;
            }
            if ($part->refersTo(Model::OPERATION) === Model::SPEED) {
                $speed = $this->speed($part, $where);
            } elseif ($part->class === 'OperationGroup') {
                $this->problem($where, 'An effect is left out, what it works on is read');
            }
            $part = $inner;
        }
        if ($part->class === 'Filler' || $part->class === 'ScopeReference') {
            return null;
        }
        if ($part->class !== 'SourceClip' || $length <= 0) {
            $this->problem($where, 'It is no clip, and read as a gap');

            return null;
        }
        $source = $this->sources->of($part, $kind);
        $begin = AafObject::ticks((int) $part->int(Model::START_TIME) + $head, ...$edit);
        $duration = AafObject::ticks($at + $length, ...$edit) - AafObject::ticks($at, ...$edit);
        if ($source === null) {
            if (!$this->sources->isNothing($part)) {
                $this->problem($where, 'The file does not say what this clip reads');
            }

            return null;
        }
        if ($speed->num < 0) {
            $begin -= $speed->ofSource($duration);
        }
        $said = self::said($part->all(Model::COMPONENT_COMMENTS));

        return new Item(
            $said['Name'] ?? $source->name,
            $this->sources->holding($source, $begin, $speed->ofSource($duration)),
            max(0, $begin),
            $duration,
            AafObject::ticks($at, ...$edit),
            ($said['Enabled'] ?? '') !== 'no',
            metadata: array_diff_key($said, ['Name' => 1, 'Enabled' => 1, 'ASC_SOP' => 1, 'ASC_SAT' => 1]) +
                $this->sources->factsOf($source->id),
            look: $this->look($said, $where),
            speed: $speed,
            transition: $transition,
        );
    }

    private function speed(AafObject $group, string $where): Speed
    {
        foreach ($group->all(Model::PARAMETERS) as $parameter) {
            $value = $parameter->bytes[Model::PARAMETER_VALUE] ?? '';
            $ratio = AafObject::rationalOf(substr($value, 17), true);
            if ($ratio !== null && substr($value, 1, 16) === Auid::bytes(Model::RATIONAL_TYPE)) {
                try {
                    return new Speed(...$ratio);
                } catch (InvalidSequence) {
                    break;
                }
            }
        }
        $this->problem($where, 'The speed is none that can be played; it is read as normal');

        return new Speed();
    }

    /** @param  array<string, string>  $said */
    private function look(array $said, string $where): ?Cdl
    {
        if (!isset($said['ASC_SOP'])) {
            return null;
        }
        preg_match_all('/-?\d+(?:\.\d+)?(?:e-?\d+)?/i', $said['ASC_SOP'], $all);
        $values = array_map(floatval(...), $all[0]);
        try {
            return Cdl::of(
                array_slice($values, 0, 3),
                array_slice($values, 3, 3),
                array_slice($values, 6, 3),
                (float) ($said['ASC_SAT'] ?? 1),
            );
        } catch (InvalidLook $bad) {
            $this->problem($where, $bad->getMessage());

            return null;
        }
    }

    /**
     * The cut with its markers on what lies there, pictures first.
     *
     * @param  list<AafObject>  $slots
     */
    private function marked(Sequence $sequence, array $slots): Sequence
    {
        $marks = [];
        foreach ($slots as $slot) {
            $edit = $slot->ratio(Model::EVENT_RATE);
            if ($slot->class !== 'EventMobSlot' || $edit === null) {
                continue;
            }
            foreach (($slot->owned[Model::SEGMENT] ?? null)?->all(Model::COMPONENTS) ?? [] as $mark) {
                [$name, $note] = [...explode("\u{2002}", (string) $mark->text(Model::COMMENT), 2), ''];
                $marks[] = [
                    AafObject::ticks((int) $mark->int(Model::POSITION), ...$edit),
                    max(0, AafObject::ticks((int) $mark->int(Model::LENGTH), ...$edit)),
                    $name,
                    $note,
                ];
            }
        }
        $changed = [];
        foreach ($marks as [$at, $length, $name, $note]) {
            foreach ($sequence->tracks as $number => $track) {
                $index = $track->indexAt($at);
                if ($index !== null) {
                    $items = $changed[$number] ?? $track->items;
                    $item = $items[$index];
                    $items[$index] = $item->with(
                        markers: [...$item->markers, new Marker($at - $item->recordStartTicks, $length, $name, $note)],
                    );
                    $changed[$number] = $items;

                    break;
                }
            }
        }

        return $changed === [] ? $sequence : $sequence->with($changed);
    }

    /**
     * @param  list<AafObject>  $values
     * @return array<string, string>
     */
    public static function said(array $values): array
    {
        $said = [];
        foreach ($values as $one) {
            $name = $one->text(Model::TAG_NAME);
            $words = $one->said(Model::TAG_VALUE);
            if ($name !== null && $words !== null) {
                $said[$name] = $words;
            }
        }

        return $said;
    }

    private function problem(string $where, string $why): void
    {
        if (count($this->problems) < self::MOST_PROBLEMS) {
            $this->problems[] = new ListProblem("$why.", path: $where);
        }
    }
}
