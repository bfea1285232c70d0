<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** What measuring a stretch of a sound found, to be joined with its neighbours. */
final readonly class MeasuredPart
{
    /**
     * @param list<float> $powers weighted mean square of each 100 ms, summed over the channels
     * @param float $squares sum of the squares of all samples
     * @param int $frames samples of each channel
     * @param float $truePeak full scale is 1
     * @param float $samplePeak full scale is 1
     */
    public function __construct(public array $powers, public float $squares, public int $frames, public float $truePeak, public float $samplePeak)
    {
    }

    /** @return string for another process */
    public function toBytes(): string
    {
        return pack('e*', $this->squares, $this->frames, $this->truePeak, $this->samplePeak, ...$this->powers);
    }

    /** @param string $bytes as toBytes() made them */
    public static function fromBytes(string $bytes): ?self
    {
        $numbers = array_values((array) unpack('e*', $bytes));
        if (\count($numbers) < 4 || [] !== array_filter($numbers, static fn (mixed $n): bool => !\is_float($n))) {
            return null;
        }
        /** @var list<float> $numbers */
        [$squares, $frames, $truePeak, $samplePeak] = $numbers;

        return new self(\array_slice($numbers, 4), $squares, (int) $frames, $truePeak, $samplePeak);
    }
}
