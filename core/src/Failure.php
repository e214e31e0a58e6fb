<?php

declare(strict_types=1);

namespace Cartella\Core;

/**
 * What all failures of the core share: a code, a sentence, a next step and the facts.
 *
 * The named factories of the classes below it write the sentences.
 */
abstract class Failure extends \RuntimeException implements CartellaException
{
    /** @param  array<string, scalar|null>  $facts */
    final protected function __construct(
        string $message,
        private readonly string $problemCode,
        private readonly string $fix,
        private readonly array $facts = [],
        ?\Throwable $previous = null,
    ) {
        parent::__construct($message, 0, $previous);
    }

    public function problemCode(): string
    {
        return $this->problemCode;
    }

    public function fix(): string
    {
        return $this->fix;
    }

    public function context(): array
    {
        return $this->facts;
    }

    /** Foreign text made fit to quote: at most 60 bytes of valid UTF-8 without control characters. */
    final public static function quote(string $text): string
    {
        $clean = mb_scrub(mb_strcut(mb_scrub($text, 'UTF-8'), 0, 60, 'UTF-8'), 'UTF-8');

        return (string) preg_replace('/[\x00-\x1F\x7F]/', '?', $clean);
    }
}
