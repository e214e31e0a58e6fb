<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\FieldType;
use Illuminate\Database\Eloquent\Model;

/**
 * A field of takes that a production added for itself. One that is retired keeps its values, and shows up nowhere.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property string $name
 * @property string $label
 * @property \Cartella\Core\Fields\FieldType $type
 * @property array<mixed>|null $choices
 * @property \Carbon\CarbonInterface|null $retired_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class ProductionField extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['choices' => 'array', 'retired_at' => 'datetime', 'type' => FieldType::class];
    }

    public function field(): Field
    {
        return Field::own($this->name, $this->type, $this->label, array_values($this->choices ?? []));
    }
}
