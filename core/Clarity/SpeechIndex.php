<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Wattage\Core\Bands\ThirdOctaves;

/**
 * The Speech Intelligibility Index of ANSI S3.5-1997 by its third-octave procedure: how much of what speech is understood by can be heard, 0 … 1.
 *
 * All levels are spectrum levels at the listener's ear: dB SPL in a band one hertz wide. Noise is given as the power that this stands for, 10^(dB / 10), since that is what is
 * added up on the way here. The tables are recalled from memory [M]: band importance for average speech, the spectrum of normal vocal effort and the reference internal noise,
 * each of the standard's table for third octaves.
 */
final class SpeechIndex
{
    /** What each band contributes to understanding; their sum is 1. */
    public const IMPORTANCE = [0.0083, 0.0095, 0.0150, 0.0289, 0.0440, 0.0578, 0.0653, 0.0711, 0.0818, 0.0844, 0.0882, 0.0898, 0.0868, 0.0844, 0.0771, 0.0527, 0.0364, 0.0185];

    /** Normal vocal effort at one metre, dB SPL per hertz; 62.35 dB SPL together. */
    public const NORMAL = [32.41, 34.48, 34.75, 33.98, 34.59, 34.27, 32.06, 28.30, 25.01, 23.00, 20.15, 17.32, 13.18, 11.55, 9.33, 5.31, 2.59, 1.13];
    public const NORMAL_TOGETHER = 62.35;

    /** What a healthy ear hears of itself, dB SPL per hertz. */
    private const INTERNAL = [0.60, -1.70, -3.90, -6.10, -8.20, -9.70, -10.80, -11.90, -12.50, -13.50, -15.40, -17.70, -21.20, -24.20, -25.90, -23.60, -15.80, -7.10];

    /** Speech masks itself by so much less than its level, dB. */
    private const OWN_MASKING = 24.0;
    /** Speech peaks stand so far above its average, and 30 dB beneath them it is all there is to hear. */
    private const PEAKS = 15.0;
    private const DYNAMIC_RANGE = 30.0;
    /** Nothing, dB and power. */
    public const SILENCE = -200.0;
    public const NOTHING = 1e-20;
    /** dB of a power whose natural logarithm is 1, and the reverse. */
    private const DB = 10.0 / \M_LN10;
    private const NEPER = 0.1 * \M_LN10;
    /** A masker falls by 0.6 dB an octave less for each dB that it is louder; 3.32 log10 of two frequencies is octaves, as the standard rounds them. */
    private const FLATTER = 0.6;
    private const OCTAVES = 3.32;
    /** The lower side of a masker's band, as a part of its centre. */
    private const LOWER_SIDE = 0.89;
    /** log10 of two centres next to one another. */
    private const THIRD = 0.1;

    /** @var list<float> dB of hearing threshold, by band */
    private readonly array $internal;
    /** @var list<float> the power that is */
    private readonly array $internalPower;
    /** @var list<float> of what a masker of 0 dB spreads, by its band: natural logarithm of the power with which it sets out */
    private readonly array $setsOut;
    /** @var list<float> likewise, of what is left of it a third of an octave further up */
    private readonly array $falls;
    /** What both grow by for each dB of the masker. */
    private readonly float $moreOut;
    private readonly float $moreLeft;

    /** @param list<float> $hearingLoss dB by band; none for healthy ears */
    public function __construct(array $hearingLoss = [])
    {
        $this->internal = array_map(static fn (float $noise, int $band): float => $noise + ($hearingLoss[$band] ?? 0.0), self::INTERNAL, array_keys(self::INTERNAL));
        $this->internalPower = array_map(static fn (float $noise): float => 10.0 ** ($noise / 10.0), $this->internal);
        // dB an octave of a masker of 0 dB: 0.6 (10 log10 f - 6.353) - 80.
        $slopes = array_map(static fn (int $band): float => self::FLATTER * (10.0 * log10(ThirdOctaves::centre($band)) - 6.353) - 80.0, range(0, ThirdOctaves::COUNT - 1));
        $out = self::OCTAVES * log10(self::LOWER_SIDE);
        $this->setsOut = array_map(static fn (float $slope): float => self::NEPER * $out * $slope, $slopes);
        $this->moreOut = self::NEPER * (1.0 + $out * self::FLATTER);
        $left = self::OCTAVES * self::THIRD;
        $this->falls = array_map(static fn (float $slope): float => self::NEPER * $left * $slope, $slopes);
        $this->moreLeft = self::NEPER * $left * self::FLATTER;
    }

    /**
     * @param array<int, float> $speech spectrum level by band, dB; {@see SILENCE} for none
     * @param array<int, float> $noise power per hertz by band, of everything else
     */
    public function of(array $speech, array $noise): float
    {
        return array_sum($this->parts($speech, $noise));
    }

    /**
     * What each band brings to the index, of at most its importance. One loop: a rule that is tried asks for this ten thousand times.
     *
     * @param array<int, float> $speech
     * @param array<int, float> $noise
     *
     * @return list<float>
     */
    public function parts(array $speech, array $noise): array
    {
        [$internal, $internalPower, $setsOut, $falls, $moreOut, $moreLeft] = [$this->internal, $this->internalPower, $this->setsOut, $this->falls, $this->moreOut, $this->moreLeft];
        $parts = $spreading = $falling = [];
        foreach (self::IMPORTANCE as $band => $importance) {
            $said = $speech[$band];
            $sum = $noise[$band];
            $masker = $sum > self::NOTHING ? self::DB * log($sum) : self::SILENCE;
            if ($said - self::OWN_MASKING > $masker) {
                $masker = $said - self::OWN_MASKING;
            }
            // The noise in a band and what spreads upwards from those below it: a third of an octave further up each masker has fallen by its own slope once more.
            foreach ($spreading as $below => $power) {
                $spreading[$below] = $power *= $falling[$below];
                $sum += $power;
            }
            $spreading[] = exp($setsOut[$band] + $moreOut * $masker);
            $falling[] = exp($falls[$band] + $moreLeft * $masker);
            $audible = ($said - ($sum > $internalPower[$band] ? self::DB * log($sum) : $internal[$band]) + self::PEAKS) / self::DYNAMIC_RANGE;
            if ($audible <= 0.0) {
                $parts[] = 0.0;
                continue;
            }
            $undistorted = 1.0 - ($said - self::NORMAL[$band] - 10.0) / 160.0;
            $parts[] = $importance * ($audible > 1.0 ? 1.0 : $audible) * ($undistorted < 0.0 ? 0.0 : ($undistorted > 1.0 ? 1.0 : $undistorted));
        }

        return $parts;
    }
}
