<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A take, for programs of others. */
final readonly class ReadTakeAnswer
{
    /**
     * @param  list<string>  $marks
     * @param  list<string>  $clips  by their names
     */
    public function __construct(
        public string $ulid,
        public string $slate,
        public string $scene,
        public string $setup,
        public int $take,
        public string $part,
        public string $status,
        public string $description,
        public ?string $notes,
        public array $marks,
        public array $clips,
    ) {}
}
