<?php

declare(strict_types=1);

namespace Tests\Fuzz;

use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Readers of what others made are given what nobody made: they answer or refuse in words. `./cartella bench fuzz` tries longer. */
final class ReadersTest extends TestCase
{
    use Folder;

    private const SEED = 20_261_128;

    private const INPUTS = 120;

    /** @return array<string, array{string}> */
    public static function readers(): array
    {
        $names = [
            'WAV',
            'iXML',
            'MOV head',
            'MXF head',
            'transport stream',
            'AVI',
            'MHL',
            'MHL history',
            'MHL 1.1',
            'CDL',
            'Fountain',
            'CSV',
            'CSV in two bytes',
            'XLSX',
        ];

        return array_combine($names, array_map(static fn(string $name): array => [$name], $names));
    }

    #[DataProvider('readers')]
    public function test_broken_input_is_answered_or_refused_in_words_within_bounds(string $reader): void
    {
        $targets = Targets::all($this->folder);
        self::assertSame(array_keys(self::readers()), array_keys($targets), 'every target is a case');
        [$good, $read] = $targets[$reader];
        $read($good);
        for ($number = 0; $number < self::INPUTS; $number++) {
            $trouble = Trial::of($read, Mutations::of($good, self::SEED, $number));
            self::assertNull($trouble, "input $number of seed " . self::SEED . ": $trouble");
        }
    }
}
