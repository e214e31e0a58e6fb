<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/** By what a recording is known again when it comes from another place; times in ticks. */
final readonly class Traits
{
    /** @param  list<string>  $hashes  of its files in their order, each as `algorithm:hash`; empty where nobody took them */
    public function __construct(
        public string $name,
        public array $hashes = [],
        public ?string $reel = null,
        public ?int $startTicks = null,
        public ?int $durationTicks = null,
    ) {}

    /** What two recordings have alike that are found by a way; null where this one does not say it. */
    public function key(FoundBy $by): ?string
    {
        $key = match ($by) {
            FoundBy::Hash => $this->hashes === [] ? null : $this->hashes,
            FoundBy::Timecode => $this->reel === null || $this->startTicks === null || $this->durationTicks === null
                ? null
                : [mb_strtolower(trim($this->reel)), $this->startTicks, $this->durationTicks],
            FoundBy::Name => $this->durationTicks === null ? null : [mb_strtolower($this->name), $this->durationTicks],
        };

        return $key === null ? null : json_encode($key, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);
    }
}
