<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\FloatDecoder;

/** How loud a source is every 100 ms: what most figures need, five times quicker to go through than its blocks. */
final readonly class SourceTenths
{
    /**
     * @param non-empty-list<list<float>> $powers by channel: K-weighted mean square of each 100 ms
     * @param list<float> $peaks highest sample of any channel in each 100 ms, full scale is 1
     */
    private function __construct(public array $powers, public array $peaks)
    {
    }

    public static function of(SourceBlocks $blocks): self
    {
        $powers = [];
        for ($channel = 0; $channel < $blocks->channels(); ++$channel) {
            // What is left at the end counts as if silence followed, so that its energy stays what it is.
            $padded = $blocks->powers($channel);
            $powers[] = Gating::tenths([...$padded, ...array_fill(0, (5 - \count($padded) % 5) % 5, 0.0)]);
        }

        return new self([] === $powers ? [[]] : $powers, array_map(static fn (array $peaks): float => max($peaks), array_chunk($blocks->peaks(), 5)));
    }

    /**
     * Minute by minute, so that a day of sound needs no more memory than what comes out.
     *
     * @param iterable<SourceBlocks> $minutes in order, each but the last a whole number of 100 ms
     *
     * @return string as {@see toBytes()} makes it
     */
    public static function bytesOf(iterable $minutes, int $channels): string
    {
        $rows = array_fill(0, $channels + 1, '');
        foreach ($minutes as $blocks) {
            $some = self::of($blocks);
            foreach ([...$some->powers, $some->peaks] as $row => $values) {
                $rows[$row] .= [] === $values ? '' : pack('g*', ...$values);
            }
        }

        return implode('', $rows);
    }

    public static function fromBytes(string $bytes, int $channels): self
    {
        $size = 4 * intdiv(\strlen($bytes), 4 * ($channels + 1));
        $row = static fn (int $number): array => array_values(FloatDecoder::decode(substr($bytes, $number * $size, $size)));

        return new self(array_map($row, range(0, max(1, $channels) - 1)), $row($channels));
    }

    /** @return string float32, little-endian: the powers of each channel, then the peaks */
    public function toBytes(): string
    {
        return implode('', array_map(static fn (array $row): string => [] === $row ? '' : pack('g*', ...$row), [...$this->powers, $this->peaks]));
    }

    public function channels(): int
    {
        return \count($this->powers);
    }
}
