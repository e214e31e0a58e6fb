<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** A take as the sheet shows it; fields that the production added stand beside the others under their own keys. */
final readonly class TakeRowAnswer implements \JsonSerializable
{
    /**
     * @param  'none'|'circled'|'hold'|'ng'  $status
     * @param  list<string>  $absent_devices
     * @param  list<string>  $missed
     * @param  list<array{from: string, where: string, setup: string, take: int, part: string}>  $claims
     * @param  list<DisputeAnswer>  $disputes
     * @param  list<LogClipAnswer>  $clips
     * @param  array<string, string|bool>  $own  by key, `own:lens`
     * @param  string|null  $said_by  the script supervisor's file, where the row is as that says
     */
    public function __construct(
        public string $ulid,
        public string $scene,
        public string $setup,
        public int $take,
        public string $part,
        public string $name,
        public string $description,
        public string $size,
        public int $width,
        public string $status,
        public string $notes,
        public string $keywords,
        public bool $is_mos,
        public bool $is_tail_slate,
        public bool $is_wild,
        public bool $is_guide_only,
        public bool $is_pickup,
        public bool $is_false_start,
        public array $absent_devices,
        public array $missed,
        public array $claims,
        #[ListOf(DisputeAnswer::class)] public array $disputes,
        public ?string $said_by,
        public string $screening,
        #[ListOf(LogClipAnswer::class)] public array $clips,
        public string $sync,
        private array $own = [],
    ) {}

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        $facts = get_object_vars($this);
        unset($facts['own']);

        return $facts + $this->own;
    }
}
