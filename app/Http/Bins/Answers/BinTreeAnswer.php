<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** Every bin of a production: those that fill themselves, and those that people made. */
final readonly class BinTreeAnswer
{
    /**
     * @param  list<BinEntryAnswer>  $scenes
     * @param  list<BinEntryAnswer>  $imports
     * @param  list<BinEntryAnswer>  $own
     */
    public function __construct(public array $scenes, public array $imports, public array $own) {}

    /** @param  array{scenes: list<array<string, mixed>>, imports: list<array<string, mixed>>, own: list<array<string, mixed>>}  $tree */
    public static function of(array $tree): self
    {
        $entries = static fn(array $some): array => array_map(static fn(array $one): BinEntryAnswer => new BinEntryAnswer(...$one), $some);

        return new self($entries($tree['scenes']), $entries($tree['imports']), $entries($tree['own']));
    }
}
