<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

/**
 * What goes to the editing team, and how: days, bins, cuts and takes by their ULIDs and keys; or, with `isSince`, all that is new
 * or changed since what was accepted.
 */
final readonly class PackageChoice
{
    public const PICTURES = ['proxies', 'originals', 'both', 'none'];

    public const SOUNDS = ['recorded', 'split', 'mix', 'none'];

    public const LISTS = ['otio', 'edl', 'aaf', 'words'];

    public const FOLDERS = ['flat', 'day', 'scene', 'device'];

    /**
     * @param  list<string>  $days
     * @param  list<string>  $bins
     * @param  list<string>  $sequences
     * @param  list<string>  $takes
     * @param  'proxies'|'originals'|'both'|'none'  $picture
     * @param  'recorded'|'split'|'mix'|'none'  $sound
     * @param  list<'otio'|'edl'|'aaf'|'words'>  $lists
     * @param  list<string>|null  $columns  of the log, by their headings; null for all
     * @param  list<array{day: string, point: string, title: string, reason: string, by: string, at: string}>  $waived
     * @param  'flat'|'day'|'scene'|'device'  $folders  by which media lie in folders of their own
     * @param  string  $pattern  of the names of media, as clips are named; empty for roll and name
     */
    public function __construct(
        public array $days,
        public array $bins,
        public array $sequences = [],
        public array $takes = [],
        public bool $isSince = false,
        public string $picture = 'proxies',
        public string $sound = 'recorded',
        public bool $mixes = true,
        public array $lists = self::LISTS,
        public ?array $columns = null,
        public array $waived = [],
        public string $folders = 'flat',
        public string $pattern = '',
    ) {}

    /** @param  array<string, mixed>  $kept  of a hand-off; one that was made before there was a choice has days and bins only */
    public static function fromArray(array $kept): self
    {
        return new self(
            $kept['days'] ?? [],
            $kept['bins'] ?? [],
            $kept['sequences'] ?? [],
            $kept['takes'] ?? [],
            (bool) ($kept['since'] ?? false),
            $kept['picture'] ?? 'proxies',
            $kept['sound'] ?? 'recorded',
            (bool) ($kept['mixes'] ?? true),
            $kept['lists'] ?? self::LISTS,
            $kept['columns'] ?? null,
            $kept['waived'] ?? [],
            $kept['folders'] ?? 'flat',
            (string) ($kept['pattern'] ?? ''),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'days' => $this->days,
            'bins' => $this->bins,
            'sequences' => $this->sequences,
            'takes' => $this->takes,
            'since' => $this->isSince,
            'picture' => $this->picture,
            'sound' => $this->sound,
            'mixes' => $this->mixes,
            'lists' => $this->lists,
            'columns' => $this->columns,
            'waived' => $this->waived,
            'folders' => $this->folders,
            'pattern' => $this->pattern,
        ];
    }

    /** @param  list<array{day: string, point: string, title: string, reason: string, by: string, at: string}>  $waived */
    public function waiving(array $waived): self
    {
        return self::fromArray(['waived' => $waived] + $this->toArray());
    }

    public function isEmpty(): bool
    {
        return !$this->isSince && $this->days === [] && $this->bins === [] && $this->sequences === [] && $this->takes === [];
    }

    public function hasProxies(): bool
    {
        return $this->picture === 'proxies' || $this->picture === 'both';
    }

    public function hasOriginals(): bool
    {
        return $this->picture === 'originals' || $this->picture === 'both';
    }
}
