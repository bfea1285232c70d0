<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/** The wire of a clip, or of one of its opened channels. It travels with the sound. */
final readonly class ClipWire implements PlacedWire
{
    public function __construct(private Mix $mix, private Clip $clip, private ?Side $side)
    {
    }

    public function curve(): Curve
    {
        return null === $this->side ? $this->clip->curve : $this->clip->channels->of($this->side)->curve;
    }

    public function with(Curve $curve): Mix
    {
        if ($curve === $this->curve()) {
            return $this->mix;
        }
        $channels = $this->clip->channels;

        return $this->mix->withClip(null === $this->side
            ? $this->clip->withCurve($curve)
            : $this->clip->withChannels($channels->with($this->side, $channels->of($this->side)->withCurve($curve))));
    }

    public function bounds(): Span
    {
        return $this->clip->heard();
    }

    public function ahead(): int
    {
        return $this->clip->in - $this->clip->at;
    }

    public function gain(): Decibels
    {
        return null === $this->side ? $this->clip->gain : $this->clip->channels->of($this->side)->gain;
    }

    public function name(): string
    {
        return null === $this->side ? $this->clip->name : "{$this->clip->name}, {$this->side->value}";
    }
}
