<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

/** What lies in each third-octave band of a source, every 100 ms, as {@see BandMeter} wrote it. */
final class SourceBands
{
    private ?string $together = null;

    private function __construct(private readonly string $bytes, private readonly int $channels)
    {
    }

    public static function fromBytes(string $bytes, int $channels): self
    {
        return new self($bytes, $channels);
    }

    /** @return string a row of {@see ThirdOctaves::COUNT} bytes for each 100 ms: the mean of its channels */
    public function together(): string
    {
        return $this->together ??= 1 === $this->channels ? $this->bytes : $this->mean();
    }

    /**
     * The same of one channel.
     *
     * @param int $channel 0 or 1; of a source with one it is that
     */
    public function of(int $channel): string
    {
        if (1 === $this->channels) {
            return $this->bytes;
        }
        $rows = '';
        $row = ThirdOctaves::COUNT;
        for ($at = $channel * $row, $n = \strlen($this->bytes); $at < $n; $at += 2 * $row) {
            $rows .= substr($this->bytes, $at, $row);
        }

        return $rows;
    }

    private function mean(): string
    {
        [$left, $right] = [$this->of(0), $this->of(1)];
        if ($left === $right) {
            return $left;
        }
        $powers = BandLevel::powers();
        $mean = '';
        for ($i = 0, $n = \strlen($left); $i < $n; ++$i) {
            $mean .= $left[$i] === $right[$i] ? $left[$i] : \chr(BandLevel::byte(0.5 * ($powers[\ord($left[$i])] + $powers[\ord($right[$i])])));
        }

        return $mean;
    }
}
