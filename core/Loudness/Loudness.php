<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** What a loudness measurement of a whole sound found. */
final readonly class Loudness
{
    /**
     * @param ?float $integrated LUFS; null for silence, or less than 400 ms of sound
     * @param float $range LU; 0 for less than 3 s
     * @param ?float $maxMomentary LUFS; null likewise
     * @param ?float $maxShortTerm LUFS; null likewise, or for less than 3 s
     * @param ?float $truePeak dBTP; null for digital silence
     * @param ?float $samplePeak dBFS; null likewise
     * @param ?float $rms dBFS of all channels together, a full-scale sine in all of them reads −3.01; null likewise
     * @param int $frames samples of each channel
     * @param list<?float> $history short-term loudness at the end of each second from the third on, LUFS; null for silence
     */
    public function __construct(
        public ?float $integrated,
        public float $range,
        public ?float $maxMomentary,
        public ?float $maxShortTerm,
        public ?float $truePeak,
        public ?float $samplePeak,
        public ?float $rms,
        public int $frames,
        public array $history = [],
    ) {
    }

    /**
     * @param float $meanSquare of all samples of all channels
     * @param float $truePeak full scale is 1, as for the sample peak
     */
    public static function of(LoudnessWindows $windows, int $frames, float $meanSquare, float $truePeak, float $samplePeak): self
    {
        $db = static fn (float $ratio): ?float => $ratio > 0.0 ? 20.0 * log10($ratio) : null;

        return new self($windows->integrated(), $windows->range(), $windows->highestMomentary(), $windows->highestShortTerm(), $db($truePeak), $db($samplePeak), $db(sqrt($meanSquare)), $frames, $windows->history());
    }

    /**
     * Level on a VU scale, as a long average shows it.
     *
     * @param float $reference dBFS of a sine that reads 0 VU: −20 (SMPTE RP 155) or −18 (EBU R 68)
     *
     * @return ?float VU; null for silence. A sine's level in dBFS is that of its peak, 3.01 dB over its RMS.
     */
    public function vu(float $reference): ?float
    {
        return null === $this->rms ? null : $this->rms + 10.0 * log10(2.0) - $reference;
    }
}
