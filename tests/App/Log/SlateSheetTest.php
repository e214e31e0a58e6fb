<?php

declare(strict_types=1);

namespace Tests\App\Log;

use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class SlateSheetTest extends TestCase
{
    /**
     * @return array<string, array{array<string, mixed>, list<array{string, string|null, bool}>, string}> flags, clips (device, way, sure),
     *     sync
     */
    public static function states(): array
    {
        return [
            'found by sound' => [[], [['A', 'sound', true], ['B', 'sound', true], ['S', 'sound', true]], 'sound'],
            'the weakest way of its pictures counts' => [
                [],
                [['A', 'sound', true], ['B', 'timecode', true], ['S', 'sound', true]],
                'timecode',
            ],
            'one unsure picture makes it unsure' => [[], [['A', 'sound', true], ['B', 'sound', false], ['S', 'sound', true]], 'unsure'],
            'nothing is placed yet' => [[], [['A', null, false], ['S', null, false]], 'not lined up'],
            'the recorder missed it' => [[], [['A', 'sound', true]], 'no sound'],
            'guide sound by choice' => [['is_guide_only' => true], [['A', 'sound', true]], 'guide'],
            'MOS' => [['is_mos' => true], [['A', 'timecode', true]], 'mos'],
            'sound alone' => [[], [['S', 'timecode', true]], 'no picture'],
            'wild' => [['is_wild' => true], [['S', 'timecode', true]], 'wild'],
        ];
    }

    /**
     * @param  array<string, mixed>  $flags
     * @param  list<array{string, string|null, bool}>  $clips
     */
    #[DataProvider('states')]
    public function test_a_take_says_how_its_picture_found_its_sound(array $flags, array $clips, string $sync): void
    {
        $take = $this->take('3', 1, $flags);
        foreach ($clips as $index => [$device, $way, $isSure]) {
            $clip = $this->clip("$device$index", $device, 10, 5, $take);
            if ($way !== null) {
                $this->place($clip, 10, $way, $isSure);
            }
        }
        $this->as()->getJson($this->onDay('log'))->assertJsonPath('takes.0.sync', $sync);
    }

    public function test_the_sheet_asks_the_database_the_same_few_times_whatever_the_day_holds(): void
    {
        $count = function (): int {
            DB::enableQueryLog();
            DB::flushQueryLog();
            app(\App\Domain\Log\SlateSheet::class)->of($this->day);

            return count(DB::getQueryLog());
        };
        $this->clip('A0', 'A', 0, 5, $this->take('3', 1));
        $few = $count();
        for ($n = 2; $n < 20; $n++) {
            $take = $this->take('3', $n);
            $this->clip("A$n", 'A', 20 * $n, 5, $take);
            $this->clip("S$n", 'S', 20 * $n, 5, $take);
        }
        self::assertSame($few, $count());
    }

    public function test_a_camera_is_missed_where_at_least_half_of_the_setup_has_it(): void
    {
        foreach (['AB', 'AB', 'A', 'A', ''] as $number => $letters) {
            $take = $this->take('7A', $number + 1, ['absent_devices' => $number === 3 ? ['B'] : null]);
            foreach (str_split($letters ?: 'S') as $letter) {
                $this->clip("$letter$number", $letter, 100 * $number, 10, $take);
            }
        }
        $this->clip('C-less', 'A', 900, 10, $this->take('7B', 1));
        $missed = array_column($this->as()->getJson($this->onDay('log'))->json('takes'), 'missed');
        self::assertSame([[], [], ['B'], [], ['A', 'B'], []], $missed);
    }

    public function test_a_recorder_beside_another_is_missed_and_can_be_said_not_to_have_rolled(): void
    {
        $second = \App\Models\Device::query()->create([
            'production_id' => $this->production->id,
            'letter' => 'T',
            'kind' => 'recorder',
            'lane' => 9,
        ]);
        foreach (['ST', 'ST', 'S', ''] as $number => $letters) {
            $take = $this->take('7A', $number + 1);
            foreach (['A', ...str_split($letters)] as $letter) {
                if ($letter !== '') {
                    $clip = $this->clip("$letter$number", $letter === 'T' ? 'S' : $letter, 100 * $number, 10, $take);
                    $letter === 'T' && $clip->update(['device_id' => $second->id]);
                }
            }
            $this->clip("X$number", 'A', 100 * $number + 50, 10);
        }
        $takes = fn(): array => $this->getJson($this->onDay('log'))->json('takes');
        $this->as();
        self::assertSame([[], [], ['T'], []], array_column($takes(), 'missed'), 'without any sound, that is what is asked');
        self::assertSame(['no sound'], array_slice(array_column($takes(), 'sync'), 3));
        foreach ([$takes()[2]['ulid'] => ['T'], $takes()[3]['ulid'] => ['S', 'T']] as $ulid => $still) {
            $this->patchJson($this->at("takes/$ulid"), ['changes' => ['absent_devices' => ['was' => [], 'now' => $still]]])->assertOk();
        }
        self::assertSame([[[], [], [], []], 'guide'], [array_column($takes(), 'missed'), $takes()[3]['sync']]);
    }

    public function test_imports_and_other_days_are_not_on_the_sheet(): void
    {
        $this->clip('cue', 'S', 0, more: ['import_kind' => 'music', 'device_id' => null]);
        $this->as()->getJson($this->onDay('log'))->assertJsonCount(0, 'unslated')->assertJsonCount(0, 'takes');
    }
}
