<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** How one person looks at a bin. */
final readonly class BinArrangementAnswer
{
    /**
     * @param  'rows'|'pictures'|'scenes'  $show
     * @param  bool  $down  the last of the order first
     * @param  bool  $takes  takes as one entry each, with their angles inside
     * @param  list<string>  $days  ULIDs; all where none is named
     * @param  list<string>  $devices  letters
     * @param  list<array{key: string, width: int, shown: bool}>  $columns
     */
    public function __construct(
        public string $show,
        public string $order,
        public bool $down,
        public bool $takes,
        public array $days,
        public array $devices,
        public array $columns,
    ) {}

    /** @param  array<mixed>  $view  as it is kept */
    public static function of(array $view): self
    {
        return new self(
            $view['show'] ?? 'rows',
            $view['order'] ?? 'slate',
            $view['down'] ?? false,
            $view['takes'] ?? false,
            $view['days'] ?? [],
            $view['devices'] ?? [],
            $view['columns'] ?? [],
        );
    }
}
