<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Cartella\Core\Time\Ticks;
use Illuminate\Support\Str;

/** A shoot day of two cameras with thirty clips each and no slates, and the lines with which a person logs them. */
final class SixtyClips
{
    public const DAY = 90;

    private const SETUPS = [
        '3' => ['wide', 'Mara unlocks the wheel'],
        '3A' => ['medium', 'Mara turns, drops the ledger'],
        '7' => ['wide', 'Quill measures the gate'],
        '7A' => ['over', 'Over Quill to the far bank'],
        '12' => ['wide', 'Quill reads the deed aloud'],
        '12A' => ['close', 'Mara listening'],
    ];

    private const TAKES = 5;

    public static function database(): \PDO
    {
        return new \PDO(
            sprintf('mysql:host=127.0.0.1;port=%d;dbname=%s;charset=utf8mb4', getenv('DB_PORT'), getenv('DB_DATABASE')),
            (string) getenv('DB_USERNAME'),
            (string) getenv('DB_PASSWORD'),
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
        );
    }

    /** @return string the day's address, `/PRODUCTION/DAY` */
    public static function insert(\PDO $database, string $production): string
    {
        self::remove($database);
        $ask = static function (string $sql, array $values = []) use ($database): \PDOStatement {
            $statement = $database->prepare($sql);
            $statement->execute($values);

            return $statement;
        };
        [$id, $ulid] = $ask('SELECT id, ulid FROM productions WHERE name = ?', [$production])->fetch(\PDO::FETCH_NUM);
        $ask('INSERT INTO shoot_days (ulid, production_id, number, date, unit) VALUES (?, ?, ?, ?, ?)', [
            ($day = (string) Str::ulid()),
            $id,
            self::DAY,
            '2026-12-24',
            'Main unit',
        ]);
        $dayId = $database->lastInsertId();
        foreach (['A', 'B'] as $letter) {
            $device = $ask('SELECT id FROM devices WHERE production_id = ? AND letter = ?', [$id, $letter])->fetchColumn();
            for ($n = 0; $n < count(self::SETUPS) * self::TAKES; $n++) {
                $name = sprintf('%s050C%03d', $letter, $n + 1);
                $ask(
                    'INSERT INTO clips (ulid, production_id, shoot_day_id, device_id, kind, name, path, path_hash, ' .
                        'duration_ticks, rate_num, rate_den, frames, start_ticks, channels, facts) VALUES (?, ?, ?, ?, ?, ?, ' .
                        '?, ?, ?, 25, 1, 500, ?, \'[]\', \'{}\')',
                    [
                        (string) Str::ulid(),
                        $id,
                        $dayId,
                        $device,
                        'picture',
                        $name,
                        $name . '.mov',
                        md5($name),
                        20 * Ticks::PER_SECOND,
                        (36_000 + 60 * $n) * Ticks::PER_SECOND,
                    ],
                );
            }
        }

        return "/$ulid/$day";
    }

    public static function remove(\PDO $database): void
    {
        $database->prepare('DELETE FROM shoot_days WHERE number = ?')->execute([self::DAY]);
    }

    /** @return list<string> what is typed into the log line for each clip, in the order of the sheet */
    public static function lines(): array
    {
        $lines = [];
        foreach (['A', 'B'] as $letter) {
            foreach (self::SETUPS as $setup => [$size, $text]) {
                for ($take = 1; $take <= self::TAKES; $take++) {
                    $lines[] = match (true) {
                        $take > 1 => '+',
                        $letter === 'A' => "$setup/1 $size, $text",
                        default => "$setup/1",
                    };
                }
            }
        }

        return $lines;
    }

    /**
     * @return array<string, array{string, string, int, string, string}> scene, setup, take, size and description by clip,
     *     as the log must have them
     */
    public static function expected(): array
    {
        $expected = [];
        foreach (['A', 'B'] as $letter) {
            $n = 0;
            foreach (self::SETUPS as $setup => [$size, $text]) {
                for ($take = 1; $take <= self::TAKES; $take++) {
                    $expected[sprintf('%s050C%03d', $letter, ++$n)] = [
                        rtrim((string) $setup, 'A'),
                        (string) $setup,
                        $take,
                        ucfirst($size),
                        $text,
                    ];
                }
            }
        }

        return $expected;
    }

    /** @return array<string, array{string, string, int, string, string}> as the database has them */
    public static function logged(\PDO $database): array
    {
        $logged = [];
        foreach (
            $database->query(
                'SELECT clips.name, takes.scene, takes.setup, takes.take, takes.size, takes.description FROM clips ' .
                    'JOIN shoot_days ON shoot_days.id = clips.shoot_day_id JOIN take_parts ON take_parts.clip_id = clips.id ' .
                    'JOIN takes ON takes.id = take_parts.take_id WHERE ' .
                    'shoot_days.number = ' .
                    self::DAY .
                    ' ORDER BY clips.name',
            ) ?:
            []
            as $row
        ) {
            $logged[$row['name']] = [$row['scene'], $row['setup'], (int) $row['take'], $row['size'], $row['description']];
        }

        return $logged;
    }
}
