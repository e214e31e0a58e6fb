<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

use App\Domain\Bins\BinTree;
use App\Models\Preference;

/** Every bin of a production: those that fill themselves, and those that people made; and how one person looks at them. */
final readonly class BinTreeAnswer
{
    /**
     * @param  list<BinGroupAnswer>  $groups
     * @param  list<BinEntryAnswer>  $own
     * @param  array<string, string>  $known_groups  every group that the tree can show, by key
     * @param  array<string, BinArrangementAnswer>  $views  by the key of the bin
     */
    public function __construct(public array $groups, public array $own, public array $known_groups, public array $views) {}

    /**
     * @param  array{groups: list<array{key: string, name: string, bins: list<array<string, mixed>>}>,
     *     own: list<array<string, mixed>>}  $tree
     * @param  iterable<Preference>  $views
     */
    public static function of(array $tree, iterable $views): self
    {
        $entries = static fn(array $some): array => array_map(static fn(array $one): BinEntryAnswer => new BinEntryAnswer(...$one), $some);
        $kept = [];
        foreach ($views as $view) {
            $kept[substr($view->name, strlen('bin:'))] = BinArrangementAnswer::of($view->value);
        }

        return new self(
            array_map(
                static fn(array $one): BinGroupAnswer => new BinGroupAnswer($one['key'], $one['name'], $entries($one['bins'])),
                $tree['groups'],
            ),
            $entries($tree['own']),
            BinTree::GROUPS,
            $kept,
        );
    }
}
