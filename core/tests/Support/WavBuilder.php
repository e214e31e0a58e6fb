<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Support;

/** Writes a WAV with just the chunks asked for, well-formed or broken on purpose. */
final class WavBuilder
{
    /** @var list<array{string, string}> */
    private array $chunks = [];

    private string $outer = 'RIFF';

    private ?int $dataSizeClaimed = null;

    private function __construct() {}

    /** PCM of zeros unless samples are given. */
    public static function pcm(int $frames, int $channels = 1, int $bits = 24, int $rate = 48000, ?string $samples = null): self
    {
        $builder = new self();
        $block = $channels * intdiv($bits, 8);
        $builder->chunks[] = ['fmt ', pack('vvVVvv', 1, $channels, $rate, $rate * $block, $block, $bits)];
        $builder->chunks[] = ['data', $samples ?? str_repeat("\0", $frames * $block)];

        return $builder;
    }

    public function with(string $name, string $content): self
    {
        array_splice($this->chunks, -1, 0, [[$name, $content]]);

        return $this;
    }

    public function withBext(int $timeReference, string $date = '2026-10-05', string $time = '09:12:10'): self
    {
        return $this->with(
            'bext',
            pack('a256a32a32a10a8P', 'described', 'Recorder', 'REF', $date, $time, $timeReference) . pack('v', 1) . str_repeat("\0", 254),
        );
    }

    public function withIxml(string $inner): self
    {
        return $this->with('iXML', '<?xml version="1.0" encoding="UTF-8"?><BWFXML>' . $inner . '</BWFXML>');
    }

    /** As RF64 (EBU Tech 3306): 32-bit sizes are -1, the true ones stand in `ds64`. */
    public function asRf64(string $outer = 'RF64'): self
    {
        $this->outer = $outer;
        $data = strlen(end($this->chunks)[1]);
        array_unshift($this->chunks, ['ds64', pack('PPPV', 0, $data, 0, 0)]);
        $this->dataSizeClaimed = 0xffffffff;

        return $this;
    }

    public function claimingDataBytes(int $bytes): self
    {
        $this->dataSizeClaimed = $bytes;

        return $this;
    }

    public function bytes(): string
    {
        $body = '';
        foreach ($this->chunks as [$name, $content]) {
            $size = $name === 'data' ? $this->dataSizeClaimed ?? strlen($content) : strlen($content);
            $body .= $name . pack('V', $size) . $content . (strlen($content) % 2 === 1 ? "\0" : '');
        }

        return $this->outer . pack('V', $this->outer === 'RIFF' ? 4 + strlen($body) : 0xffffffff) . 'WAVE' . $body;
    }

    public function write(string $path): string
    {
        file_put_contents($path, $this->bytes());

        return $path;
    }
}
