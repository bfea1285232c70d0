<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Level\Decibels;

/** Levels on their way from clip to clip: what is null stays as it is. The curve counts from the start of the clip. */
final readonly class Levels
{
    public function __construct(public ?Decibels $gain = null, public ?Curve $curve = null, public ?Fade $fadeIn = null, public ?Fade $fadeOut = null)
    {
    }

    /** What of it lasts longer than the clip is left out. */
    public function putOn(Clip $clip): Clip
    {
        if (null !== $this->gain) {
            $clip = $clip->withGain($this->gain);
        }
        if (null !== $this->curve) {
            $clip = $clip->withCurve($this->curve->within(0, $clip->length)->shifted($clip->in));
        }

        return null === $this->fadeIn && null === $this->fadeOut ? $clip : $clip->withFades($this->fadeIn ?? $clip->fadeIn, $this->fadeOut ?? $clip->fadeOut);
    }
}
