<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Predicted;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\ClearAll;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Demo;
use Wattage\Tests\support\Mixes;

/** The demo from buried to clear, confirmed on what is really rendered. */
final class DemoStoryTest extends TestCase
{
    /** levels.md: within 0.3 LU of the render. */
    public function testThePredictedLoudnessHoldsInTheRender(): void
    {
        $demo = Demo::open();
        [$powers] = $demo->rendered($demo->mix);
        $predicted = MixFigures::of($demo->mix, $demo->tenths()(...))->programme();
        self::assertEqualsWithDelta(Gating::integrated($powers), $predicted->integrated, 0.3);
        self::assertEqualsWithDelta(Predicted::of(Series::of($powers), 0.0)->range, $predicted->range, 1.0);
    }

    public function testAfterFixAllNothingIsBuriedInTheRenderAndNoDipIsDeeperThanNeeded(): void
    {
        $demo = Demo::open();
        $before = self::clearance($demo->mix, MixFigures::of($demo->mix, $demo->tenths()(...)));
        self::assertNotEmpty($before->buried(), 'the demo has buried speech on purpose');
        $edit = ClearAll::edit($demo->mix, $before->buried());
        self::assertNotNull($edit);
        $after = Mixes::edited($demo->mix, $edit);
        foreach ([1, 2] as $_) {
            // Neighbours of a cleared stretch may now be the worst that is left.
            $left = self::clearance($after, MixFigures::of($after, $demo->tenths()(...)));
            $more = ClearAll::edit($after, $left->buried());
            $after = null === $more ? $after : Mixes::edited($after, $more);
        }

        $rendered = self::renderedClearance($demo, $after);
        self::assertSame([], array_map(static fn (array $run): array => $run, self::runsBelow($rendered, $after->aim->clearance - 0.05)));
        foreach ($before->buried() as $stretch) {
            $values = array_filter($rendered, static fn (int $k): bool => $k * 4800 >= $stretch->span->from && ($k + 1) * 4800 <= $stretch->span->to, \ARRAY_FILTER_USE_KEY);
            self::assertLessThan($after->aim->clearance + 1.3, min($values), 'the worst moment has what it needs, and not 1 dB more');
        }
    }

    private static function clearance(Mix $mix, MixFigures $figures): Clearance
    {
        return Clearance::of($mix, $figures, self::speech($mix), $mix->aim->clearance);
    }

    /** @return list<\Wattage\Core\Time\Span> */
    private static function speech(Mix $mix): array
    {
        $demo = Demo::open();

        return SpeechTimes::of($mix, static fn (string $id): array => Activity::of($demo->blocks[$id], $mix->rate, $mix->aim->sensitivity));
    }

    /** @return array<int, float> LU by number of the 100 ms, from two renders: the speech, and all the rest */
    private static function renderedClearance(Demo $demo, Mix $mix): array
    {
        $only = static fn (bool $speech): Mix => array_reduce(
            array_keys(array_filter($mix->tracks, static fn ($track): bool => (Stem::Speech === $track->stem) !== $speech)),
            static fn (Mix $m, string $id): Mix => Mixes::edited($m, ['edit' => 'set-muted', 'track' => $id, 'muted' => true]),
            $mix,
        );
        [$speech] = $demo->rendered($only(true));
        [$rest] = $demo->rendered($only(false));
        $active = [];
        foreach (self::speech($mix) as $span) {
            for ($k = intdiv($span->from + 2400, 4800); $k < intdiv($span->to + 2400, 4800); ++$k) {
                $active[$k] = true;
            }
        }
        $values = [];
        foreach (array_keys($active) as $k) {
            $window = array_filter(range($k - 2, $k + 1), static fn (int $i): bool => isset($active[$i]));
            $window = array_fill_keys($window, true);
            $values[$k] = 10 * log10(max(1e-12, array_sum(array_intersect_key($speech, $window))) / max(1e-12, array_sum(array_intersect_key($rest, $window))));
        }

        return $values;
    }

    /**
     * @param array<int, float> $values
     *
     * @return list<array{int, int}> of half a second and more
     */
    private static function runsBelow(array $values, float $wanted): array
    {
        $runs = [];
        foreach ($values as $k => $value) {
            if ($value < $wanted) {
                $last = array_key_last($runs);
                if (null !== $last && $runs[$last][1] === $k) {
                    $runs[$last][1] = $k + 1;
                } else {
                    $runs[] = [$k, $k + 1];
                }
            }
        }

        return array_values(array_filter($runs, static fn (array $run): bool => $run[1] - $run[0] >= 5));
    }
}
