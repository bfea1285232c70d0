<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Loudness\ClipPower;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;
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
     * @param string $active as {@see SpeechTimes::tenths()} has it: when somebody speaks
     */
    private function __construct(public Clip $clip, public ?float $before, public ?float $after, public ?Curve $curve, public array $powersBefore = [], public array $powersAfter = [], public string $active = '')
    {
    }

    /** @param Closure(string): list<Span> $activityOf source samples, by source id */
    public static function of(Mix $mix, Clip $clip, ?SourceTenths $tenths, Closure $activityOf, Steady $steady): self
    {
        if (null === $tenths) {
            return new self($clip, null, null, null);
        }
        $heardNow = ClipPower::of($mix, $clip, $tenths);
        $powers = $heardNow->powers();
        $limits = $steady->limits($heardNow->tenths()->peaks->values());
        $heard = Spans::within($activityOf($clip->source), $clip->heard());
        $fromStart = array_map(static fn (Span $span): Span => $span->shifted(-$clip->in), $heard);
        $active = SpeechTimes::tenths($fromStart, intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), \count($powers));
        $correction = $steady->correction($powers, $active, $limits);
        if ([] === $correction) {
            return new self($clip, null, null, null);
        }
        $curve = $steady->curve($clip, $correction, $mix->rate, $limits);
        $after = ClipPower::of($mix, $clip->withCurve($curve), $tenths)->powers();

        return new self($clip, Steady::unevenness($powers, $active), Steady::unevenness($after, $active), $curve, array_values($powers), array_values($after), $active);
    }
}
