<?php

declare(strict_types=1);

namespace Cartella\Demo;

/** Lays the painted layers together into one camera clip with ffmpeg: set, people, light, slate and a running figure. */
final class PictureStage
{
    /** Where people stand and how tall they are, by camera: x, y of the head's top, height in pixels. */
    private const MARKS = [
        'A' => [[420, 210, 300], [600, 196, 320], [250, 226, 280], [770, 220, 286]],
        'B' => [[250, 60, 620], [560, 96, 560], [40, 120, 520], [760, 90, 560]],
        'C' => [[330, 130, 430], [560, 150, 420], [120, 170, 400], [740, 140, 420]],
    ];

    /** @var array<string, true> */
    private array $painted = [];

    public function __construct(private readonly string $folder) {}

    /**
     * @param  array{camera: string, setup: string, scene: string, take: string, roll: string, place: string, people: list<string>,
     *     frames: int, clap_frame: int|null, tail: bool, timecode: string, created: string, seed: int, from_sample: int,
     *     delay_samples: int, sound: bool}  $clip
     * @return list<string>
     */
    public function command(array $clip, string $stage, string $target): array
    {
        $command = [...Programs::ffmpeg(), '-framerate', (string) Scenario::RATE, '-i', $this->set($clip['place'], $clip['camera'])];
        $inputs = 1;
        // The set is decoded once and repeated; decoding it for every frame takes most of the time.
        $graph = ['[0:v]format=yuv420p,loop=loop=-1:size=1,setpts=N/(' . Scenario::RATE . '*TB)[set]'];
        $last = 'set';
        $lay = function (string $file, string $position, string $when = '') use (&$command, &$inputs, &$graph, &$last): void {
            array_push($command, '-i', $file);
            $graph[] = "[$last][$inputs:v]overlay=$position" . ($when === '' ? '' : ":enable='$when'") . ":eof_action=repeat[o$inputs]";
            $last = "o$inputs";
            $inputs++;
        };
        $lay($this->light(), sprintf("x='mod(n*%d,80)-80':y=%d", 1 + ($clip['seed'] % 2), $clip['place'] === 'attic' ? 470 : 400));
        foreach ($clip['people'] as $index => $who) {
            [$x, $y, $height] = self::MARKS[$clip['camera']][$index];
            $period = 90 + (($clip['seed'] + 37 * $index) % 60);
            $sway = $clip['camera'] === 'B' ? 36 : 58;
            $lay(
                $this->person($who, $height),
                sprintf("x='%d+%d*sin(2*PI*n/%d)':y='%d+3*sin(2*PI*n/%d)'", $x, $sway, $period, $y, intdiv($period, 3)),
            );
        }
        if ($clip['clap_frame'] !== null) {
            $clap = $clip['clap_frame'];
            $first = $clip['tail'] ? $clap - 40 : 0;
            $last_frame = $clip['tail'] ? $clip['frames'] : $clap + 22;
            $windows = [[$first, $clap - 4], [$clap - 3, $clap - 2], [$clap - 1, $clap - 1], [$clap, $last_frame]];
            foreach (Painter::STICK_ANGLES as $index => $angle) {
                $lay($this->slate($clip, $index, $angle), 'x=300:y=150', sprintf('between(n,%d,%d)', ...$windows[$index]));
            }
        }
        $graph[] =
            "[$last]drawbox=x=896:y=500:w=52:h=26:color=0x14181B@0.6:t=fill," .
            'drawtext=fontfile=/usr/share/fonts/truetype/dejavu/DejaVuSansMono-Bold.ttf:fontsize=16:fontcolor=0xF' .
            "3EEE2:x=902:y=506:text='%{eif\\:n\\:d\\:4}',format=yuv420p[picture]";
        $maps = ['-map', '[picture]'];
        if ($clip['sound']) {
            array_push($command, '-i', $stage);
            $graph[] = SoundStage::guide($inputs, $clip['from_sample'], $clip['frames'] * 1920, $clip['delay_samples'], $clip['seed']);
            array_push($maps, '-map', '[sound]', '-c:a', 'pcm_s16le');
        }

        return [
            ...$command,
            '-filter_complex',
            implode(';', $graph),
            ...$maps,
            '-frames:v',
            (string) $clip['frames'],
            '-c:v',
            'libx264',
            '-preset',
            'ultrafast',
            '-crf',
            '24',
            '-threads',
            '1',
            '-g',
            '25',
            '-r',
            (string) Scenario::RATE,
            '-timecode',
            $clip['timecode'],
            '-metadata',
            'creation_time=' . $clip['created'],
            '-metadata:s:v:0',
            'reel_name=' . $clip['roll'],
            '-fflags',
            '+bitexact',
            '-flags:v',
            '+bitexact',
            '-flags:a',
            '+bitexact',
            $target,
        ];
    }

    private function set(string $place, string $camera): string
    {
        return $this->once("set-$place-$camera.png", static fn(string $file) => Painter::set($place, $camera, $file));
    }

    private function person(string $who, int $height): string
    {
        return $this->once("person-$who-$height.png", static fn(string $file) => Painter::person($who, $height, $file));
    }

    private function light(): string
    {
        return $this->once('light.png', Painter::light(...));
    }

    /** @param  array<string, mixed>  $clip */
    private function slate(array $clip, int $index, int $angle): string
    {
        return $this->once(
            sprintf('slate-%s-%s-%s-%d-%d.png', $clip['setup'], $clip['take'], $clip['roll'], $index, (int) $clip['tail']),
            static fn(string $file) => Painter::slate(
                $clip['scene'],
                $clip['setup'],
                $clip['take'],
                $clip['roll'],
                $angle,
                $clip['tail'],
                $file,
            ),
        );
    }

    /** @param  callable(string): void  $paint */
    private function once(string $name, callable $paint): string
    {
        $file = $this->folder . '/' . $name;
        if (!isset($this->painted[$name])) {
            $paint($file);
            $this->painted[$name] = true;
        }

        return $file;
    }
}
