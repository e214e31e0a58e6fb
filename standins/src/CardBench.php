<?php

declare(strict_types=1);

namespace Cartella\Standins;

/**
 * Stands in for card readers and for the volumes that copies go to: puts simulated cards on the bench and takes them
 * off, fills a volume up and pulls it out. A card appears whole, as a mounted volume does, and the application has no
 * way to tell it from a real one.
 */
final class CardBench
{
    private const FULL_VOLUME_MB = 12;

    /**
     * @param  string  $library  folder with a folder for each ordinary card that can be inserted
     * @param  string  $bench  folder that the application watches
     * @param  string|null  $store  the volume that can be filled up or pulled out
     */
    public function __construct(private readonly string $library, private readonly string $bench, private readonly ?string $store = null) {}

    /** @return list<string> */
    public function cards(): array
    {
        return array_values(
            array_filter(
                @scandir($this->library) ?: [],
                fn(string $name): bool => $name[0] !== '.' && is_dir($this->library . '/' . $name),
            ),
        );
    }

    /** @return list<string> names of volumes that were put into the readers here; a real one is never touched */
    public function inserted(): array
    {
        return array_values(
            array_filter(
                @scandir($this->bench) ?: [],
                fn(string $name): bool => $name[0] !== '.' && is_dir($this->bench . '/' . $name) && is_file($this->note($name)),
            ),
        );
    }

    /** Beside a volume, and not on it: that this stand-in put it there. */
    private function note(string $volume): string
    {
        return $this->bench . '/.standin-' . $volume;
    }

    /** @param  string  $card  an ordinary card's name, or the key of a special one */
    public function insert(string $card): void
    {
        $special = SpecialCards::CARDS[$card] ?? null;
        if ($special === null && !in_array($card, $this->cards(), true)) {
            throw new \InvalidArgumentException(
                "There is no card $card. Cards: " . implode(', ', [...$this->cards(), ...array_keys(SpecialCards::CARDS)]),
            );
        }
        $volume = $special[0] ?? $card;
        if (is_dir($this->bench . '/' . $volume)) {
            if ($special === null) {
                return;
            }
            throw new \InvalidArgumentException("A volume named $volume is in a reader already. Eject it first.");
        }
        $made = dirname($this->library) . '/special';
        $from = $special === null ? $this->library . '/' . $card : (new SpecialCards($this->library, $made))->make($card);
        $this->handOver($made);
        $hidden = $this->bench . '/.inserting-' . $volume;
        self::remove($hidden);
        touch($this->note($volume));
        $this->handOver($this->note($volume));
        if (is_file($from)) {
            mkdir($hidden);
            $this->handOver($hidden);
            rename($hidden, $this->bench . '/' . $volume);
            try {
                self::run(
                    ['squashfuse', '-o', self::isRoot() ? 'ro,allow_other' : 'ro', $from, $this->bench . '/' . $volume],
                    "This machine lets root alone mount the card: sudo standins/bench insert $card",
                );
            } catch (\InvalidArgumentException $trouble) {
                rmdir($this->bench . '/' . $volume);
                unlink($this->note($volume));
                throw $trouble;
            }

            return;
        }
        self::copy($from, $hidden);
        if ($card === 'still-recording') {
            // Its own file, or the library's would grow as well.
            $growing = $hidden . '/A011C002.mov';
            rename($growing, $growing . '.was');
            copy($growing . '.was', $growing);
            unlink($growing . '.was');
        }
        $this->handOver($hidden);
        rename($hidden, $this->bench . '/' . $volume);
        if ($card === 'still-recording') {
            proc_close(
                proc_open(
                    [
                        'setsid',
                        '--fork',
                        PHP_BINARY,
                        dirname(__DIR__) . '/keeps-recording.php',
                        $this->bench . '/' . $volume . '/A011C002.mov',
                    ],
                    [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
                    $pipes,
                ),
            );
        }
    }

    /** @param  string  $card  a volume's name, or the key of a special card */
    public function eject(string $card): void
    {
        $volume = SpecialCards::CARDS[$card][0] ?? $card;
        $folder = $this->bench . '/' . $volume;
        if (basename($volume) !== $volume || $volume === '' || $volume[0] === '.' || !is_dir($folder) || !is_file($this->note($volume))) {
            return;
        }
        if (self::isMounted($folder)) {
            self::run(self::isRoot() ? ['umount', $folder] : ['fusermount3', '-u', $folder], "$volume is in use; try again in a moment.");
            rmdir($folder);
            unlink($this->note($volume));

            return;
        }
        $hidden = $this->bench . '/.ejecting-' . $volume;
        self::remove($hidden);
        rename($folder, $hidden);
        self::remove($hidden);
        unlink($this->note($volume));
    }

    /** @return 'there'|'full'|'gone' */
    public function storeState(): string
    {
        return match (true) {
            $this->store === null || !is_dir($this->store) => 'gone',
            self::isMounted($this->store) => 'full',
            default => 'there',
        };
    }

    /**
     * Puts a nearly full volume in the place of the store's, pulls it out, or puts the real one back.
     *
     * @param  'there'|'full'|'gone'  $state
     */
    public function setStore(string $state): void
    {
        $store = $this->store ?? throw new \InvalidArgumentException('No volume is named that could be changed.');
        $aside = dirname($store) . '/.' . basename($store) . '-pulled-out';
        if (self::isMounted($store)) {
            self::run(['umount', $store], 'The volume is in use; try again in a moment.');
        }
        if (!is_dir($store) && is_dir($aside)) {
            rename($aside, $store);
        }
        if ($state === 'full') {
            $marker = (string) @file_get_contents($store . '/.cartella-store');
            self::run(
                ['mount', '-t', 'tmpfs', '-o', 'size=' . self::FULL_VOLUME_MB . 'm', 'cartella-standin', $store],
                'Root alone can put a full volume there: sudo standins/bench store full',
            );
            // It is the same volume to the desk, only that it is full.
            file_put_contents($store . '/.cartella-store', $marker);
        } elseif ($state === 'gone' && is_dir($store)) {
            rename($store, $aside);
        }
    }

    /** Links where the file system allows it, so that a card takes no room of its own; or real copies. */
    public static function copy(string $from, string $to, bool $really = false): void
    {
        is_dir($to) || mkdir($to, 0777, true);
        foreach (new \FilesystemIterator($from, \FilesystemIterator::SKIP_DOTS) as $entry) {
            $target = $to . '/' . $entry->getFilename();
            if ($entry->isLink()) {
                symlink((string) readlink($entry->getPathname()), $target);
            } elseif ($entry->isDir()) {
                self::copy($entry->getPathname(), $target, $really);
            } elseif ($really || !@link($entry->getPathname(), $target)) {
                copy($entry->getPathname(), $target);
                touch($target, $entry->getMTime());
            }
        }
    }

    public static function remove(string $folder): void
    {
        if (!is_dir($folder)) {
            return;
        }
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS),
                \RecursiveIteratorIterator::CHILD_FIRST,
            )
            as $entry
        ) {
            $entry->isDir() && !$entry->isLink() ? rmdir($entry->getPathname()) : unlink($entry->getPathname());
        }
        rmdir($folder);
    }

    /** What root made for the desk belongs to the account that the desk runs as, which reads it and takes it away again. */
    private function handOver(string $path): void
    {
        if (!self::isRoot() || !file_exists($path)) {
            return;
        }
        [$user, $group] = [(int) fileowner($this->bench), (int) filegroup($this->bench)];
        $all = is_dir($path)
            ? iterator_to_array(
                new \RecursiveIteratorIterator(
                    new \RecursiveDirectoryIterator($path, \FilesystemIterator::SKIP_DOTS | \FilesystemIterator::CURRENT_AS_PATHNAME),
                    \RecursiveIteratorIterator::SELF_FIRST,
                ),
                false,
            )
            : [];
        foreach ([$path, ...$all] as $one) {
            lchown($one, $user);
            lchgrp($one, $group);
        }
    }

    private static function isRoot(): bool
    {
        return function_exists('posix_geteuid') && posix_geteuid() === 0;
    }

    private static function isMounted(string $folder): bool
    {
        $folder = (string) realpath($folder);
        foreach (@file('/proc/self/mounts') ?: [] as $line) {
            if (stripcslashes(explode(' ', $line)[1]) === $folder) {
                return true;
            }
        }

        return false;
    }

    /** @param  list<string>  $command */
    private static function run(array $command, string $otherwise): void
    {
        $process = @proc_open($command, [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']], $pipes);
        if (!is_resource($process) || proc_close($process) !== 0) {
            throw new \InvalidArgumentException($otherwise);
        }
    }
}
