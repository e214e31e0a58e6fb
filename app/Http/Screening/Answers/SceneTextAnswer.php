<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\Scene;

/** A scene as the script has it. */
final readonly class SceneTextAnswer
{
    /** @param  string|null  $text  below its heading; null where the script was not brought in */
    public function __construct(public string $scene, public string $heading, public ?string $text) {}

    public static function of(string $name, ?Scene $scene): self
    {
        return new self($name, $scene->heading ?? '', $scene?->text);
    }
}
