<?php

declare(strict_types=1);

namespace Tests\App\Docs;

use PhpParser\Node;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;
use PHPUnit\Framework\TestCase;

/** Whatever the desk refuses, asks or names to a person is known to every language of the interface. */
final class DeskWordsTest extends TestCase
{
    private const ROOT = __DIR__ . '/../../..';

    /** Where sentences for a person begin: class and method, and which of the arguments are sentences. */
    private const CALLS = [
        'Problem' => ['refused' => [1, 2], 'forbidden' => [1, 2], 'conflict' => [1, 2], 'missing' => [0, 1], 'gone' => [1, 2]],
        'Refused' => ['because' => [0]],
    ];

    /** @return list<Node\Expr\StaticCall|Node\Expr\New_> */
    private static function calls(string $file): array
    {
        $tree = (new ParserFactory())->createForHostVersion()->parse((string) file_get_contents($file)) ?? [];
        $found = [];
        foreach ((new NodeFinder())->find($tree, static fn(Node $node): bool => true) as $node) {
            if (!($node instanceof Node\Expr\StaticCall) && !($node instanceof Node\Expr\New_)) {
                continue;
            }
            $class = $node->class instanceof Node\Name ? $node->class->getLast() : '';
            if (isset(self::CALLS[$class]) || $class === 'OpenPoint') {
                $found[] = $node;
            }
        }

        return $found;
    }

    /** @return string|null with `{0}` for what is not said yet; null where it is no text */
    private static function template(Node $node, int &$places): ?string
    {
        if ($node instanceof Node\Scalar\String_) {
            return $node->value;
        }
        if ($node instanceof Node\Scalar\InterpolatedString) {
            return implode(
                '',
                array_map(static function (Node $part) use (&$places): string {
                    return $part instanceof Node\InterpolatedStringPart ? $part->value : '{' . $places++ . '}';
                }, $node->parts),
            );
        }
        if ($node instanceof Node\Expr\BinaryOp\Concat) {
            $left = self::template($node->left, $places) ?? '{' . $places++ . '}';

            return $left . (self::template($node->right, $places) ?? '{' . $places++ . '}');
        }
        $isPrinted = $node instanceof Node\Expr\FuncCall && $node->name instanceof Node\Name && (string) $node->name === 'sprintf';
        if ($isPrinted && $node->args[0] instanceof Node\Arg) {
            $none = 0;
            $format = self::template($node->args[0]->value, $none);

            return $format === null
                ? null
                : preg_replace_callback(
                    '/%[-+0\x27 .\d]*[sdfgx]|%%/',
                    static function (array $found) use (&$places): string {
                        return $found[0] === '%%' ? '%' : '{' . $places++ . '}';
                    },
                    $format,
                );
        }

        return null;
    }

    public function test_every_sentence_of_the_desk_is_known_in_italian(): void
    {
        $known = json_decode((string) file_get_contents(self::ROOT . '/ui/words/it/desk.json'), true, 4, JSON_THROW_ON_ERROR);
        $unknown = [];
        $count = 0;
        foreach (['app/Domain', 'app/Http', 'app/Policies', 'app/Support', 'core/src'] as $folder) {
            $files = new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(self::ROOT . "/$folder", \FilesystemIterator::SKIP_DOTS),
            );
            foreach ($files as $file) {
                foreach ($file->getExtension() === 'php' ? self::calls($file->getPathname()) : [] as $call) {
                    $name = $call instanceof Node\Expr\StaticCall && $call->name instanceof Node\Identifier ? (string) $call->name : '';
                    $class = $call->class instanceof Node\Name ? $call->class->getLast() : '';
                    foreach ($class === 'OpenPoint' ? [2] : self::CALLS[$class][$name] ?? [] as $at) {
                        $argument = $call->args[$at] ?? null;
                        $places = 0;
                        $sentence = $argument instanceof Node\Arg ? self::template($argument->value, $places) : null;
                        if ($sentence === null || preg_match('/^[{}\d ]*$/', $sentence) === 1) {
                            continue;
                        }
                        $count++;
                        if (!isset($known[$sentence])) {
                            $unknown[] = basename($file->getPathname()) . ": $sentence";
                        }
                    }
                }
            }
        }
        self::assertGreaterThan(300, $count, 'the sentences are found');
        self::assertSame([], $unknown);
    }
}
