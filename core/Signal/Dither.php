<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * TPDF dither: the sum of two independent uniform values, ±1 step at most, which makes the rounding error independent of
 * the sound (Lipshitz, Wannamaker, Vanderkooy, "Quantization and dither", JAES 1992). It is drawn from a table at a random
 * place for each piece, and from a fixed seed, so that the same mix renders to the same file.
 */
final class Dither
{
    /** 1.5 · 2⁵²: floats of this size are whole numbers, so that adding it and taking it away again rounds. */
    public const WHOLE = 6755399441055744.0;

    private const TABLE = 1 << 17;

    /** @var list<float> triangular noise in steps, −1…1 */
    public readonly array $noise;
    private readonly Randomizer $random;

    public function __construct(int $seed = 1)
    {
        $this->random = new Randomizer(new Xoshiro256StarStar($seed));
        /** @var array<int, int> $pairs */
        $pairs = unpack('v*', $this->random->getBytes(4 * self::TABLE));
        $noise = [];
        for ($i = 1, $n = 2 * self::TABLE; $i < $n; $i += 2) {
            $noise[] = ($pairs[$i] + $pairs[$i + 1] - 65535.0) / 65536.0;
        }
        $this->noise = $noise;
    }

    /** @return int where in the table a piece of so many samples may begin */
    public function place(int $samples): int
    {
        return $this->random->getInt(0, self::TABLE - $samples);
    }

    /** @return list<float> the values, none below 0 or above the most */
    public static function within(float $most, float ...$values): array
    {
        return array_map(static fn (float $value): float => min($most, max(0.0, $value)), array_values($values));
    }
}
