<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Rules;

use Cartella\Core\Rules\NearWord;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What somebody meant who typed what nobody said. */
final class NearWordTest extends TestCase
{
    private const KNOWN = ['harbour' => 3, 'harvest' => 9, 'sluice' => 4, 'photo' => 2, 'gauge' => 1, 'gouge' => 7, '1941' => 5];

    /** @return array<string, array{string, string|null, bool}> */
    public static function slips(): array
    {
        return [
            'a letter too few' => ['harbor', 'harbour', false],
            'letters that changed places' => ['slucie', 'sluice', false],
            'the likelier of two' => ['gbuge', 'gouge', false],
            'as it sounds' => ['foto', 'photo', true],
            'as it sounds, where only letters count' => ['foto', null, false],
            'too short to say' => ['har', null, false],
            'nothing like it' => ['wheelbarrow', null, false],
            'a number is no slip' => ['1914', null, false],
        ];
    }

    #[DataProvider('slips')]
    public function test_the_nearest_that_somebody_said_is_meant(string $typed, ?string $meant, bool $bySound): void
    {
        self::assertSame($meant, NearWord::of($typed, self::KNOWN, $bySound));
    }
}
