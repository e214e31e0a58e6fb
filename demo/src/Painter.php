<?php

declare(strict_types=1);

namespace Cartella\Demo;

/**
 * Draws the layers of the demo's pictures with GD: sets, people and slates, as PNG files that ffmpeg lays together.
 *
 * A set is drawn in a world of 960 by 540 points and seen through a framing: a centre, a magnification and a tint.
 */
final class Painter
{
    public const WIDTH = 960;

    public const HEIGHT = 540;

    /** How often the clapper is drawn while it closes: open, two between, closed. Degrees. */
    public const STICK_ANGLES = [24, 15, 6, 0];

    /** Centre x, centre y, magnification and tint (red, green, blue) of each camera. */
    private const FRAMING = [
        'A' => [480, 270, 1.0, [0, 0, 0]],
        'B' => [560, 250, 1.75, [18, 6, -14]],
        'C' => [380, 280, 1.3, [-10, 4, 18]],
    ];

    private const PEOPLE = [
        'mara' => [[0x2b, 0x24, 0x30], [0xc9, 0x9a, 0x7c], [0x8a, 0x3b, 0x33]],
        'quill' => [[0x23, 0x2e, 0x2b], [0xd8, 0xb0, 0x92], [0x3d, 0x35, 0x2c]],
        'edda' => [[0x4a, 0x4e, 0x3a], [0xbf, 0x8e, 0x70], [0xd9, 0xd3, 0xc4]],
        'jonn' => [[0x2a, 0x3f, 0x55], [0xc8, 0x9c, 0x7e], [0x1e, 0x22, 0x28]],
    ];

    private \GdImage $image;

    /** @var array{float, float, float, array{int, int, int}} */
    private array $framing;

    public static function set(string $place, string $camera, string $file): void
    {
        $painter = new self($camera);
        match ($place) {
            'wheel' => $painter->wheelRoom(),
            'sluice' => $painter->sluice(),
            'attic' => $painter->attic(),
            'shore' => $painter->shore(),
            default => $painter->harbour(),
        };
        imagepng($painter->image, $file, 1);
    }

    private function __construct(string $camera)
    {
        $this->framing = self::FRAMING[$camera];
        $this->image = imagecreatetruecolor(self::WIDTH, self::HEIGHT);
    }

    /** A person from head to coat, transparent around; `$height` in pixels. */
    public static function person(string $who, int $height, string $file): void
    {
        [$coat, $skin, $hat] = self::PEOPLE[$who];
        $width = (int) ($height * 0.46);
        $image = self::clear($width, $height);
        $colour = static fn(array $rgb): int => imagecolorallocate($image, ...$rgb);
        $middle = intdiv($width, 2);
        $head = (int) ($height * 0.19);
        imagesetthickness($image, 1);
        imagefilledpolygon(
            $image,
            [
                $middle - (int) ($width * 0.24),
                (int) ($height * 0.24),
                $middle + (int) ($width * 0.24),
                (int) ($height * 0.24),
                $middle + (int) ($width * 0.46),
                $height,
                $middle - (int) ($width * 0.46),
                $height,
            ],
            $colour($coat),
        );
        imagefilledellipse($image, $middle, (int) ($height * 0.28), (int) ($width * 0.56), (int) ($height * 0.16), $colour($coat));
        imagefilledellipse($image, $middle, (int) ($height * 0.13), (int) ($head * 0.82), $head, $colour($skin));
        if ($who === 'mara' || $who === 'edda') {
            imagefilledarc(
                $image,
                $middle,
                (int) ($height * 0.125),
                (int) ($head * 0.98),
                (int) ($head * 1.08),
                180,
                360,
                $colour($hat),
                IMG_ARC_PIE,
            );
            imagefilledrectangle(
                $image,
                $middle - (int) ($head * 0.49),
                (int) ($height * 0.12),
                $middle - (int) ($head * 0.32),
                (int) ($height * 0.21),
                $colour($hat),
            );
        } else {
            imagefilledrectangle(
                $image,
                $middle - (int) ($head * 0.62),
                (int) ($height * 0.075),
                $middle + (int) ($head * 0.62),
                (int) ($height * 0.092),
                $colour($hat),
            );
            imagefilledrectangle(
                $image,
                $middle - (int) ($head * 0.36),
                (int) ($height * 0.012),
                $middle + (int) ($head * 0.36),
                (int) ($height * 0.08),
                $colour($hat),
            );
        }
        imagepng($image, $file, 1);
    }

    /** Light bars that wander over the set, so that a still frame and the next one differ. */
    public static function light(string $file): void
    {
        $image = self::clear(self::WIDTH + 160, 70);
        for ($x = 0; $x < self::WIDTH + 160; $x += 80) {
            imagefilledellipse($image, $x + 30, 18, 46, 3, imagecolorallocatealpha($image, 255, 244, 214, 88));
            imagefilledellipse($image, $x + 64, 44, 62, 4, imagecolorallocatealpha($image, 255, 244, 214, 96));
        }
        imagepng($image, $file, 1);
    }

    /** The slate in one position of its stick. `$tail`: held upside down at the end of the take. */
    public static function slate(string $scene, string $setup, string $take, string $roll, int $angle, bool $tail, string $file): void
    {
        $width = 360;
        $height = 300;
        $image = self::clear($width, $height);
        $board = imagecolorallocate($image, 0xf2, 0xec, 0xdd);
        $ink = imagecolorallocate($image, 0x1f, 0x2a, 0x33);
        $soft = imagecolorallocate($image, 0x7a, 0x80, 0x7f);
        imagefilledrectangle($image, 20, 92, 340, 290, $board);
        imagerectangle($image, 20, 92, 340, 290, $ink);
        imageline($image, 20, 158, 340, 158, $ink);
        imageline($image, 20, 232, 340, 232, $ink);
        imageline($image, 190, 158, 190, 232, $ink);
        $text = static function (string $words, int $x, int $y, float $size, int $colour) use ($image): void {
            imagettftext($image, $size, 0, $x, $y, $colour, '/usr/share/fonts/truetype/dejavu/DejaVuSansMono-Bold.ttf', $words);
        };
        $text('LOW WATER', 34, 120, 12, $soft);
        $text('ROLL ' . $roll, 34, 148, 18, $ink);
        $text('SCENE', 34, 176, 9, $soft);
        $text($setup, 34, 222, 34, $ink);
        $text('TAKE', 204, 176, 9, $soft);
        $text($take, 204, 222, 34, $ink);
        $text('MARA VENN  ' . ($scene === '12' ? 'NIGHT' : 'DAY'), 34, 268, 13, $ink);
        self::stick($image, 20, 90, 320, 0, $ink, $board);
        self::stick($image, 20, 68, 320, $angle, $ink, $board);
        if ($tail) {
            $image = imagerotate($image, 180, imagecolorallocatealpha($image, 0, 0, 0, 127));
            imagesavealpha($image, true);
        }
        imagepng($image, $file, 1);
    }

    private static function stick(\GdImage $image, int $x, int $y, int $length, int $angle, int $ink, int $board): void
    {
        $cos = cos(deg2rad($angle));
        $sin = sin(deg2rad($angle));
        $at = static fn(float $along, float $across): array => [
            (int) round($x + $along * $cos - $across * $sin),
            (int) round($y - $along * $sin - $across * $cos),
        ];
        for ($part = 0; $part < 8; $part++) {
            $from = ($part * $length) / 8;
            $to = (($part + 1) * $length) / 8;
            imagefilledpolygon(
                $image,
                [...$at($from, 0), ...$at($to, 0), ...$at($to, 20), ...$at($from, 20)],
                $part % 2 === 0 ? $ink : $board,
            );
        }
    }

    private static function clear(int $width, int $height): \GdImage
    {
        $image = imagecreatetruecolor($width, $height);
        imagesavealpha($image, true);
        imagefill($image, 0, 0, imagecolorallocatealpha($image, 0, 0, 0, 127));

        return $image;
    }

    private function x(float $x): int
    {
        return (int) round(($x - $this->framing[0]) * $this->framing[2] + self::WIDTH / 2);
    }

    private function y(float $y): int
    {
        return (int) round(($y - $this->framing[1]) * $this->framing[2] + self::HEIGHT / 2);
    }

    private function ink(int $red, int $green, int $blue): int
    {
        [$r, $g, $b] = $this->framing[3];

        return imagecolorallocate($this->image, max(0, min(255, $red + $r)), max(0, min(255, $green + $g)), max(0, min(255, $blue + $b)));
    }

    private function box(float $x, float $y, float $width, float $height, int $colour): void
    {
        imagefilledrectangle($this->image, $this->x($x), $this->y($y), $this->x($x + $width), $this->y($y + $height), $colour);
    }

    /** @param  list<float>  $points x and y in turn */
    private function shape(array $points, int $colour): void
    {
        $seen = [];
        foreach ($points as $index => $value) {
            $seen[] = $index % 2 === 0 ? $this->x($value) : $this->y($value);
        }
        imagefilledpolygon($this->image, $seen, $colour);
    }

    private function disc(float $x, float $y, float $width, float $height, int $colour): void
    {
        imagefilledellipse(
            $this->image,
            $this->x($x),
            $this->y($y),
            (int) ($width * $this->framing[2]),
            (int) ($height * $this->framing[2]),
            $colour,
        );
    }

    /** @param  array{int, int, int}  $top @param  array{int, int, int}  $bottom */
    private function fade(array $top, array $bottom): void
    {
        for ($y = 0; $y < self::HEIGHT; $y++) {
            $part = $y / self::HEIGHT;
            imageline(
                $this->image,
                0,
                $y,
                self::WIDTH,
                $y,
                $this->ink(
                    (int) ($top[0] + ($bottom[0] - $top[0]) * $part),
                    (int) ($top[1] + ($bottom[1] - $top[1]) * $part),
                    (int) ($top[2] + ($bottom[2] - $top[2]) * $part),
                ),
            );
        }
    }

    private function wheelRoom(): void
    {
        $this->fade([58, 62, 66], [104, 84, 62]);
        $wood = $this->ink(92, 66, 42);
        $dark = $this->ink(56, 40, 28);
        imagesetthickness($this->image, (int) (16 * $this->framing[2]));
        imagearc(
            $this->image,
            $this->x(250),
            $this->y(270),
            (int) (400 * $this->framing[2]),
            (int) (400 * $this->framing[2]),
            0,
            359,
            $wood,
        );
        imagesetthickness($this->image, (int) (10 * $this->framing[2]));
        for ($spoke = 0; $spoke < 8; $spoke++) {
            $angle = ($spoke * M_PI) / 4 + 0.2;
            imageline(
                $this->image,
                $this->x(250),
                $this->y(270),
                $this->x(250 + 195 * cos($angle)),
                $this->y(270 + 195 * sin($angle)),
                $wood,
            );
        }
        imagesetthickness($this->image, 1);
        $this->disc(250, 270, 60, 60, $dark);
        $this->box(0, 36, 960, 26, $dark);
        $this->box(520, 0, 30, 470, $dark);
        $this->box(640, 120, 150, 170, $this->ink(206, 196, 158));
        $this->box(711, 120, 8, 170, $dark);
        $this->box(640, 200, 150, 8, $dark);
        $this->box(0, 450, 960, 90, $this->ink(70, 54, 42));
        for ($x = 0; $x < 960; $x += 96) {
            $this->box($x, 450, 3, 90, $dark);
        }
    }

    private function sluice(): void
    {
        $this->fade([222, 152, 104], [78, 84, 104]);
        $this->disc(760, 200, 90, 90, $this->ink(250, 214, 150));
        $this->shape([0, 300, 320, 230, 620, 270, 960, 220, 960, 340, 0, 340], $this->ink(74, 66, 72));
        $this->box(0, 340, 960, 200, $this->ink(84, 96, 116));
        foreach ([352, 380, 420, 470] as $y) {
            $this->box(0, $y, 960, 3, $this->ink(150, 134, 128));
        }
        $oak = $this->ink(50, 42, 40);
        foreach ([120, 220, 320, 420] as $x) {
            $this->box($x, 180, 22, 250, $oak);
        }
        $this->box(100, 180, 360, 24, $oak);
        $this->box(142, 250, 278, 150, $this->ink(92, 74, 58));
        for ($y = 262; $y < 400; $y += 22) {
            $this->box(142, $y, 278, 3, $oak);
        }
        $this->box(0, 430, 960, 24, $this->ink(62, 54, 52));
    }

    private function attic(): void
    {
        $this->fade([24, 28, 44], [46, 38, 40]);
        $beam = $this->ink(66, 48, 36);
        $this->shape([0, 300, 480, 0, 520, 0, 0, 350], $beam);
        $this->shape([960, 300, 480, 0, 440, 0, 960, 350], $beam);
        $this->box(400, 150, 130, 150, $this->ink(88, 112, 150));
        $this->box(461, 150, 8, 150, $beam);
        $this->box(400, 221, 130, 8, $beam);
        $this->disc(505, 185, 26, 26, $this->ink(226, 230, 214));
        $this->box(640, 390, 200, 16, $this->ink(110, 76, 48));
        $this->box(655, 406, 12, 100, $beam);
        $this->box(812, 406, 12, 100, $beam);
        $this->disc(760, 352, 120, 120, $this->ink(94, 74, 50));
        $this->disc(760, 356, 66, 66, $this->ink(214, 170, 92));
        $this->box(752, 356, 16, 36, $this->ink(240, 210, 140));
        $this->box(0, 490, 960, 50, $this->ink(38, 30, 30));
        foreach ([60, 150, 250] as $x) {
            $this->box($x, 420 - $x / 8, 80, 90, $this->ink(58, 46, 40));
        }
    }

    private function harbour(): void
    {
        $this->fade([176, 196, 204], [206, 206, 192]);
        $this->shape([0, 250, 200, 190, 420, 230, 700, 180, 960, 230, 960, 300, 0, 300], $this->ink(126, 140, 132));
        $this->box(0, 290, 960, 120, $this->ink(108, 138, 148));
        foreach ([[90, 300], [330, 318], [720, 306]] as [$x, $y]) {
            $this->shape([$x, $y, $x + 150, $y, $x + 125, $y + 36, $x + 22, $y + 36], $this->ink(124, 54, 44));
            $this->box($x + 70, $y - 120, 6, 120, $this->ink(70, 58, 48));
            $this->shape([$x + 78, $y - 112, $x + 78, $y - 20, $x + 132, $y - 24], $this->ink(224, 214, 190));
        }
        $this->box(860, 120, 40, 180, $this->ink(226, 218, 200));
        $this->box(852, 100, 56, 24, $this->ink(150, 52, 44));
        $this->box(0, 400, 960, 140, $this->ink(142, 132, 116));
        for ($x = -20; $x < 960; $x += 120) {
            $this->box($x, 400, 2, 140, $this->ink(116, 106, 92));
        }
        $this->box(0, 440, 960, 2, $this->ink(116, 106, 92));
    }

    private function shore(): void
    {
        $this->fade([150, 178, 196], [210, 200, 170]);
        $this->box(0, 230, 960, 140, $this->ink(96, 130, 142));
        $this->shape([0, 360, 400, 330, 960, 390, 960, 540, 0, 540], $this->ink(196, 180, 142));
        foreach ([[180, 420, 60], [520, 450, 90], [780, 430, 46]] as [$x, $y, $size]) {
            $this->disc($x, $y, $size, $size * 0.6, $this->ink(110, 104, 96));
        }
    }
}
