<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

use Cartella\Core\Time\FrameRate;

/** A frame rate: exact fraction, whole frames that are counted, drop frame, name. */
final readonly class RateAnswer
{
    public function __construct(public int $num, public int $den, public int $nominal, public bool $drop, public string $name) {}

    public static function of(FrameRate $rate): self
    {
        return new self($rate->num, $rate->den, $rate->nominal, $rate->dropFrame, $rate->label());
    }
}
