<?php

declare(strict_types=1);

/** What is seen on the crossing, each drawn onto a sheet at a moment in seconds. */
final class Things
{
    public const NIGHT = [12, 20, 32];
    public const BONE = [233, 221, 190];
    public const LAMP = [255, 206, 122];
    public const DARK = [7, 10, 14];

    /** Something that looks like chance and is the same each time, 0 to 1. */
    public static function chance(int $n): float
    {
        $x = sin($n * 12.9898) * 43758.5453;

        return $x - floor($x);
    }

    public static function stars(Sheet $sheet, int $horizon): void
    {
        for ($i = 0; $i < 70; ++$i) {
            $sheet->box(Sheet::WIDTH * self::chance($i), $horizon * 0.9 * self::chance($i + 500), 3, 3, [200, 205, 215], 0.25 + 0.5 * self::chance($i + 900));
        }
    }

    public static function moon(Sheet $sheet, float $x, float $y, float $radius): void
    {
        $sheet->glow($x, $y, $radius * 4, [190, 190, 165], 0.35);
        $sheet->disc($x, $y, $radius, [240, 232, 205]);
        $sheet->disc($x - $radius * 0.3, $y - $radius * 0.2, $radius * 0.22, [222, 212, 184]);
        $sheet->disc($x + $radius * 0.25, $y + $radius * 0.35, $radius * 0.16, [224, 215, 188]);
    }

    /**
     * Glints on the water: they are wider near by, and shimmer under a light.
     *
     * @param array{float, float, float} $light
     */
    public static function water(Sheet $sheet, int $horizon, float $t, float $lightX, array $light, float $strength): void
    {
        for ($i = 0; $i < 90; ++$i) {
            $near = self::chance($i) ** 1.6;
            $y = $horizon + 6 + (Sheet::HEIGHT - $horizon - 10) * $near;
            $spread = 40 + 260 * $near;
            $drift = sin($t * (0.5 + self::chance($i + 30)) + $i) * (6 + 26 * $near);
            $x = $lightX + (self::chance($i + 60) - 0.5) * 2 * $spread + $drift;
            $wide = (16 + 90 * $near) * (0.5 + 0.5 * sin($t * 1.3 + $i * 2.1) ** 2);
            $sheet->box($x - $wide / 2, $y, $wide, 2 + 4 * $near, $light, $strength * (1 - abs($x - $lightX) / ($spread + 60)));
        }
        for ($i = 0; $i < 46; ++$i) {
            $near = self::chance($i + 200) ** 1.4;
            $y = $horizon + 8 + (Sheet::HEIGHT - $horizon - 10) * $near;
            $x = fmod(Sheet::WIDTH * self::chance($i + 300) + $t * (8 + 40 * $near), Sheet::WIDTH + 200) - 100;
            $sheet->box($x, $y, 30 + 100 * $near, 2 + 2 * $near, [70, 96, 112], 0.35);
        }
    }

    /**
     * @param float $along px of one to the right, negative where she goes the other way
     * @param list<array{int|float, int|float}> $points from amidships at the water line
     *
     * @return list<array{float, float}>
     */
    private static function aboard(float $x, float $y, float $along, float $size, array $points): array
    {
        return array_map(static fn (array $p): array => [$x + $along * $p[0], $y + $size * $p[1]], $points);
    }

    /** The ferry from the side; (x, y) is amidships at the water line, size 1 is 200 px long. */
    public static function ferry(Sheet $sheet, float $x, float $y, float $size, float $t, int $way = 1): void
    {
        $y += sin($t * 0.9) * 3 * $size;
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[-100, -22], [104, -22], [88, 10], [-84, 10]]), [196, 180, 146]);
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[-97, -4], [96, -4], [88, 10], [-84, 10]]), [120, 48, 36]);
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[-62, -52], [40, -52], [40, -22], [-62, -22]]), self::BONE);
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[2, -78], [34, -78], [38, -52], [-4, -52]]), [214, 198, 164]);
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[-40, -82], [-24, -82], [-22, -52], [-42, -52]]), [92, 42, 34]);
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[-88, -60], [-86, -60], [-86, -22], [-88, -22]]), [150, 140, 120]);
        for ($i = 0; $i < 6; ++$i) {
            $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[-54 + 15 * $i, -45], [-46 + 15 * $i, -45], [-46 + 15 * $i, -35], [-54 + 15 * $i, -35]]), self::LAMP);
        }
        $sheet->shape(self::aboard($x, $y, $way * $size, $size, [[8, -73], [30, -73], [32, -62], [6, -62]]), [255, 226, 160]);
        [[$lampX, $lampY]] = self::aboard($x, $y, $way * $size, $size, [[-87, -64]]);
        $sheet->glow($lampX, $lampY, 34 * $size, self::LAMP, 0.8);
        $sheet->disc($lampX, $lampY, 4 * $size, [255, 240, 200]);
        for ($i = 0; $i < 5; ++$i) {
            $age = fmod($t * 0.5 + $i / 5, 1.0);
            [[$smokeX, $smokeY]] = self::aboard($x, $y, $way * $size, $size, [[-32 - 50 * $age, -86 - 46 * $age]]);
            $sheet->disc($smokeX, $smokeY, (5 + 16 * $age) * $size, [96, 100, 106], 0.4 * (1 - $age));
        }
    }

    /**
     * Somebody who stands there; (x, y) are the feet.
     *
     * @param array{float, float, float} $colour
     */
    public static function person(Sheet $sheet, float $x, float $y, float $height, float $sway, array $colour = self::DARK): void
    {
        $head = $height * 0.09;
        $sheet->disc($x + $sway, $y - $height + $head, $head, $colour);
        $sheet->shape([[$x - $height * 0.1 + $sway, $y - $height * 0.8], [$x + $height * 0.1 + $sway, $y - $height * 0.8], [$x + $height * 0.14, $y - $height * 0.35], [$x + $height * 0.08, $y], [$x - $height * 0.08, $y], [$x - $height * 0.14, $y - $height * 0.35]], $colour);
    }

    public static function lampPost(Sheet $sheet, float $x, float $y, float $height): void
    {
        $sheet->glow($x, $y - $height, $height * 0.55, self::LAMP, 0.75);
        $sheet->box($x - 4, $y - $height, 8, $height, self::DARK);
        $sheet->shape([[$x - 22, $y - $height + 8], [$x + 22, $y - $height + 8], [$x + 12, $y - $height - 14], [$x - 12, $y - $height - 14]], self::DARK);
        $sheet->disc($x, $y - $height + 12, 13, [255, 238, 190]);
    }

    public static function rain(Sheet $sheet, float $t): void
    {
        for ($i = 0; $i < 130; ++$i) {
            $fall = fmod(self::chance($i) + $t * (1.1 + 0.6 * self::chance($i + 70)), 1.0);
            $x = (Sheet::WIDTH + 200) * self::chance($i + 140) - 120 * $fall;
            $y = Sheet::HEIGHT * $fall;
            $sheet->line($x, $y, $x - 7, $y + 40, 2.2, [170, 184, 196], 0.35);
        }
    }

    /** The rail in front, with water going by behind it. */
    public static function rail(Sheet $sheet, float $t): void
    {
        $dip = sin($t * 0.7) * 8;
        $sheet->box(0, 430 + $dip, Sheet::WIDTH, 20, [60, 52, 44]);
        $sheet->box(0, 430 + $dip, Sheet::WIDTH, 5, [120, 104, 82]);
        $sheet->box(0, 520 + $dip, Sheet::WIDTH, 10, [48, 42, 36]);
        for ($i = 0; $i < 6; ++$i) {
            $sheet->box(90 + 230 * $i, 430 + $dip, 18, 300, [54, 47, 40]);
        }
        $sheet->box(0, 668 + $dip, Sheet::WIDTH, 90, [34, 30, 27]);
    }

    public static function gull(Sheet $sheet, float $x, float $y, float $size, float $t): void
    {
        $lift = sin($t * 7) * 0.5;
        foreach ([-1, 1] as $side) {
            $sheet->shape([[$x, $y], [$x + $side * $size * 0.55, $y - $size * (0.3 + 0.3 * $lift)], [$x + $side * $size, $y - $size * 0.35 * $lift], [$x + $side * $size * 0.5, $y - $size * (0.14 + 0.3 * $lift)]], [226, 226, 220]);
        }
        $sheet->disc($x, $y, $size * 0.12, [226, 226, 220], 1.0, 0.7);
    }
}
