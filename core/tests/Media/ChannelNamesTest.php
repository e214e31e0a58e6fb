<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\ChannelNames;
use Cartella\Core\Media\WavReader;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\WavBuilder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ChannelNamesTest extends TestCase
{
    use Folder;

    /** @return array<string, array{string, int, list<string>}> */
    public static function layouts(): array
    {
        return [
            'surround in its own order' => ['5.1', 6, ['L', 'R', 'C', 'LFE', 'Ls', 'Rs']],
            'stereo' => ['stereo', 2, ['L', 'R']],
            'one channel has no side' => ['mono', 1, ['Ch 1']],
            'a layout that does not fit its count' => ['5.1', 4, ['Ch 1', 'Ch 2', 'Ch 3', 'Ch 4']],
            'none' => ['', 3, ['Ch 1', 'Ch 2', 'Ch 3']],
            'no sound' => ['', 0, []],
        ];
    }

    /** @param  list<string>  $names */
    #[DataProvider('layouts')]
    public function test_channels_are_named_by_their_layout_or_counted(string $layout, int $count, array $names): void
    {
        self::assertSame($names, array_column(ChannelNames::ofLayout($layout, $count), 'name'));
        self::assertSame($count === 0 ? [] : range(1, $count), array_column(ChannelNames::ofLayout($layout, $count), 'index'));
    }

    public function test_sixty_four_channels_are_read_and_sixty_five_refused(): void
    {
        self::assertSame(64, WavReader::read(WavBuilder::pcm(8, 64)->write($this->folder . '/64.wav'))->format->channels);
        $this->expectExceptionMessage('65 channels');
        WavReader::read(WavBuilder::pcm(8, 65)->write($this->folder . '/65.wav'));
    }

    public function test_a_track_that_names_a_channel_that_is_not_there_is_ignored(): void
    {
        $ixml =
            '<TRACK_LIST><TRACK><CHANNEL_INDEX>9</CHANNEL_INDEX><NAME>ghost</NAME></TRACK><TRACK><CHANNEL_INDEX>' .
            '2</CHANNEL_INDEX><NAME>lav</NAME></TRACK></TRACK_LIST>';
        self::assertSame(
            ['Ch 1', 'lav'],
            array_column(
                ChannelNames::ofWav(
                    WavReader::read(
                        WavBuilder::pcm(8, 2)
                            ->withIxml($ixml)
                            ->write($this->folder . '/t.wav'),
                    ),
                ),
                'name',
            ),
        );
    }

    public function test_a_recorders_own_mix_is_heard_and_without_one_every_channel(): void
    {
        $named = static fn(string ...$names): array => array_map(
            static fn(string $name, int $at): array => ['index' => $at + 1, 'name' => $name],
            $names,
            array_keys($names),
        );
        self::assertSame([4], ChannelNames::heard($named('boom', 'lav Mara', 'lav Tobias', 'MIX L')));
        self::assertSame([1, 2], ChannelNames::heard($named('boom', 'remix')));
        self::assertSame([], ChannelNames::heard([]));
    }
}
