<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Loudness\ClipPower;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** What steadying a clip would do: how even it is before and after, and the curve that does it. */
final readonly class SteadyPlan
{
    /**
     * @param ?float $before dB, unevenness as it is; null where nobody speaks, and then the curve stays
     * @param ?float $after dB, and as it would be
     * @param list<float> $powersBefore mean square every 100 ms from the start of the clip
     * @param list<float> $powersAfter
     */
    private function __construct(public Clip $clip, public ?float $before, public ?float $after, public ?Curve $curve, public array $powersBefore = [], public array $powersAfter = [])
    {
    }

    /** @param Closure(string): list<Span> $activityOf source samples, by source id */
    public static function of(Mix $mix, Clip $clip, ?SourceTenths $tenths, Closure $activityOf, Steady $steady): self
    {
        if (null === $tenths) {
            return new self($clip, null, null, null);
        }
        $powers = ClipPower::of($mix, $clip, $tenths)->powers();
        $active = self::active($activityOf($clip->source), $clip, intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), \count($powers));
        $correction = $steady->correction($powers, $active);
        if ([] === $correction) {
            return new self($clip, null, null, null);
        }
        $curve = $steady->curve($clip, $correction, $mix->rate);
        $after = ClipPower::of($mix, $clip->withCurve($curve), $tenths)->powers();

        return new self($clip, Steady::unevenness($powers, $active), Steady::unevenness($after, $active), $curve, array_values($powers), array_values($after));
    }

    /**
     * @param list<Span> $speech
     *
     * @return array<int, bool> numbers of the 100 ms of the clip that speech takes at least half of
     */
    private static function active(array $speech, Clip $clip, int $frames, int $count): array
    {
        $active = [];
        foreach ($speech as $span) {
            $heard = $span->within($clip->heard());
            if (null === $heard) {
                continue;
            }
            $end = min($count, intdiv($heard->to - $clip->in + intdiv($frames, 2), $frames));
            for ($k = intdiv($heard->from - $clip->in + intdiv($frames, 2), $frames); $k < $end; ++$k) {
                $active[$k] = true;
            }
        }

        return $active;
    }
}
