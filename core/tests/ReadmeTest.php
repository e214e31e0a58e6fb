<?php

declare(strict_types=1);

namespace Cartella\Core\Tests;

use Cartella\Core\Command\Command;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What the README shows is what happens. */
final class ReadmeTest extends TestCase
{
    use Folder;

    /** @return iterable<string, array{string, string, string}> language, example, and what it says */
    public static function examples(): iterable
    {
        preg_match_all(
            '/```(php|sh)\n(.*?)```\s+```(?:text|json)\n(.*?)```/s',
            (string) file_get_contents(__DIR__ . '/../README.md'),
            $found,
            PREG_SET_ORDER,
        );
        foreach ($found as $number => [, $language, $code, $says]) {
            yield sprintf('%d, %s', $number + 1, $language) => [$language, $code, $says];
        }
    }

    #[DataProvider('examples')]
    public function test_an_example_says_what_it_is_said_to(string $language, string $code, string $says): void
    {
        self::assertSame(trim($says), trim($language === 'php' ? $this->library($code) : self::command($code)));
    }

    private function library(string $code): string
    {
        $card = dirname($this->file('card/CLIPS/one.mov', 'picture'), 2);
        $this->file('card/CLIPS/two.wav', 'sound');
        [$shuttle, $nearline] = [$this->folder . '/shuttle', $this->folder . '/nearline'];
        ob_start();
        try {
            eval($code);
        } finally {
            $said = (string) ob_get_clean();
        }

        return $said;
    }

    private static function command(string $code): string
    {
        $out = fopen('php://memory', 'w+') ?: throw new \RuntimeException('no memory');
        $words = array_map(static fn(string $word): string => trim($word, "'"), explode(' ', trim($code)));
        (new Command($out, $out))->run(array_slice($words, 1));
        rewind($out);

        return (string) stream_get_contents($out);
    }
}
