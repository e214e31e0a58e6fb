<?php

declare(strict_types=1);

namespace Cartella\Standins;

/**
 * Stands in for card readers: puts simulated cards on the bench and takes them off. A card appears whole, as a mounted
 * volume does, and the application has no way to tell it from a real one.
 */
final class CardBench
{
    /**
     * @param  string  $library  folder with a folder for each card that can be inserted
     * @param  string  $bench  folder that the application watches
     */
    public function __construct(private readonly string $library, private readonly string $bench)
    {
    }

    /** @return list<string> */
    public function cards(): array
    {
        return array_values(array_filter(@scandir($this->library) ?: [], fn (string $name): bool => $name[0] !== '.' && is_dir($this->library.'/'.$name)));
    }

    public function insert(string $card): void
    {
        if (! in_array($card, $this->cards(), true)) {
            throw new \InvalidArgumentException("There is no card $card. Cards: ".implode(', ', $this->cards()));
        }
        if (is_dir($this->bench.'/'.$card)) {
            return;
        }
        $hidden = $this->bench.'/.inserting-'.$card;
        self::remove($hidden);
        self::copy($this->library.'/'.$card, $hidden);
        rename($hidden, $this->bench.'/'.$card);
    }

    public function eject(string $card): void
    {
        if (basename($card) !== $card || $card === '' || $card[0] === '.' || ! is_dir($this->bench.'/'.$card)) {
            return;
        }
        $hidden = $this->bench.'/.ejecting-'.$card;
        rename($this->bench.'/'.$card, $hidden);
        self::remove($hidden);
    }

    /** Links where the file system allows it, so that a card takes no room of its own. */
    private static function copy(string $from, string $to): void
    {
        mkdir($to, 0777, true);
        foreach (new \FilesystemIterator($from, \FilesystemIterator::SKIP_DOTS) as $entry) {
            $target = $to.'/'.$entry->getFilename();
            if ($entry->isDir() && ! $entry->isLink()) {
                self::copy($entry->getPathname(), $target);
            } elseif (! @link($entry->getPathname(), $target)) {
                copy($entry->getPathname(), $target);
                touch($target, $entry->getMTime());
            }
        }
    }

    private static function remove(string $folder): void
    {
        if (! is_dir($folder)) {
            return;
        }
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS), \RecursiveIteratorIterator::CHILD_FIRST) as $entry) {
            $entry->isDir() && ! $entry->isLink() ? rmdir($entry->getPathname()) : unlink($entry->getPathname());
        }
        rmdir($folder);
    }
}
