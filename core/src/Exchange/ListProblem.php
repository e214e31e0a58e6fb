<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange;

/** What of a list could not be read as it stands: where, and why. The rest of the list is read. */
final readonly class ListProblem
{
    /**
     * @param  int|null  $line  of a text, from 1
     * @param  string  $path  of the place in a tree, such as `tracks.0.children.3`; empty in a text
     * @param  int  $file  of several that one list goes over, from 1
     */
    public function __construct(public string $reason, public ?int $line = null, public string $path = '', public int $file = 1) {}

    /** @return array{file?: int, line?: int, path?: string, reason: string} */
    public function toArray(): array
    {
        return [
            ...$this->file === 1 ? [] : ['file' => $this->file],
            ...$this->line === null ? [] : ['line' => $this->line],
            ...$this->path === '' ? [] : ['path' => $this->path],
            'reason' => $this->reason,
        ];
    }

    /** @param  array{file?: int, line?: int, path?: string, reason?: string}  $array  as {@see self::toArray} makes it */
    public static function fromArray(array $array): self
    {
        return new self($array['reason'] ?? '', $array['line'] ?? null, $array['path'] ?? '', $array['file'] ?? 1);
    }

    /** The place in words, such as `line 12` or `track 1, item 4`; for people. */
    public function where(): string
    {
        $place = $this->line === null ? self::words($this->path) : "line $this->line";

        return $this->file === 1 ? $place : "file $this->file, $place";
    }

    /** People count from one, and what a tree calls children they know as its timelines, tracks and items. */
    private static function words(string $path): string
    {
        $parts = explode('.', $path);
        $words = [];
        for ($at = 0; $at < count($parts); $at++) {
            $next = $parts[$at + 1] ?? '';
            if (!ctype_digit($next)) {
                $parts[$at] === 'tracks' || ($words[] = str_replace('_', ' ', $parts[$at]));

                continue;
            }
            $what = match (true) {
                $parts[$at] !== 'children' => rtrim($parts[$at], 's'),
                $at === 0 => 'timeline',
                ($parts[$at - 1] ?? '') === 'tracks' => 'track',
                default => 'item',
            };
            $words[] = $what . ' ' . ((int) $next + 1);
            $at++;
        }

        return implode(', ', $words);
    }
}
