<?php

declare(strict_types=1);

// Writes ui/api/answers.ts from the answer classes of app/Http: one interface a class, named as the class without "Answer".
// `php scripts/answer-types.php --check` only says whether it is so; the tests do that.

require __DIR__ . '/../vendor/autoload.php';

/** A type as docblocks write it, as TypeScript: lists, maps, shapes, tuples, literals, unions, answer classes. */
final class AnswerType
{
    private const PLAIN = [
        'string' => 'string',
        'int' => 'number',
        'float' => 'number',
        'bool' => 'boolean',
        'null' => 'null',
        'mixed' => 'unknown',
    ];

    private int $at = 0;

    private function __construct(private readonly string $text) {}

    public static function of(string $type): string
    {
        $reader = new self(trim((string) preg_replace('/\s+/', ' ', $type)));

        return $reader->union();
    }

    private function union(): string
    {
        $parts = [$this->one()];
        while ($this->take('|')) {
            $parts[] = $this->one();
        }

        return implode(' | ', array_unique($parts));
    }

    private function one(): string
    {
        if ($this->take('?')) {
            return $this->one() . ' | null';
        }
        if (preg_match("/\G'[^']*'/", $this->text, $match, 0, $this->at) === 1) {
            $this->at += strlen($match[0]);

            return $match[0];
        }
        if (preg_match('/\G[\w\\\\-]+/', $this->text, $match, 0, $this->at) !== 1) {
            throw new RuntimeException("Not a type: $this->text");
        }
        $this->at += strlen($match[0]);
        $name = $match[0];
        if (in_array($name, ['list', 'non-empty-list'], true)) {
            $inner = $this->inside();

            return (str_contains($inner, '|') ? "($inner)" : $inner) . '[]';
        }
        if ($name === 'array') {
            return $this->take('{') ? $this->shape() : $this->map();
        }

        return self::PLAIN[$name] ?? (preg_replace('/Answer$/', '', basename(strtr($name, '\\', '/'))) ?? $name);
    }

    private function map(): string
    {
        $this->expect('<');
        $key = $this->union();
        if ($this->take('>')) {
            return $key . '[]';
        }
        $this->expect(',');
        $value = $this->union();
        $this->expect('>');

        return "Record<$key, $value>";
    }

    private function inside(): string
    {
        $this->expect('<');
        $inner = $this->union();
        $this->expect('>');

        return $inner;
    }

    private function shape(): string
    {
        $fields = $tuple = [];
        while (!$this->take('}')) {
            if (preg_match('/\G\s*(\w+)(\??):/', $this->text, $match, 0, $this->at) === 1) {
                $this->at += strlen($match[0]);
                $fields[] = $match[1] . $match[2] . ': ' . $this->union();
            } else {
                $tuple[] = $this->union();
            }
            $this->take(',');
        }

        return $tuple === [] ? '{ ' . implode('; ', $fields) . ' }' : '[' . implode(', ', $tuple) . ']';
    }

    private function take(string $sign): bool
    {
        $this->at += strspn($this->text, ' ', $this->at);
        if (substr($this->text, $this->at, 1) !== $sign) {
            return false;
        }
        $this->at++;
        $this->at += strspn($this->text, ' ', $this->at);

        return true;
    }

    private function expect(string $sign): void
    {
        if (!$this->take($sign)) {
            throw new RuntimeException("'$sign' is missing at $this->at: $this->text");
        }
    }
}

$root = dirname(__DIR__);
$interfaces = [];
foreach (glob("$root/app/Http/*/Answers/*Answer.php") ?: [] as $file) {
    $class = new ReflectionClass('App\\Http\\' . basename(dirname($file, 2)) . '\\Answers\\' . basename($file, '.php'));
    $constructor = $class->getConstructor() ?? throw new RuntimeException($class->getName() . ' holds nothing');
    preg_match_all('/@param\s+(.+?)\s+\$(\w+)/s', (string) preg_replace('/^\s*\* ?/m', '', (string) $constructor->getDocComment()), $found);
    $said = array_combine($found[2], $found[1]);
    $lines = [];
    foreach ($constructor->getParameters() as $parameter) {
        // Fields that a production added stand beside the others, under keys such as `own:lens`.
        if ($class->hasProperty($parameter->getName()) && $class->getProperty($parameter->getName())->isPrivate()) {
            $lines[] = '  [' . $parameter->getName() . ': `' . $parameter->getName() . ':${string}`]: string | boolean | undefined';

            continue;
        }
        $lines[] = '  ' . $parameter->getName() . ': ' . AnswerType::of($said[$parameter->getName()] ?? (string) $parameter->getType());
    }
    $about = trim((string) preg_replace('#^\s*/?\*+/? ?|\*/#m', '', (string) $class->getDocComment()));
    $about = strlen($about) < 110 ? " $about " : "\n * " . wordwrap($about, 114, "\n * ") . "\n ";
    $name = preg_replace('/Answer$/', '', $class->getShortName());
    $interfaces[$name] =
        "/**$about*/\nexport " .
        ($lines === [] ? "type $name = Record<string, never>\n" : "interface $name {\n" . implode("\n", $lines) . "\n}\n");
}
ksort($interfaces);
$text =
    "// Written by scripts/answer-types.php from the answer classes of app/Http; './cartella format' writes it anew.\n\n" .
    implode("\n", $interfaces);
// What an open page can be told of is said once, too.
$topics = array_map(static fn(App\Support\Topic $one): string => "'$one->value'", App\Support\Topic::cases());
$text .= "\n/** What an open page is told has changed. */\nexport type Topic = " . implode(' | ', $topics) . "\n";
$target = "$root/ui/api/answers.ts";
$plain = static fn(string $code): string => (string) preg_replace('/\s+|[;,|()]/', '', $code);
if (in_array('--check', $argv, true)) {
    $isTrue = is_file($target) && $plain((string) file_get_contents($target)) === $plain($text);
    fwrite(STDERR, $isTrue ? '' : "ui/api/answers.ts is not what the server answers; './cartella format' writes it.\n");
    exit($isTrue ? 0 : 1);
}
file_put_contents($target, $text);
