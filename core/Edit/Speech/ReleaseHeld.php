<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\Span;
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
        $track = $after = $before->track($this->track);
        foreach ([false, true] as $band) {
            $ducking = $track->givingWay($band);
            $held = array_values(array_filter($ducking->held, fn (Span $span): bool => null !== $this->range && !$span->meets($this->range)));
            $after = $held == $ducking->held ? $after : $after->withGivingWay($band, $ducking->holding($ducking->curve, $held));
        }

        return $after === $track ? $before : $before->withTrack($after);
    }
}
