<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Slate;

use Cartella\Core\Slate\FieldMerge;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FieldMergeTest extends TestCase
{
    /** @return array<string, array{string, string|bool, string|null, string|bool, string|bool, string|bool|null}> …, by, was, said, then */
    public static function corrections(): array
    {
        return [
            'its own value' => ['size', 'Wide', 'script', 'Wide', 'Close', 'Close'],
            'its own value, taken back' => ['size', 'Wide', 'script', 'Wide', '', ''],
            'its own mark, taken back' => ['is_mos', true, 'script', true, false, false],
            'what a person has set since' => ['size', 'Medium', 'person', 'Wide', 'Close', null],
            'what a person set to the same' => ['size', 'Wide', 'person', 'Wide', 'Close', null],
            'what the recorder says and notes now know' => ['size', 'Close', 'ixml', '', 'Wide', 'Wide'],
            'its words among others' => [
                'notes',
                "boom in\ngull\nask Rosa",
                'script',
                'gull',
                'gull and wind',
                "boom in\ngull and wind\nask Rosa",
            ],
            'its words at the end, taken back' => ['notes', "boom in\ngull", 'script', 'gull', '', 'boom in'],
            'all there is, taken back' => ['notes', 'gull', 'script', 'gull', '', ''],
            'keywords' => ['keywords', 'ledger, gull, boat', 'script', 'gull', 'tern', 'ledger, tern, boat'],
            'words that a person has reworked' => ['notes', 'a gull, twice', 'person', 'gull!', 'tern', "a gull, twice\ntern"],
            'letters within another sentence' => ['notes', 'NG, boom in shot', 'ixml', 'boom in', '', null],
            'the same again' => ['notes', 'rewritten', 'person', 'gull', 'gull', null],
        ];
    }

    #[DataProvider('corrections')]
    public function test_corrected_notes_change_their_own_words_only(
        string $field,
        string|bool $now,
        ?string $by,
        string|bool $was,
        string|bool $said,
        string|bool|null $then,
    ): void {
        self::assertSame($then, FieldMerge::correct($field, $now, $by, $was, $said, 'script'));
    }
}
