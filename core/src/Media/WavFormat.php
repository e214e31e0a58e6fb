<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/** How samples lie in a WAV's data chunk: PCM 16/24/32 bit or float 32/64 bit, 1 to 64 channels interleaved. */
final readonly class WavFormat
{
    public const PCM = 1;

    public const FLOAT = 3;

    /**
     * @param  int  $encoding  {@see self::PCM} or {@see self::FLOAT}
     * @param  int  $channelMask  speaker positions of WAVE_FORMAT_EXTENSIBLE, 0 when none are given
     */
    public function __construct(
        public int $encoding,
        public int $channels,
        public int $sampleRate,
        public int $bits,
        public int $frameBytes,
        public int $channelMask,
    ) {}

    public function isReadable(): bool
    {
        return $this->channels >= 1 &&
            $this->channels <= 64 &&
            $this->sampleRate >= 1 &&
            $this->frameBytes === $this->channels * intdiv($this->bits, 8) &&
            in_array([$this->encoding, $this->bits], [[1, 16], [1, 24], [1, 32], [3, 32], [3, 64]], true);
    }
}
