<?php

declare(strict_types=1);

namespace Cartella\Demo;

/**
 * The performance of one take as dry sources, from which every device's sound is heard: one WAV of six channels
 * (Mara, Quill, Edda, Jonn, clap, water) at 48 kHz, starting when the take starts.
 */
final class SoundStage
{
    private const SOURCES = ['mara', 'quill', 'edda', 'jonn'];

    public function __construct(private readonly string $folder) {}

    /**
     * Speaks a line into a file, once.
     *
     * @param  int  $speed  words a minute
     */
    public function speak(string $who, string $text, int $speed, int $pitch): string
    {
        $voice = Scenario::VOICES[$who];
        $file = sprintf('%s/line-%s.wav', $this->folder, hash('xxh64', "$who|$text|$speed|$pitch"));
        if (!is_file($file)) {
            Programs::run([
                'espeak-ng',
                '-v',
                $voice['voice'],
                '-s',
                (string) $speed,
                '-p',
                (string) ($voice['pitch'] + $pitch),
                '-w',
                $file,
                '--',
                $text,
            ]);
        }

        return $file;
    }

    /** Length of a spoken line in samples at 48 kHz. */
    public static function samples(string $file): int
    {
        return (int) ceil((((filesize($file) - 44) / 2) * 48000) / 22050);
    }

    /**
     * @param  list<array{who: string, file: string, at: int}>  $lines  `at` in samples from the start
     * @param  list<int>  $clapsAt  samples
     * @return list<string> the command that makes it
     */
    public function command(string $target, array $lines, array $clapsAt, int $samples, int $seed): array
    {
        $command = Programs::ffmpeg();
        $filters = $mixed = [];
        $parts = array_fill_keys(self::SOURCES, []);
        foreach ($lines as $index => $line) {
            array_push($command, '-i', $line['file']);
            $filters[] = "[$index:a]aresample=48000,adelay={$line['at']}S:all=1[l$index]";
            $parts[$line['who']][] = "[l$index]";
        }
        foreach (self::SOURCES as $who) {
            $count = count($parts[$who]);
            $filters[] = match ($count) {
                0 => "anullsrc=r=48000:cl=mono,atrim=end_sample={$samples}[$who]",
                1 => $parts[$who][0] . "apad,atrim=end_sample={$samples}[$who]",
                // Padded once after the mix: thirty lines of four minutes of silence each would take most of the time.
                default => implode('', $parts[$who]) .
                    "amix=inputs=$count:normalize=0:duration=longest,apad,atrim=end_sample={$samples}[$who]",
            };
            $mixed[] = "[$who]";
        }
        $clap = static fn(int $at): string => "aevalsrc='(random(0)*2-1)*exp(-55*t)':s=48000:d=0.35,adelay={$at}S:all=1";
        if (count($clapsAt) > 1) {
            foreach ($clapsAt as $index => $at) {
                $filters[] = $clap($at) . "[k$index]";
            }
        }
        $filters[] = match (count($clapsAt)) {
            0 => "anullsrc=r=48000:cl=mono,atrim=end_sample={$samples}[clap]",
            1 => $clap($clapsAt[0]) . ",apad,atrim=end_sample={$samples}[clap]",
            default => implode('', array_map(static fn(int $index): string => "[k$index]", array_keys($clapsAt))) .
                'amix=inputs=' .
                count($clapsAt) .
                ":normalize=0:duration=longest,apad,atrim=end_sample={$samples}[clap]",
        };
        $filters[] = "anoisesrc=c=brown:r=48000:a=0.06:seed=$seed,tremolo=f=0.31:d=0.7,atrim=end_sample={$samples}[water]";
        $all = implode('', $mixed) . '[clap][water]';
        $filters[] = "{$all}join=inputs=6:channel_layout=6.0:map=0.0-FL|1.0-FR|2.0-FC|3.0-BC|4.0-SL|5.0-SR[out]";

        return [...$command, '-filter_complex', implode(';', $filters), '-map', '[out]', '-c:a', 'pcm_s16le', '-bitexact', $target];
    }

    /** The recorder's four tracks: boom, two radio microphones, mix; `$stretch` is its crystal's error. */
    public static function recorder(string $stage, string $target, bool $meeting, int $driftPpm = 0): array
    {
        $pan = $meeting
            ? 'pan=4c|c0=0.5*c0+0.3*c1+0.5*c2+0.3*c3+0.3*c5|c1=0.3*c0+0.5*c1+0.3*c2+0.5*c3+0.3*c5|c2=0.85*c0+0.1*c1' .
                '+0.1*c2+0.1*c3|c3=0.1*c0+0.85*c1+0.1*c2+0.1*c3'
            : 'pan=4c|c0=0.55*c0+0.5*c1+0.8*c4+0.5*c5|c1=0.85*c0+0.1*c1+0.2*c4+0.1*c5|c2=0.1*c0+0.85*c1+0.2*c4+0.1*' .
                'c5|c3=0.6*c0+0.6*c1+0.5*c4+0.3*c5';
        // Claimed at 500 kHz and brought to 500 009 Hz: 18 parts per million, and then called 48 kHz again.
        $drift =
            $driftPpm === 0
                ? ''
                : sprintf(',asetrate=500000,aresample=%d:filter_size=16:linear_interp=1,asetrate=48000', 500_000 + intdiv($driftPpm, 2));

        return [...Programs::ffmpeg(), '-i', $stage, '-af', $pan . $drift, '-f', 's24le', '-bitexact', $target];
    }

    /** What a camera's own microphone hears of it: from further away, later, narrower, noisier. */
    public static function guide(int $input, int $fromSample, int $samples, int $delaySamples, int $seed): string
    {
        $late = max(0, $fromSample - $delaySamples);

        return "[$input:a]pan=mono|c0=0.5*c0+0.5*c1+0.5*c2+0.5*c3+0.9*c4+0.7*c5,atrim=start_sample={$late}:end_sample=" .
            ($late + $samples) .
            ',asetpts=PTS-STARTPTS,highpass=f=160,lowpass=f=5200,aecho=0.8:0.7:23|41:0.22|0.15,volume=0.42[near];' .
            "anoisesrc=c=pink:r=48000:a=0.012:seed=$seed,atrim=end_sample={$samples}[hiss];" .
            "[near][hiss]amix=inputs=2:normalize=0:duration=first,apad,atrim=end_sample={$samples},pan=stereo|c0=c0|c1=c0[sound]";
    }
}
