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

    /** The place in words, such as `line 12`; for people. */
    public function where(): string
    {
        $place = $this->line === null ? $this->path : "line $this->line";

        return $this->file === 1 ? $place : "file $this->file, $place";
    }
}
