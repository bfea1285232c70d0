<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Bands\SourceBands;

/** How loud a source is every 100 ms: what most figures need, five times quicker to go through than its blocks. */
final readonly class SourceTenths
{
    /**
     * @param non-empty-list<Series> $powers by channel: K-weighted mean square of each 100 ms
     * @param Series $peaks highest sample of any channel in each 100 ms, full scale is 1
     * @param ?Closure(): ?SourceBands $bandsOf its third octaves, read where filters ask for them
     */
    private function __construct(public array $powers, public Series $peaks, private ?Closure $bandsOf = null)
    {
    }

    public static function of(SourceBlocks $blocks): self
    {
        return self::fromBytes(self::bytesOf([$blocks], $blocks->channels()), $blocks->channels());
    }

    public static function fromBytes(string $bytes, int $channels): self
    {
        $size = 4 * intdiv(\strlen($bytes), 4 * ($channels + 1));
        $row = static fn (int $number): Series => Series::fromBytes(substr($bytes, $number * $size, $size));

        return new self(array_map($row, range(0, max(1, $channels) - 1)), $row($channels));
    }

    /**
     * Minute by minute, so that a day of sound needs no more memory than what comes out.
     *
     * @param iterable<SourceBlocks> $minutes in order, each but the last a whole number of 100 ms
     *
     * @return string float32, little-endian: the powers of each channel, then the peaks
     */
    public static function bytesOf(iterable $minutes, int $channels): string
    {
        $rows = array_fill(0, $channels + 1, '');
        foreach ($minutes as $blocks) {
            for ($channel = 0; $channel < $channels; ++$channel) {
                // What is left at the end counts as if silence followed, so that its energy stays what it is.
                $padded = $blocks->powers($channel);
                $rows[$channel] .= Series::packed(Gating::tenths([...$padded, ...array_fill(0, (5 - \count($padded) % 5) % 5, 0.0)]));
            }
            $rows[$channels] .= Series::packed(array_map(static fn (array $peaks): float => max($peaks), array_chunk($blocks->peaks(), 5)));
        }

        return implode('', $rows);
    }

    /** @param Closure(): ?SourceBands $bands its third octaves, read where filters ask for them; null where nobody measured them */
    public function withBands(Closure $bands): self
    {
        return new self($this->powers, $this->peaks, $bands);
    }

    public function bands(): ?SourceBands
    {
        return null === $this->bandsOf ? null : ($this->bandsOf)();
    }

    /**
     * With others from some number on.
     *
     * @param non-empty-list<array<int, float>> $powers by channel
     * @param array<int, float> $peaks
     */
    public function replaced(int $from, array $powers, array $peaks): self
    {
        return new self(array_map(static fn (Series $row, array $some): Series => $row->replaced($from, $some), $this->powers, $powers), $this->peaks->replaced($from, $peaks), $this->bandsOf);
    }

    public function toBytes(): string
    {
        return implode('', array_map(static fn (Series $row): string => $row->toBytes(), [...$this->powers, $this->peaks]));
    }

    public function channels(): int
    {
        return \count($this->powers);
    }
}
