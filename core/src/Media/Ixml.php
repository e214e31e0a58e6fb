<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\UnableToReadXml;
use Cartella\Core\Xml;

/**
 * The iXML chunk of a recorder file, field by field as its specification names them.
 *
 * A field that the chunk does not say is null. Hostile XML is refused: a document type declaration ends the reading,
 * so no entity is ever expanded and nothing outside is fetched.
 */
final readonly class Ixml
{
    private const SIZE_LIMIT = 4 << 20;

    /**
     * @param  array{master_rate: ?string, current_rate: ?string, timecode_rate: ?string, timecode_flag: ?string, sample_rate: ?int,
     *     samples_since_midnight: ?int}  $speed
     * @param  list<array{channel: int, interleave: int, name: ?string, function: ?string}>  $tracks  channel and interleave from 1
     * @param  list<array{type: ?string, function: ?string, comment: ?string, sample: int,
     *     duration: int}>  $syncPoints  samples from the file's start
     * @param  array{family: ?string, uid: ?string, index: ?string, total: ?int}  $fileSet
     */
    private function __construct(
        public ?string $project,
        public ?string $scene,
        public ?string $take,
        public ?string $tape,
        public ?string $note,
        public ?bool $circled,
        public ?bool $noGood,
        public ?bool $falseStart,
        public ?bool $wildTrack,
        public ?string $fileUid,
        public ?string $ubits,
        public array $speed,
        public array $tracks,
        public array $syncPoints,
        public array $fileSet,
    ) {}

    /**
     * @param  list<string>  $problems  gets a sentence when the chunk cannot be read
     * @return self|null null when the chunk is not the XML it should be
     */
    public static function parse(string $xml, array &$problems): ?self
    {
        if (strlen($xml) > self::SIZE_LIMIT) {
            $problems[] = 'The iXML chunk is too long to be read.';

            return null;
        }
        if (str_starts_with($xml, "\xFF\xFE") || str_starts_with($xml, "\xFE\xFF")) {
            $xml = mb_convert_encoding($xml, 'UTF-8', 'UTF-16');
        }
        $xml = trim(rtrim($xml, "\0")); // chunks are filled up with zeros
        // Many recorders write Windows-1252 under any declaration; it is UTF-8 from here on, whatever it says.
        $xml = (string) preg_replace('/\A<\?xml[^>]*\?>/', '', Text::utf8(str_starts_with($xml, "\xEF\xBB\xBF") ? substr($xml, 3) : $xml));
        try {
            $root = Xml::parse($xml, LIBXML_NOCDATA);
        } catch (UnableToReadXml $trouble) {
            $problems[] = 'The iXML chunk was refused: ' . $trouble->reason() . '.';

            return null;
        }

        return self::ofElement($root);
    }

    private static function ofElement(\SimpleXMLElement $root): self
    {
        return new self(
            project: self::text($root->PROJECT),
            scene: self::text($root->SCENE),
            take: self::text($root->TAKE),
            tape: self::text($root->TAPE),
            note: self::text($root->NOTE),
            circled: self::flag($root->CIRCLED),
            noGood: self::flag($root->NO_GOOD),
            falseStart: self::flag($root->FALSE_START),
            wildTrack: self::flag($root->WILD_TRACK),
            fileUid: self::text($root->FILE_UID),
            ubits: self::text($root->UBITS),
            speed: self::speed($root->SPEED),
            tracks: self::tracks($root->TRACK_LIST),
            syncPoints: self::syncPoints($root->SYNC_POINT_LIST),
            fileSet: [
                'family' => self::text($root->FILE_SET->FAMILY_NAME),
                'uid' => self::text($root->FILE_SET->FAMILY_UID),
                'index' => self::text($root->FILE_SET->FILE_SET_INDEX),
                'total' => self::whole($root->FILE_SET->TOTAL_FILES),
            ],
        );
    }

    /**
     * @return array{master_rate: ?string, current_rate: ?string, timecode_rate: ?string, timecode_flag: ?string, sample_rate: ?int,
     *     samples_since_midnight: ?int}
     */
    private static function speed(?\SimpleXMLElement $speed): array
    {
        $high = self::whole($speed?->TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_HI);
        $low = self::whole($speed?->TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_LO);

        return [
            'master_rate' => self::text($speed?->MASTER_SPEED),
            'current_rate' => self::text($speed?->CURRENT_SPEED),
            'timecode_rate' => self::text($speed?->TIMECODE_RATE),
            'timecode_flag' => self::text($speed?->TIMECODE_FLAG),
            'sample_rate' => self::whole($speed?->TIMESTAMP_SAMPLE_RATE),
            'samples_since_midnight' => $low === null ? null : ((($high ?? 0) & 0x7fffffff) << 32) | ($low & 0xffffffff),
        ];
    }

    /** @return list<array{channel: int, interleave: int, name: ?string, function: ?string}> */
    private static function tracks(?\SimpleXMLElement $list): array
    {
        $tracks = [];
        foreach ($list->TRACK ?? [] as $track) {
            $channel = self::whole($track->CHANNEL_INDEX) ?? count($tracks) + 1;
            $tracks[] = [
                'channel' => $channel,
                'interleave' => self::whole($track->INTERLEAVE_INDEX) ?? $channel,
                'name' => self::text($track->NAME),
                'function' => self::text($track->FUNCTION),
            ];
        }

        return $tracks;
    }

    /** @return list<array{type: ?string, function: ?string, comment: ?string, sample: int, duration: int}> */
    private static function syncPoints(?\SimpleXMLElement $list): array
    {
        $points = [];
        foreach ($list->SYNC_POINT ?? [] as $point) {
            $high = self::whole($point->SYNC_POINT_HIGH) ?? 0;
            $points[] = [
                'type' => self::text($point->SYNC_POINT_TYPE),
                'function' => self::text($point->SYNC_POINT_FUNCTION),
                'comment' => self::text($point->SYNC_POINT_COMMENT),
                'sample' => (($high & 0x7fffffff) << 32) | ((self::whole($point->SYNC_POINT_LOW) ?? 0) & 0xffffffff),
                'duration' => self::whole($point->SYNC_POINT_EVENT_DURATION) ?? 0,
            ];
        }

        return $points;
    }

    /** The rate that the recorder counts labels at, with its drop flag; null when it names none that exists. */
    public function timecodeRate(): ?\Cartella\Core\Time\FrameRate
    {
        if (preg_match('/\A(\d{1,6})\/(\d{1,6})\z/', $this->speed['timecode_rate'] ?? '', $part) !== 1) {
            return null;
        }
        try {
            $rate = \Cartella\Core\Time\FrameRate::ofFraction((int) $part[1], (int) $part[2]);
        } catch (\Cartella\Core\Time\Exception\InvalidTime) {
            return null;
        }
        $drops = strtoupper($this->speed['timecode_flag'] ?? '') === 'DF' && $rate->allowsDropFrame();

        return $rate->withDropFrame($drops);
    }

    private static function text(?\SimpleXMLElement $element): ?string
    {
        $text = $element === null ? '' : trim((string) $element);

        return $text === '' ? null : mb_substr($text, 0, 4000);
    }

    private static function flag(?\SimpleXMLElement $element): ?bool
    {
        return match (strtoupper(self::text($element) ?? '')) {
            'TRUE' => true,
            'FALSE' => false,
            default => null,
        };
    }

    private static function whole(?\SimpleXMLElement $element): ?int
    {
        $text = self::text($element);

        return $text !== null && preg_match('/\A-?\d{1,18}\z/', $text) === 1 ? (int) $text : null;
    }
}
