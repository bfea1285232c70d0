<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\SampleLayout;

/**
 * Measures a sound of any length as it streams past, in constant memory. Any way of cutting it into pushes gives the same result.
 *
 * Sources: ITU-R BS.1770 (K-weighting, channel weights, gates, true peak), EBU Tech 3341 and 3342.
 */
final class LoudnessMeter
{
    private const TENTHS_PER_SECOND = 10;

    private readonly Scan $scan;
    /** As they stand, for meters that follow along. */
    public readonly LoudnessWindows $windows;
    private string $rest = '';
    private int $tenths = 0;
    private int $frames = 0;
    private float $squares = 0.0;

    /**
     * @param int $rate samples per second, 8,000 to 192,000
     *
     * @throws InvalidSound
     */
    public function __construct(private readonly SampleLayout $layout, private readonly int $rate)
    {
        $rate >= 8000 && $rate <= 192_000 || throw InvalidSound::rate($rate);
        $this->scan = self::scan($layout, $rate);
        $this->windows = new LoudnessWindows();
    }

    /** The quickest way to go over a sound of a kind. */
    public static function scan(SampleLayout $layout, int $rate): Scan
    {
        return 2 === $layout->channels && !$layout->isFloat && StereoScan::suits($rate) ? new StereoScan($rate) : new PlainScan($layout, $rate);
    }

    /**
     * A sound that was measured in parts.
     *
     * @param non-empty-list<MeasuredPart> $parts in order
     */
    public static function joined(array $parts, int $channels): Loudness
    {
        $windows = new LoudnessWindows();
        $frames = 0;
        $squares = $truePeak = $samplePeak = 0.0;
        foreach ($parts as $part) {
            array_map($windows->push(...), $part->powers);
            $frames += $part->frames;
            $squares += $part->squares;
            $truePeak = max($truePeak, $part->truePeak);
            $samplePeak = max($samplePeak, $part->samplePeak);
        }

        return Loudness::of($windows, $frames, $squares / max(1, $frames * $channels), $truePeak, $samplePeak);
    }

    /** @param string $bytes any number of bytes */
    public function push(string $bytes): void
    {
        $bytes = '' === $this->rest ? $bytes : $this->rest.$bytes;
        $at = 0;
        $end = \strlen($bytes);
        while ($at + ($size = $this->sizeOfNextTenth()) <= $end) {
            $this->tenth(substr($bytes, $at, $size), $size);
            $at += $size;
        }
        $this->rest = substr($bytes, $at);
    }

    /** Measures what is left, of which a broken frame at the very end is dropped. */
    public function finish(): Loudness
    {
        $size = $this->layout->bytesPerFrame();
        $rest = substr($this->rest, 0, intdiv(\strlen($this->rest), $size) * $size);
        $this->rest = '';
        if ('' !== $rest) {
            // Less than 100 ms fills no window, but its peak counts.
            [, $squares] = $this->scan->measure($rest);
            $this->squares += $squares;
            $this->frames += intdiv(\strlen($rest), $size);
        }
        [$truePeak, $samplePeak] = $this->scan->finish();

        return Loudness::of($this->windows, $this->frames, $this->squares / max(1, $this->frames * $this->layout->channels), $truePeak, $samplePeak);
    }

    private function tenth(string $bytes, int $size): void
    {
        $frames = intdiv($size, $this->layout->bytesPerFrame());
        [$weighted, $squares] = $this->scan->measure($bytes);
        $this->windows->push($weighted / $frames);
        $this->squares += $squares;
        $this->frames += $frames;
        ++$this->tenths;
    }

    /** Tenths of a second may not be whole numbers of samples, so that their ends are rounded. */
    private function sizeOfNextTenth(): int
    {
        $end = intdiv(($this->tenths + 1) * $this->rate + intdiv(self::TENTHS_PER_SECOND, 2), self::TENTHS_PER_SECOND);

        return ($end - $this->frames) * $this->layout->bytesPerFrame();
    }
}
