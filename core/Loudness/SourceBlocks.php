<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Generator;

/** The 20 ms blocks that a source was measured in, as SourceMeasurer wrote them. */
final readonly class SourceBlocks
{
    /** Samples at 48 kHz that a block lasts are rate / this. */
    public const PER_SECOND = SourceMeasurer::BLOCKS_PER_SECOND;

    /** Blocks read at once from a stream: a minute, a whole number of 100 ms. */
    private const AT_ONCE = 3000;

    /**
     * @param non-empty-list<list<float>> $powers by channel: K-weighted mean square, block by block
     * @param list<float> $peaks highest sample of any channel, block by block
     */
    private function __construct(private array $powers, private array $peaks)
    {
    }

    /** @param string $bytes float32, little-endian: for each block, for each channel, mean square and sample peak */
    public static function fromBytes(string $bytes, int $channels): self
    {
        /** @var array<int, float> $values */
        $values = '' === $bytes ? [] : unpack('g*', $bytes);
        $powers = $peaks = [];
        for ($channel = 0; $channel < max(1, $channels); ++$channel) {
            $powers[$channel] = [];
            for ($b = 0, $i = 2 * $channel + 1, $n = \count($values), $step = 2 * $channels; $i <= $n; $i += $step, ++$b) {
                $powers[$channel][] = $values[$i];
                $peaks[$b] = max($peaks[$b] ?? 0.0, $values[$i + 1]);
            }
        }

        return new self(array_values($powers), array_values($peaks));
    }

    /**
     * Minute by minute, so that a day of sound needs no more memory than that.
     *
     * @param resource $stream as SourceMeasurer wrote it, at its start
     *
     * @return Generator<self>
     */
    public static function fromStream(mixed $stream, int $channels): Generator
    {
        while ('' !== ($bytes = (string) stream_get_contents($stream, self::bytesAtOnce($channels)))) {
            yield self::fromBytes($bytes, $channels);
        }
    }

    /** Bytes of a minute, which is read at once. */
    public static function bytesAtOnce(int $channels): int
    {
        return self::AT_ONCE * $channels * 8;
    }

    public function channels(): int
    {
        return \count($this->powers);
    }

    /** @return list<float> K-weighted mean square of one channel, block by block */
    public function powers(int $channel): array
    {
        return $this->powers[$channel];
    }

    /** @return list<float> highest sample of any channel, block by block, full scale is 1 */
    public function peaks(): array
    {
        return $this->peaks;
    }

    /** @return list<float> K-weighted mean square averaged over the channels, block by block */
    public function meanPowers(): array
    {
        return 1 === $this->channels() ? $this->powers[0] : array_map(static fn (float $left, float $right): float => 0.5 * ($left + $right), $this->powers[0], $this->powers[1]);
    }
}
