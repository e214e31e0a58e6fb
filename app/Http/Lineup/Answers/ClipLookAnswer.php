<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

use App\Models\Clip;
use App\Models\Look;

/** The look that a picture is shown with: its own, or its device's; numbers as the ASC CDL has them. */
final readonly class ClipLookAnswer
{
    /**
     * @param  'clip'|'device'  $of
     * @param  array{float, float, float}  $slope
     * @param  array{float, float, float}  $offset
     * @param  array{float, float, float}  $power
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $of,
        public array $slope,
        public array $offset,
        public array $power,
        public float $saturation,
    ) {}

    public static function of(Clip $clip): ?self
    {
        $told = Look::told($clip);

        return $told === null ? null : new self(...$told);
    }
}
