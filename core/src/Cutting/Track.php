<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** Items in record order without overlap; what lies between them is a gap. */
final readonly class Track
{
    /**
     * @param  'picture'|'sound'  $kind
     * @param  list<Item>  $items
     */
    public function __construct(public string $kind, public string $name, public array $items) {}
}
