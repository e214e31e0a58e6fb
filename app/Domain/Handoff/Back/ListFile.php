<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Support\Problem;
use Cartella\Core\CartellaException;
use Cartella\Core\Exchange\Aaf\AafReader;
use Cartella\Core\Exchange\Edl\EdlReader;
use Cartella\Core\Exchange\Otio\OtioReader;
use Cartella\Core\Exchange\Received;
use Cartella\Core\Time\FrameRate;

/** A list of the editing team, in whichever of the formats it is; what it is, its bytes say and not its name. */
final class ListFile
{
    public const FORMATS = ['edl' => 'edit decision list', 'otio' => 'timeline', 'aaf' => 'AAF'];

    /** @return 'edl'|'otio'|'aaf' */
    public static function format(string $bytes): string
    {
        return match (true) {
            str_starts_with($bytes, "\xD0\xCF\x11\xE0") => 'aaf',
            preg_match('/\A(?:\xEF\xBB\xBF)?\s*\{/', substr($bytes, 0, 200)) === 1 => 'otio',
            default => 'edl',
        };
    }

    /**
     * @param  FrameRate  $rate  of a list that says none
     *
     * @throws Problem if it is none of them
     */
    public static function read(string $bytes, FrameRate $rate): Received
    {
        try {
            return match (self::format($bytes)) {
                'aaf' => AafReader::read($bytes),
                'otio' => OtioReader::read($bytes),
                default => EdlReader::read($bytes, $rate),
            };
        } catch (CartellaException $broken) {
            throw Problem::refused('list.unreadable', $broken->getMessage(), 'Bring an EDL, an OTIO or an AAF file.');
        }
    }
}
