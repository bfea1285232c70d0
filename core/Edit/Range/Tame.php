<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Wattage\Core\Curve\Notch;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Effort;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Wire;

/** Pulls single loud moments down, each by a notch; \Wattage\Core\Loudness\Peaks finds them and says how deep. */
final readonly class Tame implements Edit
{
    public const MOST = 2000;

    /** @param non-empty-list<array{Wire, Notch}> $notches MOST at most; positions in source time */
    public function __construct(private array $notches)
    {
    }

    public function label(Mix $before): string
    {
        [$wire, $notch] = $this->notches[0];

        return 1 === \count($this->notches)
            ? \sprintf('Tame a peak of %s by %s dB', $wire->in($before)->name(), Naming::amount($notch->by))
            : \sprintf('Tame %d peaks', \count($this->notches));
    }

    public function apply(Mix $before): Mix
    {
        Effort::affordable(array_sum(array_map(fn (array $notch): int => \count($notch[0]->in($before)->curve()->keyframes) + 2 * \count($this->notches), $this->notches)), 'notches');
        $after = $before;
        foreach ($this->notches as [$wire, $notch]) {
            $placed = $wire->in($after);
            $bounds = $placed->bounds();
            $notch->at >= $bounds->from && $notch->at < $bounds->to || throw InvalidEdit::peakOutsideClip($placed->name());
            $after = $placed->with($notch->of($placed->curve(), $bounds));
        }

        return $after;
    }
}
