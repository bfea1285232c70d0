<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\SourceBlocks;

/**
 * How loud a recording is block by block, and how loud its own background is around each second: all that finding speech in it
 * needs, whatever the sensitivity. Whole hundredths of a dB, so that what is kept and what is worked out anew are the same.
 */
final readonly class SpeechLevels
{
    /** The background at a moment is what a tenth of the seconds around it stay below; a shorter hole in the recording is none. */
    private const QUIET_PART = 0.1;
    private const SECONDS_AROUND = 5;
    private const LOWEST_BACKGROUND = -7000;
    private const SILENCE = -10_000;

    private const LOUD_PART = 0.95;

    /**
     * @param list<int> $levels of each block, 1/100 dB
     * @param list<int> $backgrounds of each second, 1/100 dB
     * @param int $loud what only a twentieth of the blocks is louder than, 1/100 dB
     */
    private function __construct(public array $levels, public array $backgrounds, public int $loud)
    {
    }

    public static function of(SourceBlocks $blocks): self
    {
        $levels = array_map(static fn (float $power): int => $power > 1e-10 ? (int) round(100 * Gating::loudness($power)) : self::SILENCE, $blocks->meanPowers());
        $sorted = $levels;
        sort($sorted);

        return new self($levels, self::backgrounds($levels), $sorted[(int) (self::LOUD_PART * (\count($sorted) - 1))] ?? self::SILENCE);
    }

    /** @param string $bytes as {@see toBytes()} makes them */
    public static function fromBytes(string $bytes): self
    {
        /** @var array{1: int} $head */
        $head = unpack('V', $bytes) ?: [1 => 0];
        /** @var array<int> $words */
        $words = unpack('v*', substr($bytes, 4)) ?: [];
        $all = array_map(static fn (int $n): int => $n < 32_768 ? $n : $n - 65_536, array_values($words));

        return new self(\array_slice($all, 1, $head[1]), \array_slice($all, $head[1] + 1), $all[0] ?? self::SILENCE);
    }

    /** @return string the number of blocks as uint32, then int16, little-endian: loud, levels, backgrounds */
    public function toBytes(): string
    {
        return pack('V', \count($this->levels)).pack('v*', $this->loud, ...$this->levels, ...$this->backgrounds);
    }

    /**
     * @param list<int> $levels
     *
     * @return list<int> by second
     */
    private static function backgrounds(array $levels): array
    {
        $backgrounds = [];
        $seconds = intdiv(\count($levels) + SourceBlocks::PER_SECOND - 1, SourceBlocks::PER_SECOND);
        for ($i = 0; $i < $seconds; ++$i) {
            $around = \array_slice($levels, max(0, $i - self::SECONDS_AROUND) * SourceBlocks::PER_SECOND, (2 * self::SECONDS_AROUND + 1) * SourceBlocks::PER_SECOND);
            sort($around);
            $backgrounds[] = max(self::LOWEST_BACKGROUND, $around[(int) (self::QUIET_PART * (\count($around) - 1))] ?? self::LOWEST_BACKGROUND);
        }

        return $backgrounds;
    }
}
