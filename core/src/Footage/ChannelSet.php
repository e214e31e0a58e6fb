<?php

declare(strict_types=1);

namespace Cartella\Core\Footage;

/** Some of a recording's sound channels, counted from 1, in order. At least one. */
final readonly class ChannelSet
{
    /** Channels of one recording. */
    private const MOST = 1024;

    /** @var non-empty-list<int> */
    public array $numbers;

    /**
     * @param  list<int>  $numbers  in any order, each once or more often
     *
     * @throws InvalidReference if there is none, or one that no recording can have
     */
    public function __construct(array $numbers)
    {
        $numbers = array_values(array_unique($numbers));
        sort($numbers);
        if ($numbers === [] || $numbers[0] < 1 || $numbers[count($numbers) - 1] > self::MOST) {
            throw InvalidReference::because('channels are counted from 1, and there is at least one');
        }
        $this->numbers = $numbers;
    }
}
