<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\Relation;
use Illuminate\Support\Facades\Schema;

/**
 * The `@property` lines of a model, from its table, its casts and its relations, so that static analysis knows what the
 * database answers. `php artisan cartella:describe-models` writes them, and a test says which model's lines are old.
 */
final class ModelProperties
{
    private const CASTS = [
        'boolean' => 'bool',
        'bool' => 'bool',
        'integer' => 'int',
        'int' => 'int',
        'float' => 'float',
        'array' => 'array<mixed>',
        'datetime' => '\Carbon\CarbonInterface',
        'immutable_date' => '\Carbon\CarbonImmutable',
        'date' => '\Carbon\CarbonInterface',
        'hashed' => 'string',
        'encrypted' => 'string',
        'encrypted:array' => 'array<mixed>',
    ];

    /**
     * A model's file with its properties as they are; a type that somebody wrote more exactly than the schema knows it,
     * such as the shape of a JSON column, stays.
     *
     * @param  class-string<Model>  $model
     */
    public static function written(string $model): string
    {
        $class = new \ReflectionClass($model);
        $code = (string) file_get_contents((string) $class->getFileName());
        $comment = (string) $class->getDocComment();
        preg_match_all('/@property(?:-read)?\s+(.+?)\s+\$(\w+)\s*$/m', $comment, $found);
        $known = array_combine($found[2], $found[1]);
        $lines = [];
        foreach (self::columns(new $model()) + self::relations($class) as $name => [$tag, $type]) {
            $isShape = isset($known[$name]) && str_starts_with($type, 'array<mixed>');
            $lines[] = " * $tag " . ($isShape ? $known[$name] : $type) . " \$$name";
            unset($known[$name]);
        }
        foreach ($known as $name => $type) {
            // What a query counts beside the columns is known only to who asks for it.
            if (preg_match('/_(count|sum_\w+)$/', $name) === 1) {
                $lines[] = " * @property-read $type \$$name";
            }
        }
        $about = preg_replace('#^/\*\*|\*/$#', '', preg_replace('/^ \* @property.*\n/m', '', $comment) ?? '') ?? '';
        $about = trim(preg_replace('/^\s*\* ?/m', '', $about) ?? '');
        $new = "/**\n" . preg_replace('/^/m', ' * ', $about) . "\n *\n" . implode("\n", $lines) . "\n */";
        $new = preg_replace('/ +$/m', '', $new) ?? '';

        return $comment === '' ? str_replace('final class', "$new\nfinal class", $code) : str_replace($comment, $new, $code);
    }

    /** @return array<string, array{string, string}> tag and type by name */
    private static function columns(Model $model): array
    {
        $casts = $model->getCasts();
        $columns = [];
        foreach (Schema::getColumns($model->getTable()) as $column) {
            $cast = $casts[$column['name']] ?? null;
            $isTime =
                in_array($column['name'], $model->getDates(), true) || in_array($column['type_name'], ['timestamp', 'datetime'], true);
            $type = match (true) {
                $cast !== null && enum_exists($cast) => '\\' . $cast,
                $cast !== null && isset(self::CASTS[$cast]) => self::CASTS[$cast],
                $isTime => in_array($column['name'], $model->getDates(), true) ? '\Carbon\CarbonInterface' : 'string',
                str_contains($column['type_name'], 'int') => 'int',
                in_array($column['type_name'], ['double', 'float'], true) => 'float',
                default => 'string',
            };
            $columns[$column['name']] = ['@property', $type . ($column['nullable'] ? '|null' : '')];
        }

        return $columns;
    }

    /**
     * @param  \ReflectionClass<Model>  $class
     * @return array<string, array{string, string}>
     */
    private static function relations(\ReflectionClass $class): array
    {
        $relations = [];
        foreach ($class->getMethods(\ReflectionMethod::IS_PUBLIC) as $method) {
            $answer = $method->getReturnType();
            $isOwn = $method->getDeclaringClass()->getName() === $class->getName();
            if (!$isOwn || !($answer instanceof \ReflectionNamedType) || !is_subclass_of($answer->getName(), Relation::class)) {
                continue;
            }
            preg_match('/@return \w+<(\w+)/', (string) $method->getDocComment(), $match);
            $other = $match[1] ?? 'Model';
            $type = match (class_basename($answer->getName())) {
                // Whether the other row is there is said by the key, which the column's own line tells.
                'BelongsTo' => $other . (self::isOptional($class, $method->getName()) ? '|null' : ''),
                'HasOne', 'HasOneThrough' => "$other|null",
                default => "\\Illuminate\\Database\\Eloquent\\Collection<int, $other>",
            };
            $relations[$method->getName()] = ['@property-read', $type];
        }

        return $relations;
    }

    /** @param  \ReflectionClass<Model>  $class */
    private static function isOptional(\ReflectionClass $class, string $relation): bool
    {
        $model = $class->newInstance();
        $key = $model->{$relation}()->getForeignKeyName();
        foreach (Schema::getColumns($model->getTable()) as $column) {
            if ($column['name'] === $key) {
                return $column['nullable'];
            }
        }

        return true;
    }
}
