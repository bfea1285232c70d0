<?php

declare(strict_types=1);

/** A sheet of pixels that is painted row by row with spans of one colour each; colours are [red, green, blue], 0 to 255. */
final class Sheet
{
    public const WIDTH = 1280;
    public const HEIGHT = 720;

    /** @var array<int, string> by height */
    private array $rows = [];

    /** @var array<int, array{float, float, float}> what each row was first filled with, for light that shines on it */
    private array $ground = [];

    /** @param array<int, array{int|float, int|float, int|float}> $stops colours by height, top to bottom */
    public function __construct(array $stops)
    {
        $heights = array_keys($stops);
        for ($y = 0, $i = 0; $y < self::HEIGHT; ++$y) {
            while ($i < count($heights) - 2 && $y >= $heights[$i + 1]) {
                ++$i;
            }
            $part = max(0.0, min(1.0, ($y - $heights[$i]) / max(1, $heights[$i + 1] - $heights[$i])));
            $this->ground[$y] = self::mixed($stops[$heights[$i]], $stops[$heights[$i + 1]], $part);
            $this->rows[$y] = str_repeat(self::bytes($this->ground[$y]), self::WIDTH);
        }
    }

    /**
     * @param array{int|float, int|float, int|float} $from
     * @param array{int|float, int|float, int|float} $to
     *
     * @return array{float, float, float}
     */
    public static function mixed(array $from, array $to, float $part): array
    {
        return [$from[0] + ($to[0] - $from[0]) * $part, $from[1] + ($to[1] - $from[1]) * $part, $from[2] + ($to[2] - $from[2]) * $part];
    }

    /** @param array{float, float, float} $colour */
    public function span(int $y, float $from, float $to, array $colour, float $cover = 1.0): void
    {
        $from = max(0, (int) round($from));
        $to = min(self::WIDTH, (int) round($to));
        if ($y < 0 || $y >= self::HEIGHT || $to <= $from) {
            return;
        }
        $shown = $cover < 1.0 ? self::mixed($this->ground[$y], $colour, $cover) : $colour;
        $this->rows[$y] = substr_replace($this->rows[$y], str_repeat(self::bytes($shown), $to - $from), 3 * $from, 3 * ($to - $from));
    }

    /** @param array{float, float, float} $colour */
    public function box(float $x, float $y, float $width, float $height, array $colour, float $cover = 1.0): void
    {
        for ($row = (int) round($y), $end = (int) round($y + $height); $row < $end; ++$row) {
            $this->span($row, $x, $x + $width, $colour, $cover);
        }
    }

    /** @param array{float, float, float} $colour */
    public function disc(float $x, float $y, float $radius, array $colour, float $cover = 1.0, float $flat = 1.0): void
    {
        for ($row = (int) ceil($y - $radius * $flat); $row <= $y + $radius * $flat; ++$row) {
            $half = $radius * sqrt(max(0.0, 1 - (($row - $y) / ($radius * $flat)) ** 2));
            $this->span($row, $x - $half, $x + $half, $colour, $cover);
        }
    }

    /**
     * Light around a lamp: rings that grow fainter.
     *
     * @param array{float, float, float} $colour
     */
    public function glow(float $x, float $y, float $radius, array $colour, float $strength): void
    {
        for ($ring = 24; $ring > 0; --$ring) {
            $this->disc($x, $y, $radius * $ring / 24, $colour, $strength * (1 - $ring / 25) ** 2);
        }
    }

    /**
     * @param list<array{float, float}> $points corners, in order
     * @param array{float, float, float} $colour
     */
    public function shape(array $points, array $colour, float $cover = 1.0): void
    {
        $heights = array_column($points, 1);
        for ($row = max(0, (int) floor(min($heights))), $end = min(self::HEIGHT - 1, (int) ceil(max($heights))); $row <= $end; ++$row) {
            $crossings = [];
            foreach ($points as $i => [$x, $y]) {
                [$nextX, $nextY] = $points[($i + 1) % count($points)];
                if (($y <= $row + 0.5) !== ($nextY <= $row + 0.5)) {
                    $crossings[] = $x + ($row + 0.5 - $y) * ($nextX - $x) / ($nextY - $y);
                }
            }
            sort($crossings);
            for ($i = 0; $i + 1 < count($crossings); $i += 2) {
                $this->span($row, $crossings[$i], $crossings[$i + 1], $colour, $cover);
            }
        }
    }

    /** @param array{float, float, float} $colour */
    public function line(float $x, float $y, float $toX, float $toY, float $width, array $colour, float $cover = 1.0): void
    {
        $length = max(0.001, hypot($toX - $x, $toY - $y));
        [$dx, $dy] = [($toY - $y) / $length * $width / 2, ($x - $toX) / $length * $width / 2];
        $this->shape([[$x + $dx, $y + $dy], [$toX + $dx, $toY + $dy], [$toX - $dx, $toY - $dy], [$x - $dx, $y - $dy]], $colour, $cover);
    }

    /** All pixels, red, green, blue, row by row. */
    public function pixels(): string
    {
        return implode('', $this->rows);
    }

    /** @param array{float, float, float} $colour */
    private static function bytes(array $colour): string
    {
        return chr((int) max(0, min(255, $colour[0]))).chr((int) max(0, min(255, $colour[1]))).chr((int) max(0, min(255, $colour[2])));
    }
}
