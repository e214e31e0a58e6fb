<?php

declare(strict_types=1);

namespace Cartella\Core;

/** Marks every failure that the core throws on purpose; the message is one plain sentence, safe to show. */
interface CartellaException extends \Throwable
{
    /** A stable code such as `timecode.invalid`, the same in the command's JSON and in the interface. */
    public function problemCode(): string;

    /** What the reader can do next, one sentence. */
    public function fix(): string;

    /** @return array<string, scalar|null> the facts of the failure */
    public function context(): array;
}
