<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/**
 * What a look through a card found, without changing anything on it and without decoding.
 *
 * Dates and times are local, as the devices wrote them: `YYYY-MM-DD` and `YYYY-MM-DD HH:MM:SS`.
 */
final readonly class CardSurvey
{
    /**
     * @param  int  $clips  pictures and sounds
     * @param  int  $sounds  of the clips
     * @param  array{name: string, at: string|null}|null  $first  by date, or by name where no clip says one
     * @param  array{name: string, at: string|null}|null  $last
     * @param  array<string, int>  $dates  clips by date
     * @param  string  $fingerprint  of all paths and sizes: two cards with the same are the same card
     * @param  string  $state  of paths, sizes and times: another one means that the card was changed
     * @param  string|null  $report  the head of a text report at the card's top
     * @param  string|null  $tape  what the first recording with iXML calls its tape
     * @param  string|null  $project  what its recordings call the production
     * @param  list<array{kind: 'link'|'unreadable'|'empty'|'unfinished'|'metadata'|'twice'|'twin'|'name', path: string,
     *     text: string}>  $problems  the first ones
     * @param  int  $problemCount  all of them
     */
    public function __construct(
        public int $files,
        public int $bytes,
        public int $clips,
        public int $sounds,
        public ?array $first,
        public ?array $last,
        public array $dates,
        public string $fingerprint,
        public string $state,
        public ?string $report,
        public ?string $tape,
        public ?string $project,
        public array $problems,
        public int $problemCount,
    ) {}
}
