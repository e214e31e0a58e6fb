<?php

declare(strict_types=1);

namespace Cartella\Core;

/** Text that is no XML, or that declares a document type: what may open files or grow without bound is never read. */
final class UnableToReadXml extends Failure
{
    public static function because(string $why): self
    {
        return new self(
            "The XML was not read: $why.",
            'xml.refused',
            'Have the program that wrote it write it again, without a document type.',
            ['reason' => $why],
        );
    }

    /** The reason alone, to stand in another sentence. */
    public function reason(): string
    {
        return (string) $this->context()['reason'];
    }
}
