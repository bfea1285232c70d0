<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Time\Span;

/** A stretch of speech that stands less far above the rest than it should, and what would clear it. */
final readonly class Buried
{
    /**
     * @param Span $span timeline samples, whole 100 ms
     * @param float $worst LU: the lowest clearance in it
     * @param ?string $covering id of the track that covers it most; null where no single one does
     * @param list<string> $dipped ids of the tracks that a dip would have to lower
     * @param ?float $dip dB (negative) that clears it; null where no dip within the limit does
     * @param ?float $lift dB that the speech would have to be lifted by instead; null where that is past the limit
     */
    public function __construct(
        public Span $span,
        public float $worst,
        public ?string $covering,
        public array $dipped,
        public ?float $dip,
        public ?float $lift,
    ) {
    }
}
