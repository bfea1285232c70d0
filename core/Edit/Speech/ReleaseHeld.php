<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Mix;

/** Lets go of corrections in a ducking lane, so that the rules decide there again when they next run. */
final readonly class ReleaseHeld implements Edit
{
    /** @param ?Span $range timeline samples; null for all of them */
    public function __construct(private string $track, private ?Span $range)
    {
    }

    public function label(Mix $before): string
    {
        return 'Let go of corrections in the ducking of '.$before->track($this->track)->name;
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $held = array_values(array_filter($track->ducking->held, fn (Span $span): bool => null !== $this->range && !$span->meets($this->range)));

        return $held == $track->ducking->held ? $before : $before->withTrack($track->withDucking(new Ducking($track->ducking->curve, $held)));
    }
}
