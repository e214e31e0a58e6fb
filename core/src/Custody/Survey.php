<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Failure;
use Cartella\Core\Media\ContainerEnd;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\MediaNames;
use Cartella\Core\Media\MovieHead;
use Cartella\Core\Media\Probe;
use Cartella\Core\Media\WavReader;

/**
 * Looks a card through before it is copied: what is on it, when it was shot, and what will give trouble. Files are
 * only opened for the few bytes that say whether the device closed them and when.
 */
final class Survey
{
    private const PROBLEM_LIMIT = 60;

    private const REPORT_BYTES = 4096;

    /** Names that some systems keep for devices, whatever the extension. */
    private const RESERVED = '/\A(con|prn|aux|nul|com[0-9]|lpt[0-9])(\.|\z)/i';

    private int $files = 0;

    private int $bytes = 0;

    private int $clips = 0;

    private int $sounds = 0;

    /** @var list<array{kind: 'link'|'unreadable'|'empty'|'unfinished'|'metadata'|'twice'|'twin'|'name', path: string, text: string}> */
    private array $problems = [];

    private int $problemCount = 0;

    /** @var array<string, string> path by folded path */
    private array $folded = [];

    /** @var array<string, string> path by folded name, of media */
    private array $names = [];

    /** @var array{name: string, at: string|null}|null */
    private ?array $first = null;

    /** @var array{name: string, at: string|null}|null */
    private ?array $last = null;

    /** @var array<string, int> */
    private array $dates = [];

    private ?string $report = null;

    private ?string $tape = null;

    private ?string $project = null;

    private function __construct(private readonly string $root, private readonly \DateTimeZone $zone) {}

    /**
     * @param  (callable(string $path, int $bytes): void)|null  $onFile  for each regular file
     * @param  \DateTimeZone|null  $zone  in which clips that count in universal time are dated
     */
    public static function of(string $root, ?callable $onFile = null, ?\DateTimeZone $zone = null): CardSurvey
    {
        $survey = new self($root, $zone ?? new \DateTimeZone('UTC'));
        $list = hash_init('xxh128');
        $state = hash_init('xxh128');
        foreach (FolderWalk::of($root) as $path => $facts) {
            $path = (string) $path;
            if ($facts['type'] === 'folder') {
                $survey->name($path, 'The folder ');

                continue;
            }
            hash_update($state, self::stateLine($path, $facts));
            if ($facts['type'] !== 'file') {
                $survey->problem(
                    $facts['type'] === 'unreadable' ? 'unreadable' : 'link',
                    $path,
                    $facts['type'] === 'unreadable' ? 'cannot be read' : 'is not a regular file and will not be copied',
                );

                continue;
            }
            hash_update($list, "$path\0{$facts['size']}\n");
            $survey->file($path, $facts['size']);
            if ($onFile !== null) {
                $onFile($path, $facts['size']);
            }
        }
        ksort($survey->dates);

        return new CardSurvey(
            $survey->files,
            $survey->bytes,
            $survey->clips,
            $survey->sounds,
            $survey->first,
            $survey->last,
            $survey->dates,
            hash_final($list),
            hash_final($state),
            $survey->report,
            $survey->tape,
            $survey->project,
            $survey->problems,
            $survey->problemCount,
        );
    }

    /** What {@see CardSurvey::$state} would be now; no file is opened for it. */
    public static function stateOf(string $root): string
    {
        $state = hash_init('xxh128');
        foreach (FolderWalk::of($root) as $path => $facts) {
            if ($facts['type'] !== 'folder') {
                hash_update($state, self::stateLine((string) $path, $facts));
            }
        }

        return hash_final($state);
    }

    /** @param  array{size: int, mtime: int}  $facts */
    private static function stateLine(string $path, array $facts): string
    {
        return "$path\0{$facts['size']}\0{$facts['mtime']}\n";
    }

    private function file(string $path, int $bytes): void
    {
        $this->files++;
        $this->bytes += $bytes;
        $this->name($path);
        if (
            $this->report === null &&
            !str_contains($path, '/') &&
            str_ends_with(strtoupper($path), '_REPORT.TXT') &&
            !MediaNames::isJunk($path)
        ) {
            $this->report = mb_scrub((string) @file_get_contents($this->root . '/' . $path, false, null, 0, self::REPORT_BYTES));
        }
        $kind = MediaNames::isJunk($path) ? null : MediaNames::kindOf($path);
        if ($kind !== 'picture' && $kind !== 'sound') {
            return;
        }
        $this->clips++;
        $this->sounds += (int) ($kind === 'sound');
        $at = null;
        if ($bytes === 0) {
            $this->problem('empty', $path, 'is empty');
        } else {
            $at = $this->look($path);
        }
        $clip = ['name' => mb_scrub(basename($path)), 'at' => $at];
        if ($at !== null) {
            $date = substr($at, 0, 10);
            $this->dates[$date] = ($this->dates[$date] ?? 0) + 1;
        }
        $this->first =
            $this->first === null || ($at !== null && ($this->first['at'] === null || $at < $this->first['at'])) ? $clip : $this->first;
        $this->last =
            $this->last === null || ($at === null && $this->last['at'] === null) || ($at !== null && $at >= (string) $this->last['at'])
                ? $clip
                : $this->last;
        $name = mb_strtolower(mb_scrub(basename($path)));
        if (isset($this->names[$name]) && dirname($this->names[$name]) !== dirname($path)) {
            $this->problem('twice', $path, 'has the name of another clip, ' . Failure::quote($this->names[$name]));
        } else {
            $this->names[$name] = $path;
        }
    }

    /** @return string|null when the clip says it was made */
    private function look(string $path): ?string
    {
        $file = $this->root . '/' . $path;
        switch (strtolower(pathinfo($path, PATHINFO_EXTENSION))) {
            case 'mov':
            case 'mp4':
            case 'm4v':
                $head = MovieHead::read($file);
                if ($head === null || !$head->isWhole) {
                    $this->problem('unfinished', $path, 'was not closed by the camera; it may not play');
                }

                return $head?->createdAt === null
                    ? null
                    : (new \DateTimeImmutable('@' . $head->createdAt))->setTimezone($this->zone)->format('Y-m-d H:i:s');
            case 'wav':
            case 'bwf':
            case 'rf64':
                return $this->wav($file, $path);
            default:
                if (ContainerEnd::isWhole($file) === false) {
                    $this->problem('unfinished', $path, 'was not closed by the camera; it may not play');
                }

                return null;
        }
    }

    private function wav(string $file, string $path): ?string
    {
        try {
            $wav = WavReader::read($file);
        } catch (UnableToReadMedia $trouble) {
            // A coding that is read by others is no fault of the recorder.
            if ($trouble->problemCode() !== UnableToReadMedia::CODING) {
                $this->problem('unfinished', $path, 'was not closed by the recorder; it may not play');
            }

            return null;
        }
        if (!$wav->isWhole || $wav->dataBytes === 0) {
            $this->problem(
                'unfinished',
                $path,
                $wav->dataBytes === 0 ? 'holds no sound' : 'was not closed by the recorder; its end may be missing',
            );
        } elseif ($wav->problems !== []) {
            $this->problem('metadata', $path, 'holds metadata that is not read: ' . lcfirst(rtrim($wav->problems[0], '.')));
        }
        $this->tape ??= $wav->ixml?->tape;
        $this->project ??= $wav->ixml?->project;
        $date = Probe::bextDate($wav->bext);

        return $date === null || strlen($date) < 19 ? null : substr(strtr($date, 'T', ' '), 0, 19);
    }

    private function name(string $path, string $what = ''): void
    {
        if (!Manifest::canName($path)) {
            $this->problem(
                'name',
                $path,
                'has a name that no manifest can carry' . ($what === '' ? ' and will not be copied' : '; nothing in it will be copied'),
                $what,
            );

            return;
        }
        $fold = mb_strtolower(class_exists(\Normalizer::class) ? (string) \Normalizer::normalize($path, \Normalizer::FORM_C) : $path);
        if (isset($this->folded[$fold])) {
            $this->problem(
                'twin',
                $path,
                'differs from ' . Failure::quote($this->folded[$fold]) . ' only in ways that other systems do not see',
                $what,
            );
        } else {
            $this->folded[$fold] = $path;
        }
        $name = basename($path);
        $why = match (true) {
            preg_match('/[<>:"|?*\\\\\x00-\x1F]/', $name, $part) === 1 => ctype_cntrl($part[0])
                ? 'a line break or another control character'
                : 'the sign ' . $part[0],
            preg_match('/[ .]\z/', $name) === 1 => 'a space or dot at its end',
            preg_match(self::RESERVED, $name) === 1 => 'a word that is kept for devices',
            default => null,
        };
        if ($why !== null) {
            $this->problem('name', $path, 'has a name that other systems refuse: ' . $why, $what);
        }
    }

    /** @param  'link'|'unreadable'|'empty'|'unfinished'|'metadata'|'twice'|'twin'|'name'  $kind */
    private function problem(string $kind, string $path, string $text, string $what = ''): void
    {
        $this->problemCount++;
        if (count($this->problems) < self::PROBLEM_LIMIT) {
            $this->problems[] = [
                'kind' => $kind,
                'path' => mb_scrub($path),
                'text' => sprintf('%s%s %s.', $what, Failure::quote(basename($path)), $text),
            ];
        }
    }
}
