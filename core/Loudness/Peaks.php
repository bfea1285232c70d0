<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Filter\Biquad;
use Wattage\Core\Render\ColouredSound;
use Wattage\Core\Render\Part;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;

/**
 * Finds where a clip rises above a ceiling, and how to bring it down there.
 *
 * The outline of the source (highest sample of every 20 ms) tells where to look; only there the sound itself is read, so that
 * an hour is searched in a blink and what is found is exact to the sample.
 */
final class Peaks
{
    /** Where more than this is too loud, it is not peaks that need to be tamed. Seconds. */
    private const MOST_SECONDS = 60;

    /** @var list<Span> where the sound may be above the ceiling */
    private readonly array $moments;
    private readonly ?ColouredSound $coloured;

    /**
     * @param list<array{Routing, non-empty-list<Stretch>}> $parts how the clip is heard, gains included
     * @param string $outline as {@see above()} takes it
     * @param list<Biquad> $biquads
     */
    private function __construct(private readonly array $parts, string $outline, private readonly PcmSource $sound, array $biquads, Span $span, private readonly float $ceiling, private readonly int $rate)
    {
        $this->coloured = [] === $biquads ? null : new ColouredSound($sound, $biquads);
        $this->moments = (new LoudMoments($parts, $this->coloured, $biquads, $ceiling, $rate, self::MOST_SECONDS))->in($outline, $span);
    }

    /**
     * Looks where it may be too loud; the sound itself is not read yet.
     *
     * @param list<Part> $parts how the clip is heard
     * @param string $outline uint16 (little-endian) for every 20 ms of the source, 32768 = full scale
     * @param Span $span what to search, in source samples
     * @param float $ceiling dBFS
     * @param list<Biquad> $biquads the colour of the clip, which comes before its gains
     */
    public static function above(array $parts, string $outline, PcmSource $sound, Span $span, float $ceiling, int $rate, array $biquads = []): self
    {
        return new self(array_map(static fn (Part $part): array => [$part->routing, $part->heard()], $parts), $outline, $sound, $biquads, $span, $ceiling, $rate);
    }

    /**
     * @param list<self> $searches of clips that are looked through together
     *
     * @throws InvalidCeiling when so much is above it that those are not peaks
     */
    public static function areFew(array $searches): void
    {
        $seconds = array_sum(array_map(static fn (self $search): float => array_sum(array_map(static fn (Span $moment): int => $moment->length(), $search->moments)) / $search->rate, $searches));
        $seconds <= self::MOST_SECONDS || throw InvalidCeiling::tooLow($searches[0]->ceiling ?? 0.0);
    }

    /**
     * @return list<Peak> in the order of time
     *
     * @throws InvalidCeiling when nearly everything is above it
     */
    public function found(): array
    {
        self::areFew([$this]);

        $taming = new Taming($this->ceiling, $this->rate);

        return array_merge(...array_map(fn (Span $moment): array => $taming->of($this->excess($moment)), $this->moments));
    }

    /** @return array<int, float> dB over the ceiling of every sample that is, by source sample */
    private function excess(Span $moment): array
    {
        $format = $this->sound->format();
        $samples = $this->coloured?->samples($moment->from, $moment->length()) ?? PcmDecoder::decode($this->sound->read($moment->from, $moment->length()), $format);
        $limit = (null === $this->coloured ? $format->fullScale() : 1.0) * 10.0 ** ($this->ceiling / 20.0);
        $excess = [];
        $stereo = 2 === $format->channels;
        $gains = $this->gainsOver($moment);
        for ($i = 0, $n = $moment->length(); $i < $n; ++$i) {
            $left = $samples[$stereo ? 2 * $i : $i];
            $right = $samples[$stereo ? 2 * $i + 1 : $i];
            [$ll, $rl, $lr, $rr] = $gains[$i];
            $loudest = max(abs($left * $ll + $right * $rl), abs($left * $lr + $right * $rr));
            if ($loudest > $limit) {
                $excess[$moment->from + $i] = 20.0 * log10($loudest / $limit);
            }
        }

        return $excess;
    }

    /** @return list<array{float, float, float, float}> gains from each channel to each, sample by sample */
    private function gainsOver(Span $moment): array
    {
        $gains = [];
        for ($position = $moment->from; $position < $moment->to; ++$position) {
            $sum = [0.0, 0.0, 0.0, 0.0];
            foreach ($this->parts as [$r, $stretches]) {
                $gain = self::gainAt($stretches, $position);
                $sum = [$sum[0] + $gain * $r->leftToLeft, $sum[1] + $gain * $r->rightToLeft, $sum[2] + $gain * $r->leftToRight, $sum[3] + $gain * $r->rightToRight];
            }
            $gains[] = $sum;
        }

        return $gains;
    }

    /** @param non-empty-list<Stretch> $stretches */
    private static function gainAt(array $stretches, int $position): float
    {
        $low = 0;
        $high = \count($stretches) - 1;
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($stretches[$middle]->to <= $position) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $stretches[$low]->appliedGainAt($position);
    }
}
