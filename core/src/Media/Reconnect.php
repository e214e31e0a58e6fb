<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * Finds which recordings that come in are those that went away: by the checksum of their files; else by reel, timecode and length;
 * else by name and length. Where two would fit, none is taken: a person says which.
 */
final class Reconnect
{
    /**
     * @param  array<int|string, Traits>  $gone
     * @param  array<int|string, Traits>  $came
     * @return array<int|string, array{gone: int|string, by: FoundBy}> by the keys of those that came
     */
    public static function match(array $gone, array $came): array
    {
        $found = [];
        foreach (FoundBy::cases() as $by) {
            $open = self::byKey($gone, $by);
            foreach (self::byKey($came, $by) as $key => $arrived) {
                $lost = $open[$key] ?? [];
                // The same bytes under the same name are one of several copies; anything else that is there twice is in doubt.
                $pairs = $by === FoundBy::Hash ? self::copies($lost, $arrived, $gone, $came) : [];
                if ($pairs === [] && count($lost) === 1 && count($arrived) === 1) {
                    $pairs = [[$lost[0], $arrived[0]]];
                }
                foreach ($pairs as [$old, $new]) {
                    $found[$new] = ['gone' => $old, 'by' => $by];
                    unset($gone[$old], $came[$new]);
                }
            }
        }

        return $found;
    }

    /**
     * @param  array<int|string, Traits>  $recordings
     * @return array<string, list<int|string>>
     */
    private static function byKey(array $recordings, FoundBy $by): array
    {
        $keys = [];
        foreach ($recordings as $id => $traits) {
            $key = $traits->key($by);
            if ($key !== null) {
                $keys[$key][] = $id;
            }
        }

        return $keys;
    }

    /**
     * @param  list<int|string>  $lost
     * @param  list<int|string>  $arrived
     * @param  array<int|string, Traits>  $gone
     * @param  array<int|string, Traits>  $came
     * @return list<array{int|string, int|string}>
     */
    private static function copies(array $lost, array $arrived, array $gone, array $came): array
    {
        if (count($lost) < 2 && count($arrived) < 2) {
            return [];
        }
        $pairs = [];
        foreach ($lost as $old) {
            foreach ($arrived as $at => $new) {
                if (mb_strtolower($gone[$old]->name) === mb_strtolower($came[$new]->name)) {
                    $pairs[] = [$old, $new];
                    unset($arrived[$at]);
                    break;
                }
            }
        }

        return $pairs;
    }
}
