<?php

declare(strict_types=1);

namespace App\Domain\Footage;

/** What is kept of a clip beside its recording; the value is the file's name in the clip's media folder. */
enum MediaFile: string
{
    case Proxy = 'proxy.mp4';
    /** The proxy's pictures with the recorders' sound. */
    case Synced = 'synced.mp4';
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
    /** A recorder's files as one. */
    case Joined = 'joined.wav';

    /** As pages ask for it; null for what is no page's. */
    public static function asked(string $what): ?self
    {
        return match ($what) {
            'proxy' => self::Proxy,
            'synced' => self::Synced,
            'thumb-1' => self::FirstPicture,
            'thumb-2' => self::SlatePicture,
            'thumb-3' => self::MiddlePicture,
            'still' => self::Still,
            'peaks' => self::Peaks,
            default => null,
        };
    }

    public function type(): string
    {
        return match ($this) {
            self::Proxy, self::Synced => 'video/mp4',
            self::FirstPicture, self::SlatePicture, self::MiddlePicture, self::Still => 'image/jpeg',
            self::Points => 'application/json',
            self::Joined => 'audio/wav',
            self::Peaks, self::Guide => 'application/octet-stream',
        };
    }
}
