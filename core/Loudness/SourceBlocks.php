<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** The 20 ms blocks that a source was measured in, as SourceMeasurer wrote them. */
final readonly class SourceBlocks
{
    /** Samples at 48 kHz that a block lasts are rate / this. */
    public const PER_SECOND = SourceMeasurer::BLOCKS_PER_SECOND;

    /** @param list<float> $values for each block, for each channel: K-weighted mean square and sample peak */
    private function __construct(private array $values, public int $channels)
    {
    }

    /** @param string $bytes float32, little-endian */
    public static function fromBytes(string $bytes, int $channels): self
    {
        /** @var array<int, float> $values */
        $values = '' === $bytes ? [] : unpack('g*', $bytes);

        return new self(array_values($values), $channels);
    }

    public function count(): int
    {
        return intdiv(\count($this->values), 2 * $this->channels);
    }

    /** @return list<float> K-weighted mean square of one channel, block by block */
    public function powers(int $channel): array
    {
        $powers = [];
        for ($i = 2 * $channel, $n = \count($this->values), $step = 2 * $this->channels; $i < $n; $i += $step) {
            $powers[] = $this->values[$i];
        }

        return $powers;
    }

    /** @return list<float> K-weighted mean square averaged over the channels, block by block */
    public function meanPowers(): array
    {
        if (1 === $this->channels) {
            return $this->powers(0);
        }

        return array_map(static fn (float $left, float $right): float => 0.5 * ($left + $right), $this->powers(0), $this->powers(1));
    }
}
