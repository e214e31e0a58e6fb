<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Models\StoredSequence;

/** By what a review reel is made, and made again: which takes, which of their pictures, from where on, in what order. */
final readonly class ReelRecipe
{
    /** Days, scenes or takes that a recipe names at most. */
    public const MOST = 2000;

    /**
     * @param  list<string>  $what  as `$from` says: ULIDs of days, names of scenes, the key of one bin, or ULIDs of takes
     * @param  string|null  $device  its letter, where one camera's pictures are wanted
     */
    public function __construct(
        public ReelFrom $from,
        public array $what,
        public bool $circledOnly,
        public ReelAngles $angles = ReelAngles::First,
        public ?string $device = null,
        public ReelOrder $order = ReelOrder::Slate,
        public ReelBegin $begin = ReelBegin::Slate,
    ) {}

    /** @param  array<string, mixed>  $asked  as pages write it and reels keep it; what is missing is as usual */
    public static function fromArray(array $asked): self
    {
        return new self(
            ReelFrom::from($asked['from']),
            array_values(array_map(strval(...), $asked['what'])),
            (bool) ($asked['circled_only'] ?? false),
            ReelAngles::from($asked['angles'] ?? ReelAngles::First->value),
            isset($asked['device']) ? (string) $asked['device'] : null,
            ReelOrder::from($asked['order'] ?? ReelOrder::Slate->value),
            ReelBegin::from($asked['begin'] ?? ReelBegin::Slate->value),
        );
    }

    /** @return self|null null for a sequence that nobody made by a recipe */
    public static function of(StoredSequence $reel): ?self
    {
        $kept = $reel->recipe;
        if ($kept === null) {
            return null;
        }

        // Reels from before there was a choice are of their day.
        return self::fromArray($kept + ['from' => ReelFrom::Days->value, 'what' => $reel->day === null ? [] : [$reel->day->ulid]]);
    }

    /**
     * @return array{from: string, what: list<string>, circled_only: bool, angles: string, device: string|null, order: string,
     *     begin: string}
     */
    public function toArray(): array
    {
        return [
            'from' => $this->from->value,
            'what' => $this->what,
            'circled_only' => $this->circledOnly,
            'angles' => $this->angles->value,
            'device' => $this->device,
            'order' => $this->order->value,
            'begin' => $this->begin->value,
        ];
    }

    /** As a sentence says it, without where the takes come from. */
    public function words(): string
    {
        return implode(', ', [
            $this->circledOnly ? 'circled takes' : 'all takes',
            $this->angles->words($this->device),
            'each ' . $this->begin->words(),
            $this->order->words(),
        ]);
    }
}
