<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\MuteLane;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Track;

/** Takes the points out of a lane, all of them or those in a range. */
final readonly class ClearLane implements Edit
{
    /** @param ?Span $range timeline samples; null for all of it */
    public function __construct(private string $track, private LanePart $lane, private ?Span $range)
    {
    }

    public function label(Mix $before): string
    {
        $where = null === $this->range ? '' : ', '.Naming::span($before, $this->range);

        return "Clear the {$this->lane->value} lane of {$before->track($this->track)->name}{$where}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $after = match ($this->lane) {
            LanePart::Ducking => $track->withDucking($this->cleared($track->ducking)),
            LanePart::Band => $track->withBand($this->cleared($track->band)),
            default => $track->withLanes($this->lanes($track)),
        };

        return $after == $track ? $before : $before->withTrack($after);
    }

    private function cleared(Ducking $ducking): Ducking
    {
        return $ducking->holding($this->without($ducking->curve), $this->held($ducking->held));
    }

    private function lanes(Track $track): Lanes
    {
        $lanes = $track->lanes;
        $outside = fn (array $point): bool => null !== $this->range && ($point[0] < $this->range->from || $point[0] >= $this->range->to);

        return match ($this->lane) {
            LanePart::Pan => $lanes->withPan(new PanLane(array_values(array_filter($lanes->pan->points, $outside)))),
            LanePart::Mute => $lanes->withMute(new MuteLane(array_values(array_filter($lanes->mute->switches, $outside)))),
            default => $lanes->withLevel($this->without($lanes->level)),
        };
    }

    private function without(Curve $curve): Curve
    {
        if (null === $this->range) {
            return Curve::flat();
        }
        $gone = [];
        foreach ($curve->keyframes as $keyframe) {
            if ($keyframe->position >= $this->range->from && $keyframe->position < $this->range->to) {
                $gone[] = $keyframe->position;
            }
        }

        return $curve->without(...$gone);
    }

    /**
     * @param list<Span> $held
     *
     * @return list<Span>
     */
    private function held(array $held): array
    {
        return null === $this->range ? [] : array_values(array_filter($held, fn (Span $span): bool => !$span->meets($this->range)));
    }
}
