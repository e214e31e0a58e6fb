<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * What a WAV file says of itself, and where its samples lie. Positions count bytes from 0.
 *
 * `$problems` lists, in plain sentences with their byte, what could not be read; all else is still given.
 */
final readonly class WavFile
{
    /**
     * @param  int  $dataBytes  bytes of whole sample frames that are really there, whatever the header claims
     * @param  array<string, int|float|string>|null  $bext  fields of EBU Tech 3285, `time_reference` in samples
     * @param  list<array{sample: int, label: string, length: int|null}>  $markers  from `cue ` and `LIST adtl`
     * @param  list<string>  $problems
     * @param  bool  $isWhole  no chunk claims more than the file holds
     */
    public function __construct(
        public string $path,
        public WavFormat $format,
        public int $dataOffset,
        public int $dataBytes,
        public ?array $bext,
        public ?Ixml $ixml,
        public array $markers,
        public array $problems,
        public bool $isWhole = true,
    ) {}

    /** Length in sample frames, one sample of every channel each. */
    public function frames(): int
    {
        return intdiv($this->dataBytes, $this->format->frameBytes);
    }
}
