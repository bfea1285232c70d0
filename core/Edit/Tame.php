<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\Notch;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Wire;

/** Pulls single loud moments down, each by a notch; \Wattage\Core\Loudness\Peaks finds them and says how deep. */
final readonly class Tame implements Edit
{
    /** @param non-empty-list<array{Wire, Notch}> $notches positions in source time */
    public function __construct(private array $notches)
    {
    }

    public function label(Mix $before): string
    {
        [$wire, $notch] = $this->notches[0];

        return 1 === \count($this->notches)
            ? \sprintf('Tame a peak of %s by %s dB', Naming::wire($before, $wire), Naming::amount($notch->by))
            : \sprintf('Tame %d peaks', \count($this->notches));
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        foreach ($this->notches as [$wire, $notch]) {
            $clip = $after->clip($wire->clip);
            $notch->at >= $clip->in && $notch->at < $clip->in + $clip->length || throw InvalidEdit::peakOutsideClip($clip->name);
            $after = $after->withClip($wire->putInto($clip, $notch->of($wire->curveOf($clip), $clip->heard())));
        }

        return $after;
    }
}
