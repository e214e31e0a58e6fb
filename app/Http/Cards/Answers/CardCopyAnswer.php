<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A copy of a card on a store. */
final readonly class CardCopyAnswer
{
    /**
     * @param  'medium'|'cache'|null  $read_from
     * @param  array{missing: list<string>, altered: list<string>, new: list<string>, renamed: list<array{from: string,
     *     to: string}>, problems: list<string>}|null  $differences
     */
    public function __construct(
        public string $store,
        public string $path,
        public ?string $manifest,
        public bool $is_whole,
        public ?string $checked_at,
        public ?string $read_from,
        public ?array $differences,
    ) {}
}
