<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use Cartella\Core\Slate\Slate;

/** Which take a clip belongs to as the line-up sees it, or which ones with which stretch of it. */
final readonly class TakeChoice
{
    /**
     * @param  list<array{slate: Slate, from: int|null, to: int|null}>  $parts  ticks from the clip's first frame; null for its own ends
     * @param  string  $from  the source: `ixml`, `name` or `lineup`
     * @param  list<array{from: string, where: string, setup: string, take: int, part: string}>  $claims  what each source says
     */
    public function __construct(public array $parts, public string $from, public array $claims = []) {}

    public static function none(): self
    {
        return new self([], '');
    }

    /** @param  list<array{from: string, where: string, setup: string, take: int, part: string}>  $claims */
    public static function whole(Slate $slate, string $from, array $claims): self
    {
        return new self([['slate' => $slate, 'from' => null, 'to' => null]], $from, $claims);
    }

    /** In the words of {@see \App\Models\Clip::slates()}. */
    public function label(): ?string
    {
        $labels = array_values(array_unique(array_map(static fn(array $part): string => $part['slate']->label(), $this->parts)));

        return match (count($labels)) {
            0 => null,
            1 => $labels[0],
            default => $labels[0] . ' to ' . $labels[count($labels) - 1],
        };
    }

    /** @return list<string> */
    public function labels(): array
    {
        return array_map(static fn(array $part): string => $part['slate']->label(), $this->parts);
    }

    public function isSplit(): bool
    {
        return count($this->parts) > 1;
    }
}
