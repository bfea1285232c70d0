<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

/** How far something gives way. */
final readonly class Given
{
    /**
     * @param float $all dB, never above 0
     * @param float $band dB of the band of speech besides
     * @param bool $enough whether that does what was asked for
     * @param float $lift dB by which the speech would have to be louder for it to be enough
     */
    public function __construct(public float $all, public float $band = 0.0, public bool $enough = true, public float $lift = 0.0)
    {
    }

    /**
     * @param iterable<self> $some
     *
     * @return self as far as each of them
     */
    public static function furthest(iterable $some): self
    {
        $all = $band = $lift = 0.0;
        $enough = true;
        foreach ($some as $one) {
            $all = min($all, $one->all);
            $band = min($band, $one->band);
            $enough = $enough && $one->enough;
            $lift = max($lift, $one->lift);
        }

        return new self($all, $band, $enough, $lift);
    }

    /** As far, but the band of speech no further down in all than a limit: where all of it goes lower, the band has less to do besides. */
    public function within(float $deepest): self
    {
        return new self($this->all, max($this->band, min(0.0, $deepest - $this->all)), $this->enough, $this->lift);
    }
}
