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

    /** What is called by such a method has words as that argument; a reader's problem is a sentence without its stop. */
    private const METHODS = ['finish' => 2, 'long' => 2, 'beside' => 2, 'keep' => 3, 'problem' => -1];

    /** What stands under such a key is words for a person: a task, a button, a reason. */
    private const KEYS = ['title', 'label', 'evidence', 'reason', 'why', 'ask', 'fix'];

    /** Papers, lists and folders that go to others are English. */
    private const PAPERS = '/(Report|DailyLog|PackageReadme|PackagePaths|PackageLists|PackageContents)\.php$/';

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

    /** @return list<string> the words of an expression, whichever way it goes */
    private static function words(Node $of): array
    {
        $places = 0;
        $whole = $of instanceof Node\Expr ? self::template($of, $places) : null;
        if ($whole !== null) {
            return preg_match('/\p{L}{2}.* |^\p{Lu}\p{Ll}/u', $whole) === 1 ? [$whole] : [];
        }
        $below = match (true) {
            $of instanceof Node\Expr\Ternary => [$of->if, $of->else],
            $of instanceof Node\Expr\BinaryOp\Coalesce => [$of->left, $of->right],
            $of instanceof Node\Expr\Match_ => array_map(static fn(Node\MatchArm $arm): Node => $arm->body, $of->arms),
            default => [],
        };

        return array_merge(...array_map(self::words(...), array_values(array_filter($below))));
    }

    public function test_names_of_steps_tasks_buttons_and_problems_are_known_in_italian(): void
    {
        $known = json_decode((string) file_get_contents(self::ROOT . '/ui/words/it/desk.json'), true, 4, JSON_THROW_ON_ERROR);
        $unknown = [];
        $count = 0;
        foreach (['app/Domain', 'core/src/Exchange'] as $folder) {
            $files = new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(self::ROOT . "/$folder", \FilesystemIterator::SKIP_DOTS),
            );
            foreach ($files as $file) {
                if ($file->getExtension() !== 'php' || preg_match(self::PAPERS, $file->getPathname()) === 1) {
                    continue;
                }
                $tree = (new ParserFactory())->createForHostVersion()->parse((string) file_get_contents($file->getPathname())) ?? [];
                foreach ((new NodeFinder())->find($tree, static fn(Node $node): bool => true) as $node) {
                    $said = [];
                    if ($node instanceof Node\ArrayItem && $node->key instanceof Node\Scalar\String_) {
                        $said = in_array($node->key->value, self::KEYS, true) ? self::words($node->value) : [];
                    } elseif (
                        ($node instanceof Node\Expr\MethodCall || $node instanceof Node\Expr\StaticCall) &&
                        $node->name instanceof Node\Identifier &&
                        isset(self::METHODS[(string) $node->name])
                    ) {
                        $at = self::METHODS[(string) $node->name];
                        $argument = $at < 0 ? end($node->args) : $node->args[$at] ?? null;
                        $said = $argument instanceof Node\Arg ? self::words($argument->value) : [];
                        $said = $at < 0 ? array_map(static fn(string $one): string => rtrim($one, '.') . '.', $said) : $said;
                    }
                    foreach ($said as $one) {
                        $count++;
                        isset($known[$one]) || ($unknown[] = basename($file->getPathname()) . ": $one");
                    }
                }
            }
        }
        self::assertGreaterThan(120, $count, 'the words are found');
        self::assertSame([], array_values(array_unique($unknown)));
    }
}
