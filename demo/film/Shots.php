<?php

declare(strict_types=1);

/** The film, shot by shot. */
final class Shots
{
    /** When each shot begins, seconds: with a voice, a tune or a sound. */
    private const CUTS = [
        [0.0, 'channel'], [13.7, 'landing'], [31.7, 'pans'], [40.0, 'wheelhouse'], [56.8, 'rope'], [67.7, 'village'], [79.7, 'oldLanding'], [99.7, 'engine'],
        [113.7, 'wheelhouse'], [123.7, 'pans'], [138.0, 'rail'], [145.7, 'water'], [163.7, 'deck'], [171.0, 'horn'], [180.0, 'channel'], [195.7, 'rain'],
        [213.7, 'wheelhouse'], [230.0, 'two'], [251.7, 'landing'], [262.0, 'gulls'], [282.0, 'oldLanding'], [296.0, 'rope'], [303.7, 'home'],
    ];

    public static function at(float $t): Sheet
    {
        $shot = 'channel';
        $since = 0.0;
        foreach (self::CUTS as [$begins, $name]) {
            if ($t >= $begins) {
                [$shot, $since] = [$name, $begins];
            }
        }

        return self::{$shot}($t, $t - $since);
    }

    private static function night(int $horizon): Sheet
    {
        return new Sheet([0 => [11, 18, 31], $horizon => [46, 70, 88], $horizon + 1 => [22, 40, 50], Sheet::HEIGHT => [8, 15, 20]]);
    }

    private static function dawn(int $horizon): Sheet
    {
        return new Sheet([0 => [58, 76, 104], (int) ($horizon * 0.7) => [168, 142, 138], $horizon => [232, 176, 128], $horizon + 1 => [96, 100, 108], Sheet::HEIGHT => [26, 38, 48]]);
    }

    private static function channel(float $t, float $in): Sheet
    {
        $sheet = self::night(400);
        Things::stars($sheet, 400);
        Things::moon($sheet, 960, 130, 46);
        $sheet->shape([[0, 400], [0, 372], [160, 380], [340, 388], [460, 400]], [18, 28, 34]);
        for ($i = 0; $i < 7; ++$i) {
            $sheet->box(40 + 52 * $i, 384 + 2 * $i, 5, 4, Things::LAMP);
        }
        Things::water($sheet, 400, $t, 960, [236, 226, 190], 0.55);
        Things::ferry($sheet, 200 + 26 * $in, 448, 1.25, $t);

        return $sheet;
    }

    private static function landing(float $t, float $in): Sheet
    {
        $sheet = self::night(390);
        Things::stars($sheet, 390);
        Things::water($sheet, 390, $t, 900, Things::LAMP, 0.35);
        Things::ferry($sheet, 1130 - 14 * min(16, $in), 470, 2.1, $t, -1);
        $sheet->shape([[0, 520], [620, 520], [660, 560], [0, 560]], [26, 24, 24]);
        for ($i = 0; $i < 5; ++$i) {
            $sheet->box(50 + 140 * $i, 556, 24, 164, [18, 17, 18]);
        }
        Things::lampPost($sheet, 520, 520, 250);
        for ($i = 0; $i < 9; ++$i) {
            Things::person($sheet, 70 + 44 * $i + min(60, 3 * $in), 520, 104 + 14 * Things::chance($i), 2 * sin($t * 1.1 + $i));
        }

        return $sheet;
    }

    private static function pans(float $t, float $in): Sheet
    {
        $sheet = self::night(300);
        Things::moon($sheet, 330 - $in, 150, 40);
        for ($row = 0; $row < 7; ++$row) {
            $near = ($row + 1) / 7;
            [$top, $bottom] = [300 + 420 * ($row / 7) ** 1.7, 300 + 420 * $near ** 1.7];
            for ($n = -4; $n < 5; ++$n) {
                $left = static fn (float $y): float => 640 + ($n - 0.06 * $in) * (150 + 620 * (($y - 300) / 420));
                $wide = static fn (float $y): float => (150 + 620 * (($y - 300) / 420)) * 0.92;
                $white = 96 + 70 * Things::chance($row * 9 + $n + 40) + 8 * sin($t + $n + $row);
                $sheet->shape([[$left($top), $top + 3], [$left($top) + $wide($top), $top + 3], [$left($bottom) + $wide($bottom), $bottom - 3], [$left($bottom), $bottom - 3]], [$white, $white + 6, $white + 10]);
            }
        }
        Things::person($sheet, 860 + 4 * $in, 470, 150, 3 * sin($t * 2));
        $sheet->line(866 + 4 * $in, 400, 930 + 4 * $in, 474, 5, Things::DARK);

        return $sheet;
    }

    private static function wheelhouse(float $t, float $in): Sheet
    {
        $roll = sin($t * 0.8) * 14;
        $sheet = self::night((int) (330 + $roll));
        Things::stars($sheet, 320);
        Things::water($sheet, (int) (330 + $roll), $t, 420, [200, 208, 200], 0.35);
        $frame = [30, 22, 17];
        foreach ([[0, 0, 1280, 84], [0, 470, 1280, 250], [0, 0, 70, 720], [1210, 0, 70, 720], [430, 0, 34, 500], [830, 0, 34, 500]] as [$x, $y, $wide, $high]) {
            $sheet->box($x, $y, $wide, $high, $frame);
        }
        $sheet->box(70, 470, 1140, 10, [74, 54, 38]);
        $sheet->disc(1040, 560, 60, [58, 42, 30]);
        $sheet->disc(1040, 560, 44, [210, 196, 150]);
        $sheet->line(1040, 560, 1040 + 34 * cos($t * 0.4), 560 + 34 * sin($t * 0.4), 4, [60, 30, 20]);
        for ($i = 0; $i < 8; ++$i) {
            $turn = $i * \M_PI / 4 + 0.5 * sin($t * 0.5);
            $sheet->line(620, 640, 620 + 190 * cos($turn), 640 + 190 * sin($turn), 12, [96, 62, 38]);
        }
        $sheet->disc(620, 640, 150, [96, 62, 38]);
        $sheet->disc(620, 640, 130, [26, 20, 16]);
        Things::person($sheet, 470, 760, 520, 5 * sin($t * 0.8), [12, 10, 10]);
        $sheet->line(500, 420, 590, 540, 44, [12, 10, 10]);

        return $sheet;
    }

    private static function rope(float $t, float $in): Sheet
    {
        $sheet = new Sheet([0 => [30, 40, 48], 330 => [24, 34, 40], 331 => [46, 40, 34], Sheet::HEIGHT => [26, 22, 19]]);
        $sheet->glow(1000, 120, 420, Things::LAMP, 0.4);
        $pull = min(1.0, $in / 3);
        $sheet->line(0, 120 + 40 * sin($t * 2) * (1 - $pull), 640, 420, 26, [168, 142, 98]);
        for ($i = 0; $i < 22; ++$i) {
            $x = $i * 30 + fmod($in * 40, 30);
            $sheet->line($x, 120 + $x * 0.47 - 10, $x + 14, 120 + $x * 0.47 + 16, 5, [120, 98, 64]);
        }
        $sheet->box(590, 340, 130, 260, [52, 50, 50]);
        $sheet->box(560, 320, 190, 40, [70, 68, 66]);
        for ($i = 0; $i < 4; ++$i) {
            $sheet->box(575, 400 + 36 * $i, 160, 26, [168, 142, 98]);
            $sheet->box(575, 418 + 36 * $i, 160, 8, [124, 102, 68]);
        }
        $sheet->box(500, 600, 310, 40, [40, 38, 38]);

        return $sheet;
    }

    private static function village(float $t, float $in): Sheet
    {
        $sheet = self::night(420);
        Things::stars($sheet, 400);
        $sheet->shape([[0, 420], [0, 360], [500, 340], [900, 352], [1280, 380], [1280, 420]], [16, 24, 28]);
        for ($i = 0; $i < 16; ++$i) {
            $x = 120 + 64 * $i;
            $y = 330 - 24 * Things::chance($i);
            $sheet->box($x, $y, 46, 60, [14, 20, 24]);
            $sheet->shape([[$x - 6, $y], [$x + 52, $y], [$x + 23, $y - 26]], [12, 17, 21]);
            $out = 1.5 + 9 * Things::chance($i + 20);
            if ($in < $out) {
                $sheet->box($x + 16, $y + 20, 12, 14, Things::LAMP);
            }
        }
        $sheet->box(0, 384, 1280, 40, [20, 30, 32]);
        Things::water($sheet, 424, $t, 600, Things::LAMP, 0.3 * max(0.1, 1 - $in / 11));
        Things::rail($sheet, $t);

        return $sheet;
    }

    private static function oldLanding(float $t, float $in): Sheet
    {
        $sheet = self::night(380);
        Things::moon($sheet, 200, 110, 36);
        Things::water($sheet, 380, $t, 200, [226, 220, 190], 0.4);
        $x = 1000 - 22 * $in;
        for ($i = 0; $i < 9; ++$i) {
            $sheet->box($x + 70 * $i, 400 - 20 * Things::chance($i + 3), 14, 120, [14, 16, 18]);
        }
        $sheet->shape([[$x - 20, 400], [$x + 400, 396], [$x + 560, 430], [$x + 400, 412], [$x - 20, 416]], [20, 22, 24]);
        $sheet->line($x + 60, 398, $x + 90, 300, 8, [14, 16, 18]);
        Things::rail($sheet, $t);

        return $sheet;
    }

    private static function engine(float $t, float $in): Sheet
    {
        $sheet = new Sheet([0 => [40, 26, 18], 300 => [64, 40, 26], Sheet::HEIGHT => [18, 13, 11]]);
        $sheet->glow(250, 120, 360, Things::LAMP, 0.5);
        $sheet->disc(250, 120, 26, [255, 236, 190]);
        for ($i = 0; $i < 4; ++$i) {
            $x = 420 + 200 * $i;
            $down = 60 * sin($t * 8 + $i * \M_PI / 2);
            $sheet->box($x, 220, 130, 200, [74, 78, 80]);
            $sheet->box($x + 10, 230, 20, 180, [112, 116, 116]);
            $sheet->box($x + 50, 400 + $down, 30, 150, [150, 150, 146]);
            $sheet->disc($x + 65, 600 + 30 * sin($t * 8 + $i * \M_PI / 2), 46, [96, 92, 84]);
            $sheet->disc($x + 65, 600 + 30 * sin($t * 8 + $i * \M_PI / 2), 16, [40, 36, 32]);
        }
        $sheet->box(360, 180, 900, 44, [96, 58, 34]);
        $sheet->box(360, 420, 900, 18, [52, 44, 38]);

        return $sheet;
    }

    private static function rail(float $t, float $in): Sheet
    {
        $sheet = self::night(360);
        Things::stars($sheet, 340);
        Things::water($sheet, 360, $t * 1.4, 640, [180, 190, 188], 0.35);
        Things::rail($sheet, $t);
        Things::person($sheet, 930, 676, 420, 4 * sin($t * 0.8));

        return $sheet;
    }

    private static function water(float $t, float $in): Sheet
    {
        $sheet = new Sheet([0 => [9, 14, 24], 170 => [30, 46, 60], 171 => [18, 33, 42], Sheet::HEIGHT => [6, 11, 15]]);
        Things::moon($sheet, 640, 74, 34);
        Things::water($sheet, 171, $t, 640, [240, 230, 196], 0.65);

        return $sheet;
    }

    private static function deck(float $t, float $in): Sheet
    {
        $sheet = self::rail($t, $in);
        Things::lampPost($sheet, 320, 676, 470);

        return $sheet;
    }

    private static function horn(float $t, float $in): Sheet
    {
        $sheet = new Sheet([0 => [12, 20, 34], 520 => [40, 60, 76], Sheet::HEIGHT => [16, 20, 24]]);
        Things::stars($sheet, 500);
        $sheet->shape([[480, 720], [520, 180], [760, 180], [800, 720]], [112, 46, 36]);
        $sheet->box(512, 240, 256, 60, Things::BONE);
        $sheet->box(770, 250, 90, 16, [150, 130, 80]);
        $sheet->shape([[850, 236], [930, 206], [930, 310], [850, 280]], [196, 168, 96]);
        for ($i = 0; $in < 3.6 && $i < 9; ++$i) {
            $age = fmod($in * 0.9 + $i / 9, 1.0);
            $sheet->disc(940 + 300 * $age, 258 - 90 * $age + 20 * sin($i * 3.1), 16 + 70 * $age, [214, 218, 220], 0.55 * (1 - $age));
        }
        for ($i = 0; $i < 6; ++$i) {
            $age = fmod($t * 0.3 + $i / 6, 1.0);
            $sheet->disc(640 - 220 * $age, 160 - 150 * $age, 40 + 80 * $age, [84, 88, 94], 0.5 * (1 - $age));
        }

        return $sheet;
    }

    private static function rain(float $t, float $in): Sheet
    {
        $sheet = new Sheet([0 => [24, 30, 38], 360 => [58, 68, 74], 361 => [34, 44, 50], Sheet::HEIGHT => [14, 18, 21]]);
        Things::water($sheet, 361, $t, 500, [150, 160, 164], 0.25);
        Things::ferry($sheet, 760 + 4 * $in, 430, 1.5, $t);
        Things::rain($sheet, $t);

        return $sheet;
    }

    private static function two(float $t, float $in): Sheet
    {
        $sheet = self::night(330);
        Things::moon($sheet, 640, 120, 42);
        Things::water($sheet, 330, $t, 640, [236, 226, 190], 0.5);
        Things::rail($sheet, $t);
        Things::person($sheet, 400, 690, 470, 5 * sin($t * 0.9));
        Things::person($sheet, 890, 690, 500, 5 * sin($t * 0.7 + 2));

        return $sheet;
    }

    private static function gulls(float $t, float $in): Sheet
    {
        $sheet = self::dawn(500);
        $sheet->glow(980, 500, 300, [255, 214, 150], 0.6);
        $sheet->disc(980, 506 - $in, 54, [255, 232, 186]);
        $sheet->box(0, 501, 1280, 60, [92, 98, 108]);
        Things::water($sheet, 501, $t, 980, [255, 214, 160], 0.5);
        for ($i = 0; $i < 7; ++$i) {
            Things::gull($sheet, fmod(240 * $i + $in * (40 + 10 * $i), 1500) - 100, 110 + 50 * $i + 30 * sin($t * 0.8 + $i), 40 + 14 * Things::chance($i), $t + $i);
        }

        return $sheet;
    }

    private static function home(float $t, float $in): Sheet
    {
        $sheet = self::dawn(400);
        $sheet->glow(330, 400, 280, [255, 214, 150], 0.6);
        $sheet->disc(330, 390 - 0.6 * $in, 44, [255, 232, 186]);
        $sheet->box(0, 401, 1280, 50, [92, 98, 108]);
        $sheet->shape([[820, 400], [960, 386], [1280, 370], [1280, 400]], [96, 84, 92]);
        Things::water($sheet, 401, $t, 330, [255, 214, 160], 0.5);
        Things::ferry($sheet, 860 - 14 * $in, 440, max(0.6, 1.3 - 0.02 * $in), $t, -1);
        Things::gull($sheet, 500 + 12 * $in, 200 + 20 * sin($t), 34, $t);

        return $sheet;
    }
}
