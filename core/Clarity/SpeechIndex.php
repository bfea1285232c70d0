<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Wattage\Core\Bands\ThirdOctaves;

/**
 * The Speech Intelligibility Index of ANSI S3.5-1997 by its third-octave procedure: how much of what speech is understood by can be heard, 0 … 1.
 *
 * All levels are spectrum levels at the listener's ear: dB SPL in a band one hertz wide. The tables are recalled from memory [M]: band importance for average speech, the
 * spectrum of normal vocal effort and the reference internal noise, each of the standard's table for third octaves.
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
    /** Nothing, dB. */
    public const SILENCE = -200.0;

    /** @var list<float> 10 log10 of each centre in hertz, less the 6.353 of the slope's equation */
    private readonly array $slopeAt;
    /** @var list<float> dB of hearing threshold that come on top of the internal noise */
    private readonly array $internal;

    /** @param list<float> $hearingLoss dB by band; none for healthy ears */
    public function __construct(array $hearingLoss = [])
    {
        $this->slopeAt = array_map(static fn (int $band): float => 10.0 * log10(ThirdOctaves::centre($band)) - 6.353, range(0, ThirdOctaves::COUNT - 1));
        $this->internal = array_map(static fn (float $noise, int $band): float => $noise + ($hearingLoss[$band] ?? 0.0), self::INTERNAL, array_keys(self::INTERNAL));
    }

    /**
     * @param array<int, float> $speech spectrum level by band, dB; {@see SILENCE} for none
     * @param array<int, float> $noise likewise, of everything else
     */
    public function of(array $speech, array $noise): float
    {
        return array_sum($this->parts($speech, $noise));
    }

    /**
     * What each band brings to the index, of at most its importance.
     *
     * @param array<int, float> $speech
     * @param array<int, float> $noise
     *
     * @return list<float>
     */
    public function parts(array $speech, array $noise): array
    {
        $masking = $this->masking($speech, $noise);
        $parts = [];
        foreach (self::IMPORTANCE as $band => $importance) {
            $disturbance = $masking[$band] > $this->internal[$band] ? $masking[$band] : $this->internal[$band];
            $audible = ($speech[$band] - $disturbance + self::PEAKS) / self::DYNAMIC_RANGE;
            $undistorted = 1.0 - ($speech[$band] - self::NORMAL[$band] - 10.0) / 160.0;
            $parts[] = $importance * ($audible < 0.0 ? 0.0 : ($audible > 1.0 ? 1.0 : $audible)) * ($undistorted < 0.0 ? 0.0 : ($undistorted > 1.0 ? 1.0 : $undistorted));
        }

        return $parts;
    }

    /**
     * The noise in each band and what spreads upwards from those below it.
     *
     * @param array<int, float> $speech
     * @param array<int, float> $noise
     *
     * @return list<float> spectrum level, dB
     */
    private function masking(array $speech, array $noise): array
    {
        $masking = $spreading = $falling = [];
        foreach (self::IMPORTANCE as $band => $importance) {
            $own = $speech[$band] - self::OWN_MASKING;
            $masker = $noise[$band] > $own ? $noise[$band] : $own;
            $sum = 10.0 ** ($noise[$band] / 10.0);
            // A third of an octave further up each masker has fallen by its own slope once more.
            foreach ($spreading as $below => $power) {
                $spreading[$below] = $power *= $falling[$below];
                $sum += $power;
            }
            $slope = 0.6 * ($masker + $this->slopeAt[$band]) - 80.0;
            // 3.32 log10(0.89 f / f'), of which 0.89 is the lower side of the masker's band; the first step up makes it 0.1 · n.
            $spreading[] = 10.0 ** (0.1 * ($masker + 3.32 * $slope * log10(0.89)));
            $falling[] = 10.0 ** (0.1 * 3.32 * $slope * 0.1);
            $masking[] = $sum > 1e-20 ? 10.0 * log10($sum) : self::SILENCE;
        }

        return $masking;
    }
}
