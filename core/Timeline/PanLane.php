<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** Pan of a track over time: points joined by straight lines; before the first and after the last it stays. */
final readonly class PanLane
{
    public const MAX_POINTS = 100_000;

    /**
     * @param list<array{int, float}> $points timeline samples, strictly rising, and pan, −1 … 1
     *
     * @throws InvalidMix
     */
    public function __construct(public array $points = [])
    {
        \count($points) <= self::MAX_POINTS || throw InvalidMix::tooMany('pan points', self::MAX_POINTS);
        $last = -1;
        foreach ($points as [$at, $pan]) {
            $at > $last || throw InvalidMix::notRising('pan');
            $pan >= -1.0 && $pan <= 1.0 || throw InvalidMix::panOutOfRange();
            $last = $at;
        }
    }

    public function isEmpty(): bool
    {
        return [] === $this->points;
    }

    /** With a point at a moment, in place of one that stands there. */
    public function with(int $at, float $pan): self
    {
        return $this->written($at, [[$at, $pan]], $at);
    }

    public function without(int ...$positions): self
    {
        $gone = array_fill_keys($positions, true);

        return new self(array_values(array_filter($this->points, static fn (array $point): bool => !isset($gone[$point[0]]))));
    }

    /**
     * With other points from one moment to another; all outside stays as it was.
     *
     * @param int $start timeline sample of the first that may go
     * @param list<array{int, float}> $points in between
     * @param int $end timeline sample of the last that may go
     */
    public function written(int $start, array $points, int $end): self
    {
        $before = array_filter($this->points, static fn (array $point): bool => $point[0] < $start);
        $after = array_filter($this->points, static fn (array $point): bool => $point[0] > $end);

        return new self([...$before, ...$points, ...$after]);
    }

    /** Of a lane that is not empty. */
    public function at(int $position): float
    {
        $before = $this->points[0] ?? [0, 0.0];
        foreach ($this->points as $point) {
            if ($point[0] > $position) {
                return $before[0] >= $point[0] || $before[0] > $position ? $point[1] : $before[1] + ($point[1] - $before[1]) * ($position - $before[0]) / ($point[0] - $before[0]);
            }
            $before = $point;
        }

        return $before[1];
    }
}
