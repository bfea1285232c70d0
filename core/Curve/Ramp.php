<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/**
 * The way from a keyframe to the next one.
 *
 * A smooth ramp is an S plus a straight part: `tilt` dB of its rise are straight, the rest follows the S between its
 * `windowFrom` and `windowTo`. Whole ramps have tilt 0 and the window 0…1; the other values arise when a ramp is cut in
 * two, or when a smooth dip is laid over a slope, and keep both exact.
 */
final readonly class Ramp
{
    /**
     * @param float $easeOut part of the S spent leaving the first keyframe, 0…1
     * @param float $easeIn part of the S spent arriving at the second, 0…1; both together at most 1
     * @param float $windowFrom where in the S this ramp starts, 0…1
     * @param float $windowTo where in the S this ramp ends, $windowFrom…1
     * @param float $tilt straight part of a smooth ramp's rise, dB
     */
    private function __construct(
        public RampKind $kind,
        public float $easeOut = 0.5,
        public float $easeIn = 0.5,
        public float $windowFrom = 0.0,
        public float $windowTo = 1.0,
        public float $tilt = 0.0,
    ) {
    }

    public static function of(RampKind $kind): self
    {
        return new self($kind);
    }

    public static function line(): self
    {
        return new self(RampKind::Line);
    }

    public static function hold(): self
    {
        return new self(RampKind::Hold);
    }

    /** @throws InvalidCurve when the eases do not fit or the window is reversed */
    public static function smooth(float $easeOut = 0.5, float $easeIn = 0.5, float $windowFrom = 0.0, float $windowTo = 1.0, float $tilt = 0.0): self
    {
        if (!($easeOut >= 0.0 && $easeIn >= 0.0 && $easeOut + $easeIn <= 1.0 + 1e-9)) {
            throw InvalidCurve::badRamp('Ease-out and ease-in are parts of the ramp: each 0 to 1, together at most 1.');
        }
        if (!($windowFrom >= 0.0 && $windowFrom < $windowTo && $windowTo <= 1.0)) {
            throw InvalidCurve::badRamp('A ramp’s window must lie within 0 and 1 and end after it starts.');
        }
        if (!is_finite($tilt)) {
            throw InvalidCurve::badRamp('A ramp’s tilt must be a finite number of dB.');
        }

        return new self(RampKind::Smooth, $easeOut, $easeIn, $windowFrom, $windowTo, $tilt);
    }

    public function tiltedBy(float $db): self
    {
        return new self($this->kind, $this->easeOut, $this->easeIn, $this->windowFrom, $this->windowTo, $this->tilt + $db);
    }

    /** The whole ramp of the same kind and shape, as if it had never been cut or tilted. */
    public function whole(): self
    {
        return new self($this->kind, $this->easeOut, $this->easeIn);
    }

    /** Whether $next goes on where this ramp stops, as the two halves of a cut ramp do. */
    public function continuesIn(self $next): bool
    {
        return $this->kind === $next->kind && $this->easeOut === $next->easeOut && $this->easeIn === $next->easeIn
            && (RampKind::Smooth !== $this->kind || abs($this->windowTo - $next->windowFrom) < 1e-9);
    }

    /** This ramp and its continuation as one; the counterpart of a cut. */
    public function joinedWith(self $next): self
    {
        return new self($this->kind, $this->easeOut, $this->easeIn, $this->windowFrom, RampKind::Smooth === $this->kind ? $next->windowTo : 1.0, $this->tilt + $next->tilt);
    }
}
