<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

/** One time a track gives way. */
final readonly class Dip
{
    /**
     * @param int $from timeline sample at which it is fully down
     * @param int $to at which it begins to come back; > $from
     * @param float $depth dB, never above 0
     * @param int $fall samples of the ramp that ends at $from
     * @param int $rise samples of the ramp that begins at $to
     * @param bool $limited whether more would have been needed
     * @param float $band dB of the band of speech besides, never above 0
     * @param float $lift dB by which the speech would have to be louder where it is limited; 0 where that is not known
     */
    public function __construct(public int $from, public int $to, public float $depth, public int $fall, public int $rise, public bool $limited = false, public float $band = 0.0, public float $lift = 0.0)
    {
    }

    public function over(int $from, int $to): self
    {
        return new self($from, $to, $this->depth, $this->fall, $this->rise, $this->limited, $this->band, $this->lift);
    }
}
