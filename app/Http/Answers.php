<?php

declare(strict_types=1);

namespace App\Http;

/**
 * Makes answers of what domains say, by the names of their fields; the answers inside are made with them. A field that the answer
 * does not know, or one that it lacks, is an error: the interface's types are written from the same classes.
 */
final class Answers
{
    /** @var array<class-string, array<string, class-string>> the answers inside an answer, by field */
    private static array $inside = [];

    /**
     * @template T of object
     *
     * @param  class-string<T>  $class
     * @param  array<string, mixed>  $facts
     * @return T
     */
    public static function make(string $class, array $facts): object
    {
        foreach (self::$inside[$class] ??= self::inside($class) as $field => $answer) {
            if (is_array($facts[$field] ?? null)) {
                $facts[$field] = self::value($answer, $facts[$field]);
            }
        }

        return new $class(...$facts);
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $class
     * @param  iterable<mixed>  $list
     * @return list<T>
     */
    public static function list(string $class, iterable $list): array
    {
        $made = [];
        foreach ($list as $one) {
            $made[] = is_array($one) ? self::make($class, $one) : $one;
        }

        return $made;
    }

    /**
     * @param  class-string  $answer
     * @param  array<mixed>  $value  the facts of one answer, a list of such, or a map of either
     */
    private static function value(string $answer, array $value): mixed
    {
        if ($value === []) {
            return [];
        }
        if (array_is_list($value)) {
            return self::list($answer, $value);
        }
        $fields = self::fields($answer);

        return isset($fields[array_key_first($value)])
            ? self::make($answer, $value)
            : array_map(static fn(mixed $one): mixed => is_array($one) ? self::value($answer, $one) : $one, $value);
    }

    /** @var array<class-string, array<string, true>> */
    private static array $fields = [];

    /**
     * @param  class-string  $class
     * @return array<string, true>
     */
    private static function fields(string $class): array
    {
        return self::$fields[$class] ??= array_fill_keys(
            array_map(
                static fn(\ReflectionParameter $one): string => $one->getName(),
                (new \ReflectionClass($class))->getConstructor()?->getParameters() ?? [],
            ),
            true,
        );
    }

    /**
     * @param  class-string  $class
     * @return array<string, class-string>
     */
    private static function inside(string $class): array
    {
        $inside = [];
        foreach ((new \ReflectionClass($class))->getConstructor()?->getParameters() ?? [] as $parameter) {
            $list = $parameter->getAttributes(ListOf::class)[0] ?? null;
            $type = $parameter->getType();
            if ($list !== null) {
                $inside[$parameter->getName()] = $list->newInstance()->answer;
            } elseif ($type instanceof \ReflectionNamedType && !$type->isBuiltin()) {
                $inside[$parameter->getName()] = $type->getName();
            }
        }

        return $inside;
    }
}
