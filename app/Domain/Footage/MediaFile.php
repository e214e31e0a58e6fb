<?php

declare(strict_types=1);

namespace App\Domain\Footage;

/** What is kept of a clip beside its recording; the value is the file's name in the clip's media folder. */
enum MediaFile: string
{
    case Proxy = 'proxy.mp4';
    /** The proxy's pictures 320 wide, without sound, for several at once. */
    case Small = 'small.mp4';
    /** One channel of its sound, by its number from 1. */
    case Channel = 'channel.mp4';
    /** The first picture, one at the slate, one in the middle. */
    case FirstPicture = 'thumb-1.jpg';
    case SlatePicture = 'thumb-2.jpg';
    case MiddlePicture = 'thumb-3.jpg';
    case Still = 'still.jpg';
    case Peaks = 'peaks';
    /** 8 kHz sound that line-up compares, and its shape. */
    case Guide = 'guide';
    /** Claps, onsets and flashes. */
    case Points = 'points.json';
    /** Of a variable rate: which of the file's pictures each frame shows. */
    case Frames = 'frames';
    /** A recorder's files as one. */
    case Joined = 'joined.wav';

    /** Counted up when what is made for players is made otherwise; what has an older number is made anew. */
    public const RECIPE = 2;

    /** What players ask for: its name carries the recipe, so that old and new are never taken for each other. */
    private const OF_RECIPE = [self::Proxy, self::Small, self::Channel, self::Peaks];

    /** As pages ask for it, with the number of a channel; null for what is no page's. */
    public static function asked(string $what): ?self
    {
        return match (true) {
            $what === 'proxy' => self::Proxy,
            $what === 'small' => self::Small,
            $what === 'thumb-1' => self::FirstPicture,
            $what === 'thumb-2' => self::SlatePicture,
            $what === 'thumb-3' => self::MiddlePicture,
            $what === 'still' => self::Still,
            $what === 'peaks' => self::Peaks,
            preg_match('/\Achannel-[1-9]\d{0,2}\z/', $what) === 1 => self::Channel,
            default => null,
        };
    }

    /** The file's name on the disk. */
    public function file(int $channel = 0): string
    {
        if (!in_array($this, self::OF_RECIPE, true)) {
            return $this->value;
        }
        $name = pathinfo($this->value);

        return $name['filename'] .
            ($channel > 0 ? "-$channel" : '') .
            '.' .
            self::RECIPE .
            (isset($name['extension']) ? '.' . $name['extension'] : '');
    }

    /** Whether a file of a media folder was made by an older recipe: one that has no number, or another one. */
    public static function isOld(string $file): bool
    {
        return preg_match('/\A(?:synced|proxy|small|peaks|channel-\d+)(?:\.(\d+))?(?:\.mp4)?\z/', $file, $part) === 1 &&
            (int) ($part[1] ?? 1) !== self::RECIPE;
    }

    public function type(): string
    {
        return match ($this) {
            self::Proxy, self::Small => 'video/mp4',
            self::Channel => 'audio/mp4',
            self::FirstPicture, self::SlatePicture, self::MiddlePicture, self::Still => 'image/jpeg',
            self::Points => 'application/json',
            self::Joined => 'audio/wav',
            self::Peaks, self::Guide, self::Frames => 'application/octet-stream',
        };
    }
}
