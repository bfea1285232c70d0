<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;

/** Names a level wire: that of a clip, or that of one channel of an opened clip. */
final readonly class Wire
{
    public function __construct(public string $clip, public ?Side $side = null)
    {
    }

    /** @throws InvalidMix when the clip's channels are not opened */
    public function curveOf(Clip $clip): Curve
    {
        return null === $this->side ? $clip->curve : $clip->channels->of($this->side)->curve;
    }

    /** @throws InvalidMix when the clip's channels are not opened */
    public function putInto(Clip $clip, Curve $curve): Clip
    {
        if (null === $this->side) {
            return $clip->withCurve($curve);
        }
        $level = $clip->channels->of($this->side);

        return $level->curve === $curve ? $clip : $clip->withChannels($clip->channels->with($this->side, $level->withCurve($curve)));
    }
}
