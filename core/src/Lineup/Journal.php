<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

/**
 * What a line-up has compared so far, in a file of JSON lines, one for each clip that was looked at: a run that was
 * killed reads it and goes on where it was.
 *
 * A line that was cut off while it was written counts for nothing. The first line says what the run is about; a journal
 * of anything else is begun anew. Places are ticks, as in {@see SoundMatch}.
 */
final class Journal
{
    /** Counted up when a line holds something else. */
    private const FORMAT = 1;

    /** @var array<string, array{pairs: list<string>, compared: array<string, SoundMatch|null>}> by what was looked at */
    private array $known = [];

    /** @param  resource  $file */
    private function __construct(private $file) {}

    /**
     * @param  string  $about  the same for runs over the same clips in the same way
     *
     * @throws \RuntimeException if the file cannot be written
     */
    public static function open(string $path, string $about): self
    {
        $file = @fopen($path, 'c+b');
        if ($file === false) {
            throw new \RuntimeException("$path cannot be written.");
        }
        $journal = new self($file);
        $journal->read(hash('xxh128', self::FORMAT . "\n$about"));

        return $journal;
    }

    /** @return array{pairs: list<string>, compared: array<string, SoundMatch|null>}|null null for what has not been looked at */
    public function of(string $step): ?array
    {
        return $this->known[$step] ?? null;
    }

    /**
     * @param  list<string>  $pairs
     * @param  array<string, SoundMatch|null>  $compared  by pair
     */
    public function keep(string $step, array $pairs, array $compared): void
    {
        $line = json_encode(
            [
                'step' => $step,
                'pairs' => $pairs,
                'compared' => array_map(
                    static fn(?SoundMatch $match): ?array => $match === null ? null : get_object_vars($match),
                    $compared,
                ),
            ],
            JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION,
        );
        fwrite($this->file, $line . "\n");
        fflush($this->file);
    }

    private function read(string $about): void
    {
        $good = 0;
        if (trim((string) fgets($this->file)) === $about) {
            $good = (int) ftell($this->file);
            while (($line = fgets($this->file)) !== false && str_ends_with($line, "\n")) {
                $kept = json_decode($line, true);
                if (!is_array($kept)) {
                    break;
                }
                $this->known[(string) $kept['step']] = [
                    'pairs' => $kept['pairs'],
                    'compared' => array_map(
                        static fn(?array $match): ?SoundMatch => $match === null ? null : new SoundMatch(...$match),
                        $kept['compared'],
                    ),
                ];
                $good = (int) ftell($this->file);
            }
        }
        // What comes next stands behind what can be read.
        ftruncate($this->file, $good);
        fseek($this->file, $good);
        if ($good === 0) {
            fwrite($this->file, $about . "\n");
        }
    }
}
