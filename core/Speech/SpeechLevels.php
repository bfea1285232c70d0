<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\SourceBlocks;

/**
 * How loud a recording is block by block, and how loud its own background is around each second: all that finding speech in it
 * needs, whatever the sensitivity. Whole hundredths of a dB, so that what is kept and what is worked out anew are the same. The levels stay
 * packed: a day of them are 8 MB so, and would be 70 MB as numbers.
 */
final readonly class SpeechLevels
{
    /** 1/100 dB. */
    public const SILENCE = -10_000;
    /** Blocks to look at once: 10 minutes, whole seconds. */
    public const AT_ONCE = 30_000;
    /** The background at a moment is what a tenth of the seconds around it stay below; a shorter hole in the recording is none. */
    private const QUIET_PART = 0.1;
    private const SECONDS_AROUND = 5;
    private const LOWEST_BACKGROUND = -7000;
    private const LOUD_PART = 0.95;

    public int $count;

    /**
     * @param string $packed level of each block, 1/100 dB, int16, little-endian
     * @param list<int> $backgrounds of each second, 1/100 dB
     * @param int $loud what only a twentieth of the blocks is louder than, 1/100 dB
     */
    private function __construct(private string $packed, public array $backgrounds, public int $loud)
    {
        $this->count = intdiv(\strlen($packed), 2);
    }

    public static function of(SourceBlocks $blocks): self
    {
        return self::ofMinutes([$blocks]);
    }

    /** @param iterable<SourceBlocks> $minutes in order */
    public static function ofMinutes(iterable $minutes): self
    {
        $packed = '';
        $counts = [];
        foreach ($minutes as $blocks) {
            $levels = array_map(static fn (float $power): int => $power > 1e-10 ? (int) round(100 * Gating::loudness($power)) : self::SILENCE, $blocks->meanPowers());
            $packed .= [] === $levels ? '' : pack('v*', ...$levels);
            foreach ($levels as $level) {
                $counts[$level] = ($counts[$level] ?? 0) + 1;
            }
        }
        $count = intdiv(\strlen($packed), 2);

        return new self($packed, self::backgrounds($packed, $count), self::ranked($counts, (int) (self::LOUD_PART * ($count - 1))));
    }

    /** @param string $bytes as {@see toBytes()} makes them */
    public static function fromBytes(string $bytes): self
    {
        /** @var array{1: int} $head */
        $head = unpack('V', $bytes) ?: [1 => 0];
        $loud = self::unpacked(substr($bytes, 4, 2))[0] ?? self::SILENCE;

        return new self(substr($bytes, 6, 2 * $head[1]), self::unpacked(substr($bytes, 6 + 2 * $head[1])), $loud);
    }

    /** @return string the number of blocks as uint32, then int16, little-endian: loud, levels, backgrounds */
    public function toBytes(): string
    {
        return pack('Vv', $this->count, $this->loud & 0xFFFF).$this->packed.([] === $this->backgrounds ? '' : pack('v*', ...$this->backgrounds));
    }

    /** @return list<int> of some blocks, 1/100 dB; fewer only at the end */
    public function levels(int $from, int $count): array
    {
        return self::unpacked(substr($this->packed, 2 * $from, 2 * $count));
    }

    /**
     * The level that a part of some numbers stays below.
     *
     * @param array<int, int> $counts how often each level occurs
     * @param int $rank how many are lower or equal, less one
     */
    public static function ranked(array $counts, int $rank): int
    {
        ksort($counts);
        foreach ($counts as $level => $count) {
            $rank -= $count;
            if ($rank < 0) {
                return $level;
            }
        }

        return self::SILENCE;
    }

    /** @return list<int> by second */
    private static function backgrounds(string $packed, int $count): array
    {
        $backgrounds = [];
        $seconds = intdiv($count + SourceBlocks::PER_SECOND - 1, SourceBlocks::PER_SECOND);
        for ($i = 0; $i < $seconds; ++$i) {
            $first = max(0, $i - self::SECONDS_AROUND) * SourceBlocks::PER_SECOND;
            $around = self::unpacked(substr($packed, 2 * $first, 2 * (2 * self::SECONDS_AROUND + 1) * SourceBlocks::PER_SECOND));
            sort($around);
            $backgrounds[] = max(self::LOWEST_BACKGROUND, $around[(int) (self::QUIET_PART * (\count($around) - 1))] ?? self::LOWEST_BACKGROUND);
        }

        return $backgrounds;
    }

    /** @return list<int> */
    private static function unpacked(string $words): array
    {
        /** @var array<int, int> $found */
        $found = '' === $words ? [] : unpack('v*', $words);

        return array_map(static fn (int $n): int => $n < 32_768 ? $n : $n - 65_536, array_values($found));
    }
}
