<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

use Cartella\Core\Custody\HashAlgorithm;

/**
 * Reads what was written to one destination back in processes of their own, so that reading and copying go on together,
 * and past the page cache where the file system allows it. There are two, because one that hashes leaves the disk idle.
 * When a process is gone, its files are read here instead.
 *
 * @internal
 */
final class ReadBack
{
    private const HELPERS = 2;

    /** @var array<int, resource> helpers that live, by their number */
    private array $processes = [];

    /** @var array<int, array<int, resource>> */
    private array $pipes = [];

    /** @var list<array{string, HashAlgorithm, int}> asked for and not answered yet, in order, with the helper that was asked */
    private array $waiting = [];

    private int $asked = 0;

    /** Whether every file so far was read from the medium itself; null before the first. */
    public ?bool $isFromMedium = null;

    /** @param  list<string>|null  $command  the program that reads; the one that ships with the core by default */
    public function __construct(?array $command = null)
    {
        // The extension is asked for by its file, since a bare PHP would complain on the answer's own pipe where it is missing.
        $hasFfi = is_file(ini_get('extension_dir') . '/ffi.so');
        $command ??= [
            PHP_BINARY,
            '-n',
            ...$hasFfi ? ['-d', 'extension=ffi', '-d', 'ffi.enable=1'] : [],
            dirname(__DIR__, 3) . '/bin/read-back.php',
        ];
        for ($helper = 0; $helper < self::HELPERS; $helper++) {
            $process = @proc_open($command, [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
            if (is_resource($process)) {
                $this->processes[$helper] = $process;
                $this->pipes[$helper] = $pipes;
            }
        }
    }

    /** Asks for a file's checksum; {@see answer} gives them in the order in which they were asked for. */
    public function ask(string $file, HashAlgorithm $algorithm): void
    {
        $helper = $this->asked++ % self::HELPERS;
        $this->waiting[] = [$file, $algorithm, $helper];
        if (
            isset($this->processes[$helper]) &&
            @fwrite($this->pipes[$helper][0], json_encode([$algorithm->value, base64_encode($file)]) . "\n") === false
        ) {
            $this->endOf($helper);
        }
    }

    /** The checksum of the file that was asked for first; null when it cannot be read to its end. */
    public function answer(): ?string
    {
        [$file, $algorithm, $helper] = array_shift($this->waiting) ?? throw new \LogicException('No file was asked for.');
        $line = isset($this->processes[$helper]) ? fgets($this->pipes[$helper][1]) : false;
        if ($line === false) {
            $this->endOf($helper);
            [$checksum, $from] = MediumHash::of($file, $algorithm->value);
        } else {
            [$checksum, $from] = explode(' ', trim($line)) + [1 => ''];
        }
        if ($checksum === null || $checksum === '') {
            return null;
        }
        $this->isFromMedium = $this->isFromMedium !== false && $from === 'medium';

        return $checksum;
    }

    public function end(): void
    {
        foreach (array_keys($this->processes) as $helper) {
            $this->endOf($helper);
        }
    }

    private function endOf(int $helper): void
    {
        if (!isset($this->processes[$helper])) {
            return;
        }
        array_map(fclose(...), array_slice($this->pipes[$helper], 0, 2));
        proc_terminate($this->processes[$helper]);
        proc_close($this->processes[$helper]);
        unset($this->processes[$helper], $this->pipes[$helper]);
    }
}
