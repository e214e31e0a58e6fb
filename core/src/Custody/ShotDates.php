<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

/** Which shoot day a card is of, by the dates on its clips (`YYYY-MM-DD`), and what speaks against the rest. */
final readonly class ShotDates
{
    /** A clock this far from every shoot day was never set. */
    private const FAR_OFF_DAYS = 60;

    /** @param  list<string>  $problems plain sentences */
    private function __construct(public ?string $date, public ?int $day, public array $problems) {}

    /**
     * @param  array<string, int>  $clips  counts by date
     * @param  array<int, string>  $days  dates of the production's shoot days, by their numbers
     * @param  bool  $isOfDevice  a folder of imports has no day to be of
     */
    public static function of(array $clips, array $days, bool $isOfDevice): self
    {
        if ($clips === []) {
            return new self(null, null, []);
        }
        arsort($clips);
        $date = (string) array_key_first($clips);
        $noon = new \DateTimeImmutable($date . ' 12:00');
        $distances = array_map(static fn(string $day): int => (int) $noon->diff(new \DateTimeImmutable($day . ' 12:00'))->days, $days);
        if ($distances !== [] && min($distances) > self::FAR_OFF_DAYS) {
            return new self($date, null, [sprintf('Its clock is far off: it says %s.', $date)]);
        }
        $day = array_search($date, $days, true);
        $problems = [];
        if ($day === false && $days !== [] && $isOfDevice) {
            $problems[] = "Its clips are dated $date, which is no shoot day.";
        }
        // A day that goes on past midnight ends on the next date.
        $next = $noon->modify('+1 day')->format('Y-m-d');
        foreach ($clips as $other => $count) {
            if (!in_array((string) $other, [$date, $next], true)) {
                $problems[] = sprintf('%s dated %s, outside the shoot day.', $count === 1 ? 'One clip is' : "$count clips are", $other);
            }
        }

        return new self($date, $day === false ? null : $day, $problems);
    }
}
