<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

/** What a channel of sound holds, as far as a person would say who listens into it here and there. */
enum ChannelKind: string
{
    /** Something happens on it. */
    case Sound = 'sound';

    /** A noise floor on which nothing happens, such as the tone of a room. */
    case Still = 'still';

    /** Loud and always the same: a tone, hum. */
    case Steady = 'steady';

    case Nothing = 'nothing';

    /** Linear timecode (SMPTE ST 12-1). */
    case Timecode = 'timecode';

    /**
     * The channels that are worth hearing: those on which something happens; where there are none, those with the tone of a
     * room; then what is steady; then what is silent. Timecode never is.
     *
     * @param  list<self>  $kinds  in the order of the channels
     * @return list<int> from 1
     */
    public static function worth(array $kinds): array
    {
        foreach ([self::Sound, self::Still, self::Steady, self::Nothing] as $wanted) {
            $found = array_keys(array_filter($kinds, static fn(self $kind): bool => $kind === $wanted));
            if ($found !== []) {
                return array_map(static fn(int $at): int => $at + 1, $found);
            }
        }

        return [];
    }
}
