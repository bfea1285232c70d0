<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Ride\Merge;
use Wattage\Core\Ride\Pass;
use Wattage\Core\Ride\Sample;
use Wattage\Core\Ride\Stretches;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\UnknownItem;

/** Writes a ride into the lanes of its tracks. A track that is gone by now is left out, the others are not lost for it. */
final readonly class Ride implements Edit
{
    /**
     * @param non-empty-list<Pass> $passes
     * @param bool $apart whether the spacing holds, so that how closely the lane follows is worth telling
     */
    public function __construct(private array $passes, private Merge $merge, private bool $apart = false)
    {
    }

    public function label(Mix $before): string
    {
        $passes = $this->passesIn($before);
        $what = 1 === \count($passes) ? $before->track($passes[0]->track)->name : \sprintf('%d tracks', \count($passes));

        $reach = $this->apart ? \sprintf(', within %.2f dB', max(array_map($this->merge->reach(...), $passes))) : '';

        return "Ride {$what}, ".Naming::span($before, self::written($passes)).$reach;
    }

    /**
     * What of the time from play to stop was written at all.
     *
     * @param non-empty-list<Pass> $passes
     */
    private static function written(array $passes): Span
    {
        $from = \PHP_INT_MAX;
        $to = 0;
        foreach ($passes as $pass) {
            foreach ([$pass->level, $pass->pan, $pass->mute] as $samples) {
                foreach (Stretches::of($pass->mode, Sample::forward($samples, $pass->start, $pass->stop, -\INF, \INF), $pass->start, $pass->stop) as [$start, $end]) {
                    $from = min($from, $start);
                    $to = max($to, $end);
                }
            }
        }

        return $to > $from ? Span::of($from, $to) : Span::of($passes[0]->start, $passes[0]->stop);
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        foreach ($this->passesIn($before) as $pass) {
            $track = $after->track($pass->track);
            $lanes = $this->merge->into($track, $pass);
            $after = $lanes == $track->lanes ? $after : $after->withTrack($track->withLanes($lanes));
        }

        return $after;
    }

    /** @return non-empty-list<Pass> */
    private function passesIn(Mix $mix): array
    {
        $passes = array_values(array_filter($this->passes, static fn (Pass $pass): bool => isset($mix->tracks[$pass->track])));

        return [] === $passes ? throw UnknownItem::track() : $passes;
    }
}
