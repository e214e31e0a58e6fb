<?php

declare(strict_types=1);

namespace Cartella\Core\Command;

use Cartella\Core\CartellaException;
use Cartella\Core\Custody\Exception\InvalidCustody;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Cutting\Edit\InvalidOperation;
use Cartella\Core\Cutting\Edit\Operations;
use Cartella\Core\Cutting\Edit\Restore;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\Edl\EdlReader;
use Cartella\Core\Exchange\Edl\EdlWriter;
use Cartella\Core\Exchange\Edl\ShortReels;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Otio\OtioReader;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Cartella\Core\Lineup\Exception\InvalidLineup;
use Cartella\Core\Lineup\LineupManifest;
use Cartella\Core\Log\Script;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Flashes;
use Cartella\Core\Media\PeakFile;
use Cartella\Core\Media\Probe;
use Cartella\Core\Slate\SlateOrder;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Instant;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Cartella\Core\Words\CueReader;
use Cartella\Core\Words\CueWriter;
use Cartella\Core\Words\Exception\UnableToRecognise;
use Cartella\Core\Words\Levels;
use Cartella\Core\Words\Listening;
use Cartella\Core\Words\Pauses;
use Cartella\Core\Words\Recogniser;
use Cartella\Core\Words\ScriptLine;
use Cartella\Core\Words\ScriptModel;
use Cartella\Core\Words\SoundSource;
use Cartella\Core\Words\SpeechModel;
use Cartella\Core\Words\SpokenSlate;

/**
 * The core from a shell: JSON on standard output, one JSON error object on standard error.
 *
 * Exit status 0: done; 1: the answer is negative; 2: bad use, label, rate or option; 3: an input that is missing or not
 * what it should be.
 */
final class Command
{
    private const BAD_USE = [BadUse::class, InvalidTime::class, InvalidCustody::class, InvalidLineup::class, InvalidOperation::class];

    private const JSON = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE;

    private const HELP = <<<'TEXT'
    cartella-core COMMAND …

      timecode --rate R --from X --to Y [--to-rate R]
      probe FILE…
      peaks FILE -o OUT
      offload SOURCE DEST… [--hash xxh128|xxh64|md5|sha1] [--resume]
      verify FOLDER [--record]
      slate NAME… [--style letter|number] [--sort]
      lineup MANIFEST.json
      ltc FILE [--channel N]
      claps FILE
      cut SEQUENCE.json OPS.json
      pauses FILE [--below DB] [--longer S] [--padding S]
      words FILE [--to json|srt|vtt|text]
      recognise FILE [--script FILE.fountain] [--scene N] [--channel N]
      edl2json FILE… --rate R
      json2edl FILE [-o OUT.edl]
      otio2json FILE
      json2otio FILE

    JSON on standard output. Exit 0: done; 1: a negative answer; 2: bad use; 3: an input missing or unreadable.

    TEXT;

    /**
     * @param  resource  $out
     * @param  resource  $err
     */
    public function __construct(private $out, private $err) {}

    /** @param  list<string>  $words the command line without the program's name */
    public function run(array $words): int
    {
        $name = array_shift($words) ?? 'help';
        try {
            return match ($name) {
                'timecode' => $this->timecode($words),
                'probe' => $this->probe($words),
                'peaks' => $this->peaks($words),
                'offload' => $this->offload($words),
                'verify' => $this->verify($words),
                'slate' => $this->slate($words),
                'lineup' => $this->lineup($words),
                'ltc' => $this->ltc($words),
                'claps' => $this->claps($words),
                'cut' => $this->cut($words),
                'pauses' => $this->pauses($words),
                'words' => $this->words($words),
                'recognise' => $this->recognise($words),
                'edl2json' => $this->fromEdl($words),
                'json2edl' => $this->edl($words),
                'otio2json' => $this->fromOtio($words),
                'json2otio' => $this->otio($words),
                'help', '--help', '-h' => $this->help(),
                default => throw BadUse::because(sprintf('There is no command "%s".', BadUse::quote($name))),
            };
        } catch (CartellaException $trouble) {
            fwrite(
                $this->err,
                json_encode(
                    [
                        'code' => $trouble->problemCode(),
                        'message' => $trouble->getMessage(),
                        'fix' => $trouble->fix(),
                        'context' => (object) $trouble->context(),
                    ],
                    self::JSON,
                ) . "\n",
            );

            return in_array($trouble::class, self::BAD_USE, true) ? 2 : 3;
        }
    }

    /** @param  list<string>  $words */
    private function timecode(array $words): int
    {
        $given = Arguments::parse($words, ['--rate' => true, '--from' => true, '--to' => true, '--to-rate' => true]);
        if ($given->operands !== []) {
            throw BadUse::because('timecode takes options only.');
        }
        $rate = FrameRate::parse($given->required('--rate'));
        $ticks = Instant::parse($given->required('--from'), $rate);
        $toRate = $given->has('--to-rate') ? FrameRate::parse($given->required('--to-rate')) : $rate;
        $this->json([
            'value' => Instant::write($ticks, $given->required('--to'), $toRate),
            'timecode' => Timecode::duration(Ticks::toFrames($ticks, $toRate), $toRate),
            'ticks' => $ticks,
        ]);

        return 0;
    }

    /** @param  list<string>  $words */
    private function probe(array $words): int
    {
        $files = Arguments::parse($words, [])->operands;
        if ($files === []) {
            throw BadUse::because('Name at least one file.');
        }
        $this->json(array_map(static fn(string $file): array => Probe::file($file)->toArray(), $files));

        return 0;
    }

    /** @param  list<string>  $words */
    private function peaks(array $words): int
    {
        $given = Arguments::parse($words, ['-o' => true]);
        $this->json(PeakFile::make($given->only('file'), $given->required('-o')));

        return 0;
    }

    /** @param  list<string>  $words */
    private function ltc(array $words): int
    {
        $given = Arguments::parse($words, ['--channel' => true]);
        $file = $given->only('file');
        $streams = Probe::file($file)->audioStreams;
        $channels = array_sum($streams);
        $wanted = $given->value('--channel');
        if ($wanted !== null && (preg_match('/\A[1-9]\d{0,2}\z/', $wanted) !== 1 || (int) $wanted > $channels)) {
            throw BadUse::because(sprintf('The file has channels 1 to %d.', $channels));
        }
        foreach ($wanted !== null ? [(int) $wanted] : ($channels === 0 ? [] : range(1, $channels)) as $channel) {
            $ltc = Ltc::ofFile($file, $channel, $streams);
            if ($ltc !== null) {
                $this->json([
                    'rate' => $ltc->rate->label(),
                    'drop' => $ltc->rate->dropFrame,
                    'channel' => $channel,
                    'start_ticks' => $ltc->startTicks,
                    'frames' => [$ltc->first, $ltc->last],
                ]);

                return 0;
            }
        }
        $this->json(['rate' => null, 'drop' => null, 'channel' => null, 'start_ticks' => null, 'frames' => null]);

        return 1;
    }

    /** @param  list<string>  $words */
    private function claps(array $words): int
    {
        $file = Arguments::parse($words, [])->only('file');
        $info = Probe::file($file);
        $this->json([
            'claps' => $info->audioStreams === [] ? [] : Claps::of(GuideTrack::decode($file, $info->audioStreams)),
            'flashes' => $info->kind === 'picture' ? Flashes::ofFile($file) : [],
        ]);

        return 0;
    }

    /** @param  list<string>  $words */
    private function offload(array $words): int
    {
        $given = Arguments::parse($words, ['--hash' => true, '--resume' => false]);
        $paths = $given->operands;
        $source = array_shift($paths);
        if ($source === null || $paths === []) {
            throw BadUse::because('Name a source and at least one destination.');
        }
        $report = Offload::run(
            $source,
            $paths,
            HashAlgorithm::parse($given->value('--hash') ?? 'xxh128'),
            $given->has('--resume'),
            $this->json(...),
        );
        $this->json([
            'files' => $report->files,
            'bytes' => $report->bytes,
            'verified' => $report->verified,
            'faults' => $report->faults,
            'manifests' => $report->manifests,
            'matched' => $report->matched,
            'read_from' => (object) $report->readFrom,
        ]);

        return $report->faults === [] ? 0 : 1;
    }

    /** @param  list<string>  $words */
    private function verify(array $words): int
    {
        $given = Arguments::parse($words, ['--record' => false]);
        $answer = Verify::folder($given->only('folder'), $given->has('--record'));
        $this->json($answer);

        return $answer['ok'] ? 0 : 1;
    }

    /** @param  list<string>  $words */
    private function slate(array $words): int
    {
        $given = Arguments::parse($words, ['--style' => true, '--sort' => false]);
        $style = SlateStyle::tryFrom($given->value('--style') ?? 'letter') ?? throw BadUse::because('The style is letter or number.');
        if ($given->operands === []) {
            throw BadUse::because('Name at least one name.');
        }
        $entries = [];
        foreach ($given->operands as $name) {
            $slate = SlateReader::name($name, $style);
            $entries[] =
                ['name' => $name, 'scene' => $slate->scene, 'setup' => $slate->setup, 'take' => $slate->take, 'device' => $slate->device] +
                ($slate->part === '' ? [] : ['part' => $slate->part]);
        }
        if ($given->has('--sort')) {
            usort(
                $entries,
                static fn(array $x, array $y): int => strcmp(
                    SlateOrder::key($x['setup'], $x['take']),
                    SlateOrder::key($y['setup'], $y['take']),
                ) ?:
                strnatcmp($x['name'], $y['name']),
            );
        }
        $this->json($entries);

        return 0;
    }

    /** @param  list<string>  $words */
    private function lineup(array $words): int
    {
        $file = Arguments::parse($words, [])->only('manifest');
        $result = LineupManifest::run(self::contents($file), dirname($file));
        $this->json($result->toArray());

        return 0;
    }

    /** @param  list<string>  $words */
    private function cut(array $words): int
    {
        $files = Arguments::parse($words, [])->operands;
        if (count($files) !== 2) {
            throw BadUse::because('Name a sequence and a list of operations.');
        }
        $sequence = Sequence::fromArray(json_decode(self::contents($files[0]), true));
        $operations = json_decode(self::contents($files[1]), true);
        if (!is_array($operations) || !array_is_list($operations)) {
            throw BadUse::because('The operations are no list.');
        }
        $done = Operations::run($sequence, $operations);
        $this->json([
            'sequence' => $done['sequence']->toArray(),
            'inverse' => array_map(static fn(Restore $one): array => $one->toArray(), $done['inverse']),
            'refused' => $done['refused'],
        ]);

        return $done['refused'] === [] ? 0 : 1;
    }

    /** @param  list<string>  $words */
    private function pauses(array $words): int
    {
        $given = Arguments::parse($words, ['--below' => true, '--longer' => true, '--padding' => true]);
        $below = self::decimal($given, '--below', -200, 0);
        $longer = self::decimal($given, '--longer', 0.01, 3600) ?? 0.5;
        $padding = self::decimal($given, '--padding', 0, 60) ?? 0.0;
        $levels = Levels::ofFile($given->only('file'));
        $this->json(Pauses::of($levels, $below, Ticks::ofSeconds($longer), Ticks::ofSeconds($padding))->toArray());

        return 0;
    }

    private static function decimal(Arguments $given, string $option, float $least, float $most): ?float
    {
        $text = $given->value($option);
        if ($text === null) {
            return null;
        }
        if (preg_match('/\A-?\d{1,6}(?:\.\d{1,9})?\z/', $text) !== 1 || (float) $text < $least || (float) $text > $most) {
            throw BadUse::because(sprintf('%s is a number from %s to %s.', $option, $least, $most));
        }

        return (float) $text;
    }

    /** @param  list<string>  $words */
    private function words(array $words): int
    {
        $given = Arguments::parse($words, ['--to' => true]);
        $to = $given->value('--to') ?? 'json';
        if (!in_array($to, ['json', 'srt', 'vtt', 'text'], true)) {
            throw BadUse::because('--to is json, srt, vtt or text.');
        }
        ['transcript' => $transcript, 'problems' => $problems] = CueReader::read(self::contents($given->only('file')));
        if ($to === 'json') {
            $this->json(
                ['words' => $transcript->toArray()['words']] + [
                    'problems' => array_map(static fn(ListProblem $one): array => $one->toArray(), $problems),
                ],
            );
        } else {
            fwrite(
                $this->out,
                match ($to) {
                    'srt' => CueWriter::srt($transcript),
                    'vtt' => CueWriter::vtt($transcript),
                    'text' => $transcript->text(),
                },
            );
        }

        return 0;
    }

    /** @param  list<string>  $words */
    private function recognise(array $words): int
    {
        $given = Arguments::parse($words, ['--script' => true, '--scene' => true, '--channel' => true]);
        $file = $given->only('file');
        $info = Probe::file($file);
        $model = Recogniser::need(SpeechModel::all(['/usr/share/pocketsphinx/model'])['en-us'] ?? null);
        if ($info->audioStreams === []) {
            throw UnableToRecognise::noSound(basename($file));
        }
        $channels = range(1, array_sum($info->audioStreams));
        $wanted = $given->value('--channel');
        if ($wanted !== null && (preg_match('/\A[1-9]\d{0,2}\z/', $wanted) !== 1 || !in_array((int) $wanted, $channels, true))) {
            throw BadUse::because(sprintf('The file has channels 1 to %d.', count($channels)));
        }
        $lines = [];
        $script = $given->value('--script');
        foreach ($script === null ? [] : Script::scenes(self::contents($script)) as $scene) {
            foreach (Script::speeches($scene['text']) as $number => $speech) {
                $lines[] = new ScriptLine($scene['scene'], $number, $speech['character'], $speech['text']);
            }
        }
        $said = ScriptModel::ofScript($lines, $given->value('--scene'));
        $names = array_column($info->channels, 'name', 'index');
        $plan = Listening::plan(Levels::ofFile($file), $wanted === null ? $channels : [(int) $wanted], $names);
        $folder = sys_get_temp_dir() . '/cartella-words-' . bin2hex(random_bytes(6));
        mkdir($folder, 0700);
        $heard = [];
        try {
            Recogniser::listen(SoundSource::ofFile($file, $info->audioStreams), $plan, $model, $said, $folder, static function (
                array $found,
            ) use (&$heard): void {
                array_push($heard, ...$found);
            });
        } finally {
            array_map(unlink(...), glob("$folder/*") ?: []);
            rmdir($folder);
        }
        $transcript = Recogniser::finish($said, $heard);
        $calls = SpokenSlate::of($transcript->words, scenes: $said->scenes());
        $this->json(
            $transcript->toArray() + [
                'slate' => $calls->toArray(),
                'action_ticks' => $calls->actions[0]['ticks'] ?? null,
                'cut_ticks' => $calls->cutTicks,
            ],
        );

        return 0;
    }

    /** @param  list<string>  $words several files are one list that goes on */
    private function fromEdl(array $words): int
    {
        $given = Arguments::parse($words, ['--rate' => true]);
        $rate = FrameRate::parse($given->required('--rate'));
        if ($given->operands === []) {
            throw BadUse::because('Name an edit decision list.');
        }
        $this->json(EdlReader::read(array_map(self::contents(...), $given->operands), $rate)->toArray());

        return 0;
    }

    /** @param  list<string>  $words */
    private function fromOtio(array $words): int
    {
        $this->json(OtioReader::read(self::contents(Arguments::parse($words, [])->only('file')))->toArray());

        return 0;
    }

    /** @param  list<string>  $words */
    private function edl(array $words): int
    {
        $given = Arguments::parse($words, ['-o' => true]);
        $sequence = $this->sequence($given->only('file'));
        $files = EdlWriter::write($sequence);
        $target = $given->value('-o');
        if ($target === null) {
            fwrite($this->out, implode('', $files));

            return 0;
        }
        $written = [];
        foreach ($files as $index => $text) {
            $path = $index === 0 ? $target : preg_replace('/(\.[^.\/]*)?\z/', '_' . ($index + 1) . '$1', $target, 1);
            if (@file_put_contents($path, $text) !== strlen($text)) {
                throw UnableToReadMedia::missing($path);
            }
            $written[] = $path;
        }
        // The table of those that an event cannot name goes along.
        $short = array_filter(
            ShortReels::of($sequence),
            static fn(string $name, string|int $reel): bool => $name !== (string) $reel,
            ARRAY_FILTER_USE_BOTH,
        );
        $this->json(['files' => $written] + ($short === [] ? [] : ['reels' => $short]));

        return 0;
    }

    /** @param  list<string>  $words */
    private function otio(array $words): int
    {
        fwrite($this->out, OtioWriter::write($this->sequence(Arguments::parse($words, [])->only('file'))));

        return 0;
    }

    private function sequence(string $file): Sequence
    {
        return Sequence::fromArray(json_decode(self::contents($file), true));
    }

    private function help(): int
    {
        fwrite($this->out, self::HELP);

        return 0;
    }

    /** @throws UnableToReadMedia if the file cannot be opened */
    private static function contents(string $file): string
    {
        $text = is_file($file) || $file === '/dev/stdin' ? @file_get_contents($file) : false;

        return $text === false ? throw UnableToReadMedia::missing($file) : $text;
    }

    private function json(mixed $value): void
    {
        fwrite($this->out, json_encode($value, self::JSON) . "\n");
    }
}
