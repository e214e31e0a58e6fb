<?php

declare(strict_types=1);

namespace Cartella\Demo;

/**
 * Makes the cards of Low Water from the scenario, and the truth beside them: every clip's place, slate, clap and words.
 *
 * Deterministic from {@see Scenario::SEED}. Cards land in `cards/<volume>/`, notes and script in `notes/`, the truth in `truth.json`; times
 * in the
 * truth are samples at 48 kHz on the recorder's clock.
 */
final class Generator
{
    private const SAMPLE_RATE = 48000;

    private const FRAME_SAMPLES = 1920;

    private Random $random;

    private const MARKER = '.cartella-made';

    private PictureStage $pictures;

    private SoundStage $sounds;

    private Programs $programs;

    /** @var list<array<string, mixed>> */
    private array $truth = [];

    /** @var array<string, int> clips so far by roll */
    private array $counts = [];

    /** @param  callable(string): void  $say */
    public function __construct(private readonly string $folder, private $say)
    {
        $this->random = new Random(Scenario::SEED);
    }

    public function run(): void
    {
        // Made anew every time, so it must be a folder that was made here.
        if (
            is_dir($this->folder) &&
            array_diff(scandir($this->folder) ?: [], ['.', '..']) !== [] &&
            !is_file($this->folder . '/' . self::MARKER)
        ) {
            throw new \RuntimeException("$this->folder holds files that the generator did not put there; name an empty folder.");
        }
        $this->clean($this->folder);
        $work = $this->folder . '/making';
        mkdir($work, 0777, true);
        file_put_contents($this->folder . '/' . self::MARKER, "Made by Cartella's demo generator, which may empty it.\n");
        NotesStage::write($this->folder . '/notes');
        $this->pictures = new PictureStage($work);
        $this->sounds = new SoundStage($work);
        $this->programs = new Programs(2);
        ($this->say)('day 1: sixteen takes on two cameras and a recorder');
        $takes = [];
        foreach (Scenario::TAKES as $index => $take) {
            $takes[] = $this->stageOfTake($take, $index);
        }
        foreach (Scenario::WILD as $index => $wild) {
            $takes[] = $this->stageOfWild($wild, 100 + $index);
        }
        $meeting = $this->stageOfMeeting();
        $this->programs->wait();
        $sounds = [];
        foreach ($takes as $take) {
            array_push($sounds, ...$this->devicesOfTake($take));
        }
        ($this->say)('day 2: the harbour meeting on three cameras');
        $sounds[] = $this->devicesOfMeeting($meeting);
        ($this->say)('day 3: six takes under one recorder file');
        // Last, so that what chance gives the other days stays as it is.
        $run = $this->stageOfRun();
        $this->programs->wait();
        $sounds[] = $this->devicesOfRun($run);
        $this->imports();
        $this->programs->wait();
        foreach ($sounds as [$pcm, $target, $facts]) {
            BwfWriter::wrap($pcm, $target, $facts);
        }
        $this->reports();
        $this->clean($work);
        file_put_contents(
            $this->folder . '/truth.json',
            json_encode(
                [
                    'seed' => Scenario::SEED,
                    'rate' => '25',
                    'sample_rate' => self::SAMPLE_RATE,
                    'recorder_drift_ppm' => ['1' => 0, '2' => Scenario::RECORDER_DRIFT_PPM, '3' => 0],
                    'camera_b_late_frames' => ['1' => Scenario::CAMERA_B_LATE_FRAMES, '2' => 0, '3' => 0],
                    'clips' => $this->truth,
                ],
                JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR,
            ) . "\n",
        );
    }

    /**
     * @param  array<string, mixed>  $take
     * @return array<string, mixed>
     */
    private function stageOfTake(array $take, int $index): array
    {
        $samples = ($take['length'] + 2) * self::SAMPLE_RATE;
        $mos = str_contains((string) $take['mark'], 'mos');
        $tail = str_contains((string) $take['mark'], 'tail');
        $falseStart = $take['mark'] === 'false start';
        $clapAt = match (true) {
            $falseStart => null,
            $tail => (int) (($take['length'] - 1.6) * self::SAMPLE_RATE),
            default => 2 * self::SAMPLE_RATE + $this->random->between(-9000, 22000),
        };
        $lines = $words = [];
        $at = ($tail ? 2 : 4) * self::SAMPLE_RATE + $this->random->between(0, 12000);
        foreach ($falseStart || $mos ? [] : Scenario::SETUPS[$take['setup']]['lines'] as [$who, $text]) {
            $this->say($lines, $words, $who, $text, $at);
        }
        $stage = sprintf('%s/making/stage-%02d.wav', $this->folder, $index);
        $this->programs->start(
            $this->sounds->command($stage, $lines, $clapAt === null ? [] : [$clapAt], $samples, Scenario::SEED + $index),
        );

        return [
            'stage' => $stage,
            'clap_at' => $clapAt,
            'words' => $words,
            'samples' => $samples,
            'tail' => $tail,
            'mos' => $mos,
            'seed' => Scenario::SEED + 31 * $index,
        ] + $take;
    }

    /**
     * @param  array<string, mixed>  $wild
     * @return array<string, mixed>
     */
    private function stageOfWild(array $wild, int $index): array
    {
        $lines = $words = [];
        $at = self::SAMPLE_RATE;
        foreach ($wild['lines'] as [$who, $text]) {
            $this->say($lines, $words, $who, $text, $at);
        }
        $stage = sprintf('%s/making/stage-%02d.wav', $this->folder, $index);
        $this->programs->start($this->sounds->command($stage, $lines, [], $wild['length'] * self::SAMPLE_RATE, Scenario::SEED + $index));

        return ['stage' => $stage, 'words' => $words, 'wild' => true] + $wild;
    }

    /** @return array<string, mixed> */
    private function stageOfMeeting(): array
    {
        $lines = $words = [];
        $at = 2 * self::SAMPLE_RATE;
        foreach (Scenario::MEETING_LINES as [$who, $text]) {
            $this->say($lines, $words, $who, $text, $at);
            $at += $this->random->between(90_000, 190_000);
        }
        $stage = $this->folder . '/making/stage-meeting.wav';
        $this->programs->start($this->sounds->command($stage, $lines, [], Scenario::MEETING['length'] * self::SAMPLE_RATE, Scenario::SEED));

        return ['stage' => $stage, 'words' => $words];
    }

    /** @return array<string, mixed> one recording under all takes of day 3, with a clap for each */
    private function stageOfRun(): array
    {
        $lines = $words = $claps = [];
        foreach (Scenario::RUN['takes'] as $take) {
            $claps[] = ($take['at'] + 2) * self::SAMPLE_RATE + $this->random->between(-9000, 9000);
            $at = ($take['at'] + 4) * self::SAMPLE_RATE;
            foreach (Scenario::SETUPS[$take['setup']]['lines'] as [$who, $text]) {
                $this->say($lines, $words, $who, $text, $at);
            }
        }
        $stage = $this->folder . '/making/stage-run.wav';
        $this->programs->start(
            $this->sounds->command($stage, $lines, $claps, Scenario::RUN['length'] * self::SAMPLE_RATE, Scenario::SEED + 300),
        );

        return ['stage' => $stage, 'words' => $words, 'claps' => $claps];
    }

    /**
     * Every take speaks its lines a little differently, so that no two takes sound the same.
     *
     * @param  list<array{who: string, file: string, at: int}>  $lines
     * @param  list<array{who: string, text: string, from_sample: int, to_sample: int}>  $words
     */
    private function say(array &$lines, array &$words, string $who, string $text, int &$at): void
    {
        $file = $this->sounds->speak($who, $text, $this->random->between(138, 172), $this->random->between(-6, 6));
        $length = SoundStage::samples($file);
        $lines[] = ['who' => $who, 'file' => $file, 'at' => $at];
        $words[] = ['who' => $who, 'text' => $text, 'from_sample' => $at, 'to_sample' => $at + $length];
        $at += $length + $this->random->between(14_000, 40_000);
    }

    /**
     * @param  array<string, mixed>  $take
     * @return list<array{string, string, array<string, mixed>}> recorder files that wait for their samples
     */
    private function devicesOfTake(array $take): array
    {
        $wild = isset($take['wild']);
        $second = Scenario::seconds($take['at']);
        $afternoon = $second > 12 * 3600;
        $roll = $afternoon ? 2 : 1;
        $scene = $wild ? $take['scene'] : Scenario::sceneOf($take['setup']);
        $sounds = [];
        foreach ($wild ? [] : array_intersect(['A', 'B'], str_split($take['on'])) as $camera) {
            // Cameras start by hand after the recorder; B's pictures lie 240 samples off A's.
            $startFrame = $this->random->between(9, 22) + ($camera === 'B' ? 4 : 0);
            $fromSample = $startFrame * self::FRAME_SAMPLES + ($camera === 'B' ? 240 : 0);
            $frames = $take['length'] * Scenario::RATE - $startFrame - $this->random->between(2, 14);
            $late = $camera === 'B' ? Scenario::CAMERA_B_LATE_FRAMES : 0;
            $rollName = $camera . sprintf('%03d', $roll);
            $camName = $this->nextName($rollName);
            $name = $camera === 'B' && $take['take'] !== null ? sprintf('%s_T%02d_B', $take['setup'], $take['take']) : $camName;
            $clapFrame = $take['clap_at'] === null ? null : intdiv($take['clap_at'] - $fromSample, self::FRAME_SAMPLES);
            $this->picture(
                [
                    'camera' => $camera,
                    'setup' => $take['setup'],
                    'scene' => $scene,
                    'take' => (string) ($take['take'] ?? '-'),
                    'roll' => $rollName,
                    'place' => Scenario::SCENES[$scene]['place'],
                    'people' => $take['setup'] === '3B' ? [] : ($take['setup'] === '12A' ? ['mara'] : ['mara', 'quill']),
                    'frames' => $frames,
                    'clap_frame' => $clapFrame,
                    'tail' => $take['tail'],
                    'timecode' => Scenario::label($second * 25 + $startFrame - $late),
                    'created' => '2026-10-05T' . gmdate('H:i:s', $second + intdiv($startFrame - $late, 25)) . 'Z',
                    'seed' => $take['seed'] + ord($camera),
                    'from_sample' => $fromSample,
                    'delay_samples' => $camera === 'A' ? 430 : 240,
                    'sound' => !$take['mos'],
                ],
                $take['stage'],
                $rollName,
                $name,
                1,
                $second * self::SAMPLE_RATE + $fromSample,
                $take,
            );
        }
        if ($wild || str_contains($take['on'], 'S')) {
            $number = $wild ? null : $take['recorder'] ?? $take['take'];
            $name = $wild ? $take['name'] : sprintf('%s-T%02d', $take['setup'], $number);
            $pcm = $this->folder . '/making/' . $name . '.pcm';
            $this->programs->start(SoundStage::recorder($take['stage'], $pcm, false));
            $target = $this->cardFolder('S001', 'ROLL_S001') . '/' . $name . '.wav';
            $sounds[] = [
                $pcm,
                $target,
                [
                    'scene' => $wild ? $take['scene'] : $take['setup'],
                    'take' => $wild ? '' : (string) $number,
                    'tape' => 'S001',
                    'note' => $wild ? $take['note'] : (str_contains((string) $take['mark'], 'ng') ? 'NG, boom in shot' : ''),
                    'circled' => str_contains((string) ($take['mark'] ?? ''), 'circled'),
                    'no_good' => ($take['mark'] ?? '') === 'ng',
                    'wild' => $wild,
                    'uid' => 'LW1' . $name,
                    'date' => '2026-10-05',
                    'time' => $take['at'],
                    'samples_since_midnight' => $second * self::SAMPLE_RATE,
                    'tracks' => ['boom', 'lav Mara', 'lav Tobias', 'mix'],
                ],
            ];
            $this->truth[] = [
                'day' => 1,
                'card' => 'S001',
                'name' => $name,
                'device' => 'S',
                'start_sample' => $second * self::SAMPLE_RATE,
                'wild' => $wild,
                'setup' => $wild ? null : $take['setup'],
                'take' => $wild ? null : $take['take'],
                'words' => $take['words'],
                'clap_sample' => $take['clap_at'] ?? null,
            ];
        }

        return $sounds;
    }

    /**
     * @param  array<string, mixed>  $meeting
     * @return array{string, string, array<string, mixed>}
     */
    private function devicesOfMeeting(array $meeting): array
    {
        $second = Scenario::seconds(Scenario::MEETING['at']);
        $rolls = ['A' => 'A003', 'B' => 'B003', 'C' => 'C001'];
        $neverSet = 37 * 25 + 10;
        foreach (Scenario::MEETING['clips'] as $camera => $clips) {
            $powerOn = 0;
            foreach ($clips as $index => [$at, $length]) {
                $phase = ['A' => 0, 'B' => 700, 'C' => 1310][$camera];
                $fromSample = $at * self::SAMPLE_RATE + $phase;
                $label = $camera === 'C' ? $neverSet + ($at - $clips[0][0]) * 25 : ($second + $at) * 25;
                $created =
                    $camera === 'C'
                        ? '2015-01-01T00:00:' . sprintf('%02d', 37 + $powerOn++) . 'Z'
                        : '2026-10-06T' . gmdate('H:i:s', $second + $at) . 'Z';
                $people = [['edda', 'jonn'], ['mara', 'quill'], ['jonn', 'mara', 'edda']][ord($camera) - ord('A')];
                $this->picture(
                    [
                        'camera' => $camera,
                        'setup' => '21',
                        'scene' => '21',
                        'take' => '-',
                        'roll' => $rolls[$camera],
                        'place' => 'harbour',
                        'people' => $people,
                        'frames' => $length * 25,
                        'clap_frame' => null,
                        'tail' => false,
                        'timecode' => Scenario::label($label),
                        'created' => $created,
                        'seed' => Scenario::SEED + 997 * $index + ord($camera),
                        'from_sample' => $fromSample,
                        'delay_samples' => ['A' => 380, 'B' => 250, 'C' => 560][$camera],
                        'sound' => true,
                    ],
                    $meeting['stage'],
                    $rolls[$camera],
                    $this->nextName($rolls[$camera]),
                    2,
                    $second * self::SAMPLE_RATE + (int) round($fromSample * (1 + Scenario::RECORDER_DRIFT_PPM * 1e-6)),
                    ['setup' => '21', 'take' => null],
                );
            }
        }
        $pcm = $this->folder . '/making/meeting.pcm';
        $this->programs->start(SoundStage::recorder($meeting['stage'], $pcm, true, Scenario::RECORDER_DRIFT_PPM));
        $this->truth[] = [
            'day' => 2,
            'card' => 'S002',
            'name' => '21-T01',
            'device' => 'S',
            'start_sample' => $second * self::SAMPLE_RATE,
            'setup' => '21',
            'take' => 1,
            'words' => $meeting['words'],
            'clap_sample' => null,
            'wild' => false,
        ];

        return [
            $pcm,
            $this->cardFolder('S002', 'ROLL_S002') . '/21-T01.wav',
            [
                'scene' => '21',
                'take' => '1',
                'tape' => 'S002',
                'note' => 'Harbour meeting, unscripted',
                'circled' => false,
                'no_good' => false,
                'wild' => false,
                'uid' => 'LW2-21-T01',
                'date' => '2026-10-06',
                'time' => Scenario::MEETING['at'],
                'samples_since_midnight' => $second * self::SAMPLE_RATE,
                'tracks' => ['boom 1', 'boom 2', 'lav Mara', 'lav Tobias'],
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $run
     * @return array{string, string, array<string, mixed>}
     */
    private function devicesOfRun(array $run): array
    {
        $second = Scenario::seconds(Scenario::RUN['at']);
        foreach (Scenario::RUN['takes'] as $index => $take) {
            foreach (['A', 'B'] as $camera) {
                $startFrame = $take['at'] * 25 + $this->random->between(4, 14) + ($camera === 'B' ? 5 : 0);
                $fromSample = $startFrame * self::FRAME_SAMPLES + ($camera === 'B' ? 240 : 0);
                $roll = $camera . '004';
                $camName = $this->nextName($roll);
                $scene = Scenario::sceneOf($take['setup']);
                $this->picture(
                    [
                        'camera' => $camera,
                        'setup' => $take['setup'],
                        'scene' => $scene,
                        'take' => (string) $take['take'],
                        'roll' => $roll,
                        'place' => Scenario::SCENES[$scene]['place'],
                        'people' => ['mara', 'quill'],
                        'frames' => $take['length'] * 25 - $this->random->between(6, 18),
                        'clap_frame' => intdiv($run['claps'][$index] - $fromSample, self::FRAME_SAMPLES),
                        'tail' => false,
                        'timecode' => Scenario::label($second * 25 + $startFrame),
                        'created' => '2026-10-07T' . gmdate('H:i:s', $second + intdiv($startFrame, 25)) . 'Z',
                        'seed' => Scenario::SEED + 1301 * ($index + 1) + ord($camera),
                        'from_sample' => $fromSample,
                        'delay_samples' => $camera === 'A' ? 410 : 260,
                        'sound' => true,
                    ],
                    $run['stage'],
                    $roll,
                    $camera === 'B' ? sprintf('%s_T%02d_B', $take['setup'], $take['take']) : $camName,
                    3,
                    $second * self::SAMPLE_RATE + $fromSample,
                    $take,
                );
            }
        }
        $first = Scenario::RUN['takes'][0];
        $name = sprintf('%s-T%02d', $first['setup'], $first['take']);
        $pcm = $this->folder . '/making/run.pcm';
        $this->programs->start(SoundStage::recorder($run['stage'], $pcm, false));
        $this->truth[] = [
            'day' => 3,
            'card' => 'S003',
            'name' => $name,
            'device' => 'S',
            'start_sample' => $second * self::SAMPLE_RATE,
            'setup' => $first['setup'],
            'take' => $first['take'],
            'words' => $run['words'],
            'clap_sample' => null,
            'wild' => false,
        ];

        return [
            $pcm,
            $this->cardFolder('S003', 'ROLL_S003') . '/' . $name . '.wav',
            [
                'scene' => $first['setup'],
                'take' => (string) $first['take'],
                'tape' => 'S003',
                'note' => 'Kept rolling through',
                'circled' => false,
                'no_good' => false,
                'wild' => false,
                'uid' => 'LW3-' . $name,
                'date' => '2026-10-07',
                'time' => Scenario::RUN['at'],
                'samples_since_midnight' => $second * self::SAMPLE_RATE,
                'tracks' => ['boom', 'lav Mara', 'lav Tobias', 'mix'],
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $clip
     * @param  array<string, mixed>  $take
     */
    private function picture(array $clip, string $stage, string $card, string $name, int $day, int $startSample, array $take): void
    {
        $folder = $this->cardFolder($card, 'ROLL_' . $card . '/' . $name);
        $this->programs->start($this->pictures->command($clip, $stage, $folder . '/' . $name . '.mov'));
        $this->truth[] = [
            'day' => $day,
            'card' => $card,
            'name' => $name,
            'device' => $clip['camera'],
            'start_sample' => $startSample,
            'frames' => $clip['frames'],
            'setup' => $take['take'] === null && $day === 1 ? null : $take['setup'],
            'take' => $take['take'],
            'clap_frame' => $clip['clap_frame'],
            'timecode' => $clip['timecode'],
            'false_start' => ($take['mark'] ?? '') === 'false start',
            'mos' => !$clip['sound'],
        ];
    }

    private function nextName(string $roll): string
    {
        $this->counts[$roll] = ($this->counts[$roll] ?? 0) + 1;

        return sprintf('%sC%03d', $roll, $this->counts[$roll]);
    }

    private function cardFolder(string $card, string $below): string
    {
        $folder = $this->folder . '/cards/' . $card . '/' . $below;
        if (!is_dir($folder)) {
            mkdir($folder, 0777, true);
        }

        return $folder;
    }

    private function imports(): void
    {
        $music = $this->cardFolder('IMPORTS', 'Music');
        $notes =
            '(0.18*sin(2*PI*t*(220*pow(2\,floor(mod(t*2\,7))*2/12)))+0.1*sin(2*PI*t*(440*pow(2\,floor(mod(t*2\,' .
            '7))*2/12)))+0.07*sin(2*PI*t*110))*(0.6+0.4*sin(2*PI*t*0.8))';
        $this->programs->start([
            ...Programs::ffmpeg(),
            '-f',
            'lavfi',
            '-i',
            "aevalsrc=$notes|$notes:s=48000:d=24",
            '-c:a',
            'pcm_s16le',
            '-bitexact',
            $music . '/concertina cue.wav',
        ]);
        $this->programs->start([
            ...Programs::ffmpeg(),
            '-f',
            'lavfi',
            '-i',
            'aevalsrc=0.4*sin(2*PI*t*(90+40*sin(2*PI*t*0.7)))*abs(sin(2*PI*t*11)):s=48000:d=5',
            '-c:a',
            'pcm_s16le',
            '-bitexact',
            $this->cardFolder('IMPORTS', 'Effects') . '/sluice gate creak.wav',
        ]);
        $card = imagecreatetruecolor(1280, 720);
        imagefill($card, 0, 0, imagecolorallocate($card, 0x14, 0x18, 0x1b));
        imagettftext(
            $card,
            54,
            0,
            420,
            350,
            imagecolorallocate($card, 0xf3, 0xee, 0xe2),
            '/usr/share/fonts/truetype/dejavu/DejaVuSans-Bold.ttf',
            'LOW WATER',
        );
        imagepng($card, $this->cardFolder('IMPORTS', 'Graphics') . '/title card.png');
        foreach (['A' => 'shore morning', 'B' => 'shore stones'] as $camera => $name) {
            $target = $this->cardFolder('IMPORTS', 'Stock') . '/' . $name . '.mov';
            $command = $this->pictures->command(
                [
                    'camera' => $camera,
                    'setup' => '',
                    'scene' => '',
                    'take' => '',
                    'roll' => 'STOCK',
                    'place' => 'shore',
                    'people' => [],
                    'frames' => 150,
                    'clap_frame' => null,
                    'tail' => false,
                    'timecode' => '00:00:00:00',
                    'created' => '2026-09-20T07:10:00Z',
                    'seed' => 7 + ord($camera),
                    'from_sample' => 0,
                    'delay_samples' => 0,
                    'sound' => false,
                ],
                '',
                $target,
            );
            $this->programs->start($command);
        }
    }

    /** The text report that a camera leaves beside its clips, and the rubbish that real cards carry. */
    private function reports(): void
    {
        foreach (glob($this->folder . '/cards/*') ?: [] as $card) {
            $roll = basename($card);
            if ($roll === 'IMPORTS') {
                continue;
            }
            $lines = ["ROLL  $roll", 'UNIT  main', 'DEVICE  ' . ($roll[0] === 'S' ? 'recorder S' : 'camera ' . $roll[0]), ''];
            foreach ($this->truth as $clip) {
                if ($clip['card'] === $roll) {
                    $lines[] = sprintf(
                        '%-12s %s',
                        $clip['name'],
                        $clip['timecode'] ?? Scenario::label(intdiv($clip['start_sample'], self::FRAME_SAMPLES)),
                    );
                }
            }
            file_put_contents("$card/{$roll}_REPORT.TXT", implode("\r\n", $lines) . "\r\n");
            file_put_contents("$card/ROLL_$roll/INDEX.TMP", str_repeat("\0", 512));
            file_put_contents("$card/._{$roll}_REPORT.TXT", "\0\5\26\7");
        }
        $second = 0;
        foreach (
            new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($this->folder . '/cards', \FilesystemIterator::SKIP_DOTS))
            as $file
        ) {
            touch($file->getPathname(), 1_791_200_000 + ($second++ % 3));
        }
    }

    private function clean(string $folder): void
    {
        if (!is_dir($folder)) {
            return;
        }
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS),
                \RecursiveIteratorIterator::CHILD_FIRST,
            )
            as $entry
        ) {
            $entry->isDir() && !$entry->isLink() ? rmdir($entry->getPathname()) : unlink($entry->getPathname());
        }
        rmdir($folder);
    }
}
