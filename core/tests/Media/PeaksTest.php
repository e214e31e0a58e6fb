<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\Peaks;
use Cartella\Core\Tests\Support\LtcWriter;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\FrameRate;
use PHPUnit\Framework\TestCase;

final class PeaksTest extends TestCase
{
    public function test_only_a_channel_that_carries_a_steady_wave_is_listened_to_for_timecode(): void
    {
        $rate = FrameRate::parse('25');
        foreach (['clean' => [-12.0, null], 'faint, with noise' => [-30.0, 10.0]] as $how => [$level, $noise]) {
            $timecode = array_values(unpack('s*', LtcWriter::write($rate, '10:00:00:00', '10:00:02:24', $level, 1.0, false, $noise)) ?: []);
            $speech = Noise::speech(intdiv(count($timecode), 8000) + 1, 4);
            $frames = '';
            foreach ($timecode as $at => $value) {
                $frames .= pack('sss', $speech[$at], $value, 0);
            }
            $peaks = new Peaks(3, 48_000);
            $peaks->feed($frames);
            self::assertSame([2], $peaks->steadyChannels(), "$how: not the voices, and not the silence");
        }
    }
}
