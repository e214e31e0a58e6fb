<?php

declare(strict_types=1);

namespace Cartella\Core;

/**
 * Runs an outside program from an argument list, never through a shell, with a limit of seconds and of output.
 *
 * Standard input is closed, and of the environment it gets only where programs lie: no secret of ours. What the program says on its error
 * output is kept to the last 4 KiB.
 */
final class Process
{
    /**
     * @param  list<string>  $command
     * @param  callable(string): void|null  $onOutput  gets the output in pieces; without it the output is returned
     * @param  int  $limitSeconds  after which the program is killed
     * @return array{status: int, output: string, error: string} status -1 when it was killed or did not start
     */
    public static function run(array $command, ?callable $onOutput = null, int $limitSeconds = 600, int $outputLimit = 64 << 20): array
    {
        $process = @proc_open($command, [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes, null, self::environment());
        if (!is_resource($process)) {
            return ['status' => -1, 'output' => '', 'error' => $command[0] . ' could not be started'];
        }
        $deadline = hrtime(true) + $limitSeconds * 1_000_000_000;
        $output = $error = '';
        $open = [1 => $pipes[1], 2 => $pipes[2]];
        stream_set_blocking($pipes[1], false);
        stream_set_blocking($pipes[2], false);
        $status = null;
        try {
            while ($open !== []) {
                $ready = $open;
                $none = null;
                if (@stream_select($ready, $none, $none, 1) === false) {
                    continue; // a signal came in between
                }
                foreach ($ready as $index => $pipe) {
                    $piece = fread($pipe, 1 << 18);
                    if ($piece === '' || $piece === false) {
                        if (feof($pipe)) {
                            unset($open[$index]);
                        }

                        continue;
                    }
                    if ($index === 2) {
                        $error = substr($error . $piece, -4096);
                    } elseif ($onOutput !== null) {
                        $onOutput($piece);
                    } else {
                        $output .= $piece;
                    }
                }
                if (hrtime(true) > $deadline || strlen($output) > $outputLimit) {
                    $error = hrtime(true) > $deadline ? 'it took longer than ' . $limitSeconds . ' s' : 'it wrote too much';
                    $status = -1;
                    break;
                }
            }
        } finally {
            foreach ($pipes as $pipe) {
                fclose($pipe);
            }
            if ($status === -1) {
                proc_terminate($process, SIGKILL);
            }
            $code = proc_close($process);
        }

        return ['status' => $status ?? $code, 'output' => $output, 'error' => trim($error)];
    }

    /**
     * What stands before a program that opens files of others, so that it cannot take the machine down; lowest priority.
     *
     * @param  int  $memory  bytes of address space
     * @param  int  $output  bytes of one file that it writes
     * @return list<string> empty where the system lacks the programs that set them
     */
    public static function bounds(int $memory, int $output): array
    {
        static $isThere = null;
        $isThere ??= is_executable('/usr/bin/prlimit') && is_executable('/usr/bin/nice');

        return $isThere ? ['/usr/bin/nice', '-n', '10', '/usr/bin/prlimit', "--as=$memory", "--fsize=$output", '--core=0', '--'] : [];
    }

    /** @return array<string, string> */
    private static function environment(): array
    {
        return ['PATH' => getenv('PATH') ?: '/usr/bin:/bin', 'LANG' => 'C.UTF-8', 'HOME' => '/nonexistent', 'TMPDIR' => sys_get_temp_dir()];
    }

    /**
     * Runs a program while something else is done here. Its output is not kept.
     *
     * @template T
     * @param  list<string>  $command
     * @param  callable(): T  $meanwhile  where it throws, the program is killed
     * @param  int  $limitSeconds  after which the program is killed
     * @return array{status: int, error: string, meanwhile: T}
     */
    public static function beside(array $command, callable $meanwhile, int $limitSeconds = 3600): array
    {
        $said = tmpfile();
        $process = @proc_open($command, [['file', '/dev/null', 'r'], ['pipe', 'w'], $said], $pipes, null, self::environment());
        if (!is_resource($process)) {
            return ['status' => -1, 'error' => $command[0] . ' could not be started', 'meanwhile' => $meanwhile()];
        }
        $deadline = hrtime(true) + $limitSeconds * 1_000_000_000;
        $isDone = $isLate = false;
        try {
            $answer = $meanwhile();
            // Its output ends with it.
            stream_set_blocking($pipes[1], false);
            while (!$isDone && !$isLate) {
                $ready = [$pipes[1]];
                $none = null;
                @stream_select($ready, $none, $none, 1);
                fread($pipes[1], 8192);
                $isDone = feof($pipes[1]);
                $isLate = !$isDone && hrtime(true) > $deadline;
            }
        } finally {
            if (!$isDone) {
                proc_terminate($process, SIGKILL);
            }
            fclose($pipes[1]);
            $code = proc_close($process);
        }
        rewind($said);

        return [
            'status' => $isLate ? -1 : $code,
            'error' => $isLate ? "it took longer than $limitSeconds s" : trim(substr((string) stream_get_contents($said), -4096)),
            'meanwhile' => $answer,
        ];
    }

    /**
     * Runs several programs, a few at a time. Their output is not kept; what each says on its error output is, as with
     * {@see run}.
     *
     * @param  array<string, list<string>>  $commands
     * @param  int  $limitSeconds  for each
     * @return array<string, array{status: int, error: string}>
     */
    public static function several(array $commands, int $atOnce, int $limitSeconds = 3600): array
    {
        $running = $ended = [];
        while ($commands !== [] || $running !== []) {
            while ($commands !== [] && count($running) < $atOnce) {
                $key = (string) array_key_first($commands);
                $process = @proc_open(
                    $commands[$key],
                    [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['pipe', 'w']],
                    $pipes,
                    null,
                    self::environment(),
                );
                unset($commands[$key]);
                if (is_resource($process)) {
                    $running[$key] = [
                        'process' => $process,
                        'pipe' => $pipes[2],
                        'error' => '',
                        'deadline' => hrtime(true) + $limitSeconds * 1_000_000_000,
                    ];
                } else {
                    $ended[$key] = ['status' => -1, 'error' => 'it could not be started'];
                }
            }
            $ready = array_column($running, 'pipe');
            $none = null;
            if ($ready === [] || @stream_select($ready, $none, $none, 1) === false) {
                continue;
            }
            foreach ($running as $key => $one) {
                $piece = in_array($one['pipe'], $ready, true) ? (string) fread($one['pipe'], 8192) : '';
                $running[$key]['error'] = substr($one['error'] . $piece, -4096);
                $isLate = hrtime(true) > $one['deadline'];
                if ($isLate) {
                    proc_terminate($one['process'], SIGKILL);
                }
                if ($isLate || ($piece === '' && feof($one['pipe']))) {
                    fclose($one['pipe']);
                    $code = proc_close($one['process']);
                    $ended[$key] = $isLate
                        ? ['status' => -1, 'error' => 'it took longer than ' . $limitSeconds . ' s']
                        : ['status' => $code, 'error' => trim($running[$key]['error'])];
                    unset($running[$key]);
                }
            }
        }

        return $ended;
    }
}
