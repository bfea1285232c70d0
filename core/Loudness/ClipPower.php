<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** How loud a clip is heard: after its gains, curve and fades, and the faders and lanes it goes through; pan apart, and as if nothing were muted. */
final readonly class ClipPower
{
    /** Power over both sides of the bus to average level: that of one of them. */
    private const HALF_DB = 3.0102999566398;

    /** @param TrackPower $power every 100 ms from the start of the clip */
    private function __construct(private TrackPower $power)
    {
    }

    public static function of(Mix $mix, Clip $clip, SourceTenths $tenths): self
    {
        $track = $mix->trackOf($clip->id);
        $after = $mix->faders->of($track->stem)->plus($mix->faders->programme);

        return new self(TrackPower::ofClip($mix, $track, $clip, $tenths, $after));
    }

    /** Powers summed over the sides, and peaks, every 100 ms from the start of the clip. */
    public function tenths(): TrackPower
    {
        return $this->power;
    }

    /** @return array<int, float> mean over the sides, every 100 ms from the start of the clip */
    public function powers(): array
    {
        return array_map(static fn (float $power): float => 0.5 * $power, $this->power->powers->values());
    }

    /** @return ?float gated average level in dBFS, as AverageLevel has it; null for silence */
    public function average(): ?float
    {
        $loudness = Predicted::of($this->power->powers, 0.0)->integrated;

        return null === $loudness ? null : $loudness - self::HALF_DB;
    }

    /** @return ?float dBFS that no sample passes; null for silence */
    public function peak(): ?float
    {
        $peak = $this->power->peaks->highest();

        return $peak > 0.0 ? 20.0 * log10($peak) : null;
    }
}
