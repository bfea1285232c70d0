<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** Names a level wire: that of a clip, of one channel of an opened clip, or a lane of a track. */
final readonly class Wire
{
    private function __construct(private string $owner, private ?Side $side, private ?Lane $lane)
    {
    }

    public static function ofClip(string $clip, ?Side $side = null): self
    {
        return new self($clip, $side, null);
    }

    public static function ofTrack(string $track, Lane $lane): self
    {
        return new self($track, null, $lane);
    }

    /** @throws UnknownItem */
    public function in(Mix $mix): PlacedWire
    {
        return null === $this->lane
            ? new ClipWire($mix, $mix->clip($this->owner), $this->side)
            : new LaneWire($mix, $mix->track($this->owner), $this->lane);
    }
}
