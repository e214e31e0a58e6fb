<?php

declare(strict_types=1);

namespace Cartella\Demo;

/**
 * Low Water as data: who shot what, when, with which device, and what was said.
 *
 * Times of day are seconds on the recorder's clock; lengths are seconds; frames are at 25 to the second. Everything
 * that varies from take to take comes from one seeded generator, so the same seed gives the same production.
 */
final class Scenario
{
    public const SEED = 19_410_507;

    public const RATE = 25;

    /** Camera B's clock is 1 s 7 frames late all of day 1. */
    public const CAMERA_B_LATE_FRAMES = 32;

    /** The recorder's crystal runs fast on day 2, parts per million. */
    public const RECORDER_DRIFT_PPM = 18;

    public const VOICES = [
        'mara' => ['voice' => 'en-gb+f3', 'pitch' => 46],
        'quill' => ['voice' => 'en-gb+m3', 'pitch' => 40],
        'edda' => ['voice' => 'en-gb-scotland+f2', 'pitch' => 34],
        'jonn' => ['voice' => 'en-gb-x-rp+m7', 'pitch' => 30],
    ];

    public const SCENES = [
        '3' => ['heading' => 'INT. WHEEL ROOM, DAY', 'place' => 'wheel'],
        '7' => ['heading' => 'EXT. SLUICE, DUSK', 'place' => 'sluice'],
        '12' => ['heading' => 'INT. ATTIC, NIGHT', 'place' => 'attic'],
        '21' => ['heading' => 'EXT. HARBOUR, DAY', 'place' => 'harbour'],
    ];

    /** Setup to what happens, the sizes on camera A and B, and the lines. */
    public const SETUPS = [
        '3' => [
            'text' => 'Mara unlocks the wheel',
            'size' => 'Wide',
            'lines' => [
                ['mara', 'You are early, Mister Quill. The tide is not out yet.'],
                ['quill', 'I was told the wheel turns at low water.'],
                ['mara', 'It turns when I say so.'],
            ],
        ],
        '3A' => [
            'text' => 'Mara turns, drops the ledger',
            'size' => 'Medium',
            'lines' => [['quill', 'How old is the main shaft?'], ['mara', 'Older than the survey you are carrying.']],
        ],
        '3B' => ['text' => 'Ledger on the floor, insert', 'size' => 'Close', 'lines' => []],
        '7' => [
            'text' => 'Quill measures the gate',
            'size' => 'Wide',
            'lines' => [
                ['mara', 'Read me the gauge.'],
                ['quill', 'One metre forty, and falling.'],
                ['mara', 'Then somebody has opened the sluice.'],
            ],
        ],
        '7A' => [
            'text' => 'Over Quill to the far bank',
            'size' => 'Medium',
            'lines' => [['quill', 'There is a crack along the gate.'], ['mara', 'There has always been a crack along the gate.']],
        ],
        '7B' => [
            'text' => 'Mara at the gauge',
            'size' => 'Medium',
            'lines' => [['mara', 'Hold the lamp lower.'], ['quill', 'It reads what it read before.']],
        ],
        '7C' => [
            'text' => 'Quill climbs down to the gate',
            'size' => 'Wide',
            'lines' => [['quill', 'Is it always this slippery?'], ['mara', 'Only where you put your feet.']],
        ],
        '12' => [
            'text' => 'Quill reads the deed aloud',
            'size' => 'Wide',
            'lines' => [
                ['quill', 'I found the deed. Your grandmother never signed it.'],
                ['mara', 'She could not write her name, but she could mend a gate.'],
                ['quill', 'Then who owns the mill?'],
            ],
        ],
        '12A' => [
            'text' => 'Mara listening',
            'size' => 'Close',
            'lines' => [['mara', 'Listen. The water has turned.'], ['quill', 'I hear nothing at all.']],
        ],
    ];

    /**
     * Day 1 in shooting order. `at`: when the recorder starts, `HH:MM:SS`; `on`: devices that rolled; `mark`: what the
     * floor said of it; `recorder`: the take number that the recorder typed when it is wrong.
     */
    public const TAKES = [
        ['setup' => '3', 'take' => 1, 'at' => '09:12:10', 'length' => 14, 'on' => 'ABS', 'mark' => 'ng'],
        ['setup' => '3', 'take' => 2, 'at' => '09:21:40', 'length' => 16, 'on' => 'ABS', 'mark' => 'circled'],
        ['setup' => '3A', 'take' => null, 'at' => '09:40:02', 'length' => 4, 'on' => 'B', 'mark' => 'false start'],
        ['setup' => '3A', 'take' => 1, 'at' => '09:42:30', 'length' => 12, 'on' => 'ABS', 'mark' => 'ng'],
        ['setup' => '3A', 'take' => 2, 'at' => '09:48:05', 'length' => 12, 'on' => 'AB', 'mark' => null],
        ['setup' => '3A', 'take' => 3, 'at' => '09:55:20', 'length' => 15, 'on' => 'ABS', 'mark' => 'circled', 'recorder' => 4],
        ['setup' => '3B', 'take' => 1, 'at' => '10:20:45', 'length' => 9, 'on' => 'A', 'mark' => 'mos'],
        ['setup' => '3B', 'take' => 2, 'at' => '10:24:10', 'length' => 8, 'on' => 'A', 'mark' => 'mos circled'],
        ['setup' => '7', 'take' => 1, 'at' => '13:05:00', 'length' => 15, 'on' => 'ABS', 'mark' => null],
        ['setup' => '7', 'take' => 2, 'at' => '13:17:30', 'length' => 16, 'on' => 'ABS', 'mark' => 'tail circled'],
        ['setup' => '7A', 'take' => 1, 'at' => '14:02:15', 'length' => 11, 'on' => 'AS', 'mark' => 'ng'],
        ['setup' => '7A', 'take' => 2, 'at' => '14:09:50', 'length' => 13, 'on' => 'ABS', 'mark' => 'circled'],
        ['setup' => '12', 'take' => 1, 'at' => '15:40:20', 'length' => 18, 'on' => 'ABS', 'mark' => null],
        ['setup' => '12', 'take' => 2, 'at' => '15:52:00', 'length' => 20, 'on' => 'ABS', 'mark' => 'circled'],
        ['setup' => '12A', 'take' => 1, 'at' => '16:20:35', 'length' => 12, 'on' => 'ABS', 'mark' => null],
        ['setup' => '12A', 'take' => 2, 'at' => '16:28:10', 'length' => 14, 'on' => 'ABS', 'mark' => 'circled'],
    ];

    /** Sound without picture: name, recorder's scene field, note. */
    public const WILD = [
        [
            'name' => '7-WILD1',
            'scene' => '7',
            'at' => '14:30:00',
            'length' => 8,
            'note' => 'Wild track: sluice gate lines',
            'lines' => [['mara', 'Shut it. Shut it now.'], ['quill', 'It will not hold.']],
        ],
        ['name' => '12-TONE1', 'scene' => '12', 'at' => '16:40:00', 'length' => 10, 'note' => 'Room tone, attic', 'lines' => []],
    ];

    /** Day 2, scene 21: `at` and `length` in seconds from the recorder's start, which is at 10:02:00. */
    public const MEETING = [
        'at' => '10:02:00',
        'length' => 240,
        'clips' => [
            'A' => [[4, 52], [62, 38], [104, 44], [153, 36], [196, 40]],
            'B' => [[9, 44], [58, 60], [126, 57], [190, 45]],
            'C' => [[15, 70], [92, 31], [130, 15], [150, 66]],
        ],
    ];

    /**
     * Day 3, scene 7: the recorder kept rolling over six takes, and typed the first of them; `at` and `length` in seconds from
     * its start.
     */
    public const RUN = [
        'at' => '08:40:00',
        'length' => 126,
        'takes' => [
            ['setup' => '7B', 'take' => 1, 'at' => 3, 'length' => 12],
            ['setup' => '7B', 'take' => 2, 'at' => 22, 'length' => 13],
            ['setup' => '7B', 'take' => 3, 'at' => 43, 'length' => 12],
            ['setup' => '7C', 'take' => 1, 'at' => 66, 'length' => 13],
            ['setup' => '7C', 'take' => 2, 'at' => 86, 'length' => 12],
            ['setup' => '7C', 'take' => 3, 'at' => 105, 'length' => 14],
        ],
    ];

    public const MEETING_LINES = [
        ['edda', 'Sit where you like, but keep the door open, the wind is company.'],
        ['jonn', 'We have until the tide turns, and it will not wait for minutes.'],
        ['quill', 'My name is Tobias Quill and I have come to survey the mill.'],
        ['mara', 'They know who you are. Half of them sold you breakfast.'],
        ['jonn', 'What does a survey do to a harbour toll?'],
        ['quill', 'Nothing, unless the channel has moved.'],
        ['edda', 'The channel has moved every winter since I was a girl.'],
        ['mara', 'And every spring we have moved it back.'],
        ['jonn', 'With forty barrows of gravel and no thanks.'],
        ['quill', 'I can write the thanks into the report, if that would help.'],
        ['edda', 'Write down the price of gravel while you are at it.'],
        ['mara', 'The wheel paid for the lamp on the north pier.'],
        ['jonn', 'The lamp has been dark since October.'],
        ['edda', 'Because someone took the oil to grease a shaft.'],
        ['mara', 'Seven litres, and I brought nine back.'],
        ['quill', 'Might we return to the question of the deed?'],
        ['jonn', 'There it is. I told you he would say deed before noon.'],
        ['edda', 'A deed is paper. A gate is oak. Which one holds water?'],
        ['quill', 'In my office, the paper.'],
        ['mara', 'Then bring your office here at spring tide and see it float.'],
        ['jonn', 'I propose we vote on the sluice before anybody drowns.'],
        ['edda', 'Those who want the sluice mended, raise a hand.'],
        ['quill', 'I count eleven.'],
        ['mara', 'Twelve. You did not count the woman who mends it.'],
        ['jonn', 'And who pays for the oak?'],
        ['edda', 'The toll does, from Monday, two coins a hull.'],
        ['quill', 'I shall need that in writing.'],
        ['mara', 'You shall have it in oak.'],
        ['edda', 'Then the meeting is closed, and the kettle is on.'],
        ['jonn', 'Low water in ten minutes. Somebody move my boat.'],
    ];

    /** Seconds since midnight. */
    public static function seconds(string $time): int
    {
        [$hours, $minutes, $seconds] = array_map('intval', explode(':', $time));

        return 3600 * $hours + 60 * $minutes + $seconds;
    }

    public static function label(int $frames): string
    {
        return sprintf(
            '%02d:%02d:%02d:%02d',
            intdiv($frames, 90_000) % 24,
            intdiv($frames, 1500) % 60,
            intdiv($frames, 25) % 60,
            $frames % 25,
        );
    }

    public static function sceneOf(string $setup): string
    {
        return rtrim($setup, 'ABCDEFGH');
    }
}
