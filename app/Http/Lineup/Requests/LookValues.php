<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

/** The numbers of a look, as requests carry them. */
final class LookValues
{
    public const RULES = [
        'slope' => ['required', 'array', 'size:3'],
        'slope.*' => ['numeric'],
        'offset' => ['required', 'array', 'size:3'],
        'offset.*' => ['numeric'],
        'power' => ['required', 'array', 'size:3'],
        'power.*' => ['numeric'],
        'saturation' => ['required', 'numeric'],
    ];
}
