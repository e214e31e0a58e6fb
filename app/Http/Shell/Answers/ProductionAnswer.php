<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

use App\Http\Settings\Answers\DayAnswer;
use App\Http\Settings\Answers\DeviceAnswer;
use App\Http\Settings\Answers\TakeFieldAnswer;
use App\Models\Production;
use App\Models\User;
use Cartella\Core\Fields\Field;
use Cartella\Core\Log\Marks;

/** What the frame around the stages knows of a production. */
final readonly class ProductionAnswer
{
    /**
     * @param  'letter'|'number'  $slate_style
     * @param  list<DayAnswer>  $days
     * @param  list<DeviceAnswer>  $devices
     * @param  array<string, array{string, string|bool}>  $marks  every spelling of a mark, in small letters, to the field it sets and
     *     its value
     * @param  list<TakeFieldAnswer>  $fields
     * @param  'assistant'|'editor'|'reviewer'|'admin'|null  $your_role
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $slate_style,
        public RateAnswer $rate,
        public array $days,
        public array $devices,
        public array $marks,
        public array $fields,
        public ?string $your_role,
        public MayAnswer $may,
        public bool $is_library,
    ) {}

    public static function of(Production $production, ?User $user): self
    {
        return new self(
            ulid: $production->ulid,
            name: $production->name,
            slate_style: $production->slate_style->value,
            rate: RateAnswer::of($production->rate()),
            days: $production->days()->orderBy('number')->get()->map(DayAnswer::of(...))->all(),
            devices: $production->devices()->orderBy('lane')->get()->map(DeviceAnswer::of(...))->all(),
            marks: Marks::words(),
            fields: array_map(
                static fn(Field $field): TakeFieldAnswer => TakeFieldAnswer::of($field),
                array_values($production->fields()->all()),
            ),
            your_role: $user?->roleIn($production)?->value,
            may: MayAnswer::in($production),
            is_library: (bool) $production->is_library,
        );
    }
}
