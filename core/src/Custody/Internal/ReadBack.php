<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

use Cartella\Core\Custody\HashAlgorithm;

/**
 * Reads what was written to one destination back in a process of its own, so that reading and copying go on together,
 * and past the page cache where the file system allows it. When that process is gone, files are read here instead.
 *
 * @internal
 */
final class ReadBack
{
    /** @var resource|null */
    private $process;

    /** @var array<int, resource> */
    private array $pipes = [];

    /** @var list<array{string, HashAlgorithm}> asked for and not answered yet, in order */
    private array $waiting = [];

    /** Whether every file so far was read from the medium itself; null before the first. */
    public ?bool $isFromMedium = null;

    /** @param  list<string>|null  $command  the program that reads; the one that ships with the core by default */
    public function __construct(?array $command = null)
    {
        // The extension is asked for by its file, since a bare PHP would complain on the answer's own pipe where it is missing.
        $hasFfi = is_file(ini_get('extension_dir').'/ffi.so');
        $command ??= [PHP_BINARY, '-n', ...($hasFfi ? ['-d', 'extension=ffi', '-d', 'ffi.enable=1'] : []), dirname(__DIR__, 3).'/bin/read-back.php'];
        $process = @proc_open($command, [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $this->pipes);
        $this->process = is_resource($process) ? $process : null;
    }

    /** Asks for a file's checksum; {@see answer} gives them in the order in which they were asked for. */
    public function ask(string $file, HashAlgorithm $algorithm): void
    {
        $this->waiting[] = [$file, $algorithm];
        if ($this->process !== null && @fwrite($this->pipes[0], json_encode([$algorithm->value, base64_encode($file)])."\n") === false) {
            $this->end();
        }
    }

    /** The checksum of the file that was asked for first; null when it cannot be read to its end. */
    public function answer(): ?string
    {
        [$file, $algorithm] = array_shift($this->waiting) ?? throw new \LogicException('No file was asked for.');
        $line = $this->process === null ? false : fgets($this->pipes[1]);
        if ($line === false) {
            $this->end();
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
        if ($this->process === null) {
            return;
        }
        fclose($this->pipes[0]);
        fclose($this->pipes[1]);
        proc_terminate($this->process);
        proc_close($this->process);
        $this->process = null;
    }
}
