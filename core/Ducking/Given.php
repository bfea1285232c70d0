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
     */
    public function __construct(public float $all, public float $band = 0.0, public bool $enough = true)
    {
    }

    /**
     * @param iterable<self> $some
     *
     * @return self as far as each of them
     */
    public static function furthest(iterable $some): self
    {
        $all = $band = 0.0;
        $enough = true;
        foreach ($some as $one) {
            $all = min($all, $one->all);
            $band = min($band, $one->band);
            $enough = $enough && $one->enough;
        }

        return new self($all, $band, $enough);
    }
}
