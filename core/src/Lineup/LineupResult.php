<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

/** A finished line-up: placements in time order, strays with their reasons, and what was learned of the clocks. */
final readonly class LineupResult
{
    /**
     * @param  list<string>  $lanes  devices in the order they first appear, sound last
     * @param  list<Placement>  $placements
     * @param  array<string, string>  $strays  reason by clip
     * @param  array<string, array{offset_ticks: int, votes: int, sure: bool}>  $deviceOffsets  what to add to a device's own timecode to
     *     get the zero's
     * @param  array<string, array{offset_ticks: int, votes: int, sure: bool}>  $recordedOffsets  likewise to its recorded dates, which
     *     another clock of the device writes
     * @param  array<int, array{offset_ticks: int, by: 'timecode'|'date'|'order'}>  $groups  where a group's zero lies on the zero's clock
     *     as far as its clips' own clocks say, which ties nothing
     */
    public function __construct(
        public ?string $zero,
        public array $lanes,
        public array $placements,
        public array $strays,
        public array $deviceOffsets,
        public array $recordedOffsets,
        public array $groups,
    ) {}

    /** @return array<string, mixed> as `cartella-core lineup` prints it */
    public function toArray(): array
    {
        return [
            'zero' => $this->zero,
            'lanes' => $this->lanes,
            'placements' => array_map(
                static fn(Placement $placement): array => [
                    'id' => $placement->id,
                    'start_ticks' => $placement->startTicks,
                    'way' => $placement->way->value,
                    'confidence' => $placement->confidence,
                    'sure' => $placement->sure,
                    'drift_ppm' => $placement->driftPpm,
                    'group' => $placement->group,
                    'evidence' => (object) $placement->evidence,
                ],
                $this->placements,
            ),
            'strays' => array_map(
                static fn(string $id, string $reason): array => ['id' => $id, 'reason' => $reason],
                array_map('strval', array_keys($this->strays)),
                $this->strays,
            ),
            'device_offsets' => (object) $this->deviceOffsets,
            'recorded_offsets' => (object) $this->recordedOffsets,
            'groups' => (object) $this->groups,
        ];
    }
}
