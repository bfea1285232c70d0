<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ride;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Ride\Merge;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;

/** Passes in each mode, with the lane that must come of them. Before each the lane is −6 at 1 s, −12 at 3 s, straight between. */
final class RideTest extends TestCase
{
    private const S = Mixes::SECOND;

    /** 10 ms between what was and what was written. */
    private const J = 480;

    /**
     * @param list<array{int, float, 2?: int}> $samples
     * @param list<array{int, ?float}> $expected position and dB
     */
    #[DataProvider('passes')]
    public function testEachModeWritesWhatItShouldAndNothingElse(string $mode, array $samples, array $expected): void
    {
        $before = self::mix();
        $after = self::ridden($before, $mode, 2 * self::S, 4 * self::S, $samples);
        self::assertEqualsWithDelta($expected, self::lane($after), 1e-6);
    }

    /** @return iterable<string, array{string, list<array{int, float, 2?: int}>, list<array{int, float}>}> */
    public static function passes(): iterable
    {
        $s = self::S;
        $old = [[$s, -6.0], [3 * $s, -12.0]];
        $joint = [2 * $s - self::J, -9.0 + 3.0 * self::J / $s];
        yield 'write replaces from start to stop' => ['write', [[2 * $s, -3.0], [3 * $s, -3.0], [4 * $s, -3.0]], [[$s, -6.0], $joint, [2 * $s, -3.0], [4 * $s, -3.0], [4 * $s + self::J, -12.0]]];
        yield 'write keeps the first value until it comes, and the last' => ['write', [[(int) (2.5 * $s), 2.0, 0]], [[$s, -6.0], $joint, [2 * $s, 2.0], [4 * $s, 2.0], [4 * $s + self::J, -12.0]]];
        yield 'touch writes only while held, and glides back' => [
            'touch',
            [[2 * $s, -9.0, 0], [(int) (2.2 * $s), -1.0, 1], [(int) (2.4 * $s), -1.0, 1], [(int) (2.5 * $s), -1.0, 0]],
            [[$s, -6.0], [(int) (2.2 * $s) - self::J, -9.6 + 3.0 * self::J / $s], [(int) (2.2 * $s), -1.0], [(int) (2.5 * $s), -1.0], [(int) (2.7 * $s), -11.1], [3 * $s, -12.0]],
        ];
        yield 'touch that is never held' => ['touch', [[2 * $s, -1.0, 0], [3 * $s, -1.0, 0]], $old];
        yield 'latch writes from the first touch to the stop' => [
            'latch',
            [[2 * $s, -9.0, 0], [3 * $s, -4.0, 1], [(int) (3.2 * $s), -2.0, 1], [(int) (3.3 * $s), -2.0, 0]],
            [[$s, -6.0], [3 * $s - self::J, -12.0 + 3.0 * self::J / $s], [3 * $s, -4.0], [(int) (3.2 * $s) - self::J, -4.0], [(int) (3.2 * $s), -2.0], [4 * $s, -2.0], [4 * $s + self::J, -12.0]],
        ];
        yield 'latch that is never held' => ['latch', [[2 * $s, -1.0, 0]], $old];
        yield 'nothing at all' => ['write', [], $old];
        yield 'a hand that rests holds its level until it moves again' => [
            'write',
            [[2 * $s, -20.0], [(int) (3.6 * $s), -14.0], [(int) (3.6 * $s) + 960, -8.0], [(int) (3.6 * $s) + 1920, -2.0]],
            [[$s, -6.0], $joint, [2 * $s, -20.0], [(int) (3.6 * $s) - self::J, -20.0], [(int) (3.6 * $s), -14.0], [(int) (3.6 * $s) + 1920, -2.0], [4 * $s, -2.0], [4 * $s + self::J, -12.0]],
        ];
        yield 'a burst of samples at one moment is where the last of them stands' => [
            'write',
            [[2 * $s, 0.0], [3 * $s, -1.0], [3 * $s + 40, -3.0], [3 * $s + 90, -5.0], [3 * $s + 479, -6.0]],
            [[$s, -6.0], $joint, [2 * $s, 0.0], [3 * $s - self::J, 0.0], [3 * $s, -6.0], [4 * $s, -6.0], [4 * $s + self::J, -12.0]],
        ];
        yield 'keys are steps' => [
            'write',
            [[2 * $s, 0.0], [3 * $s, -6.0, 1], [(int) (3.35 * $s), -6.0, 0], [(int) (3.5 * $s), 0.0, 1]],
            [[$s, -6.0], $joint, [2 * $s, 0.0], [3 * $s - self::J, 0.0], [3 * $s, -6.0], [(int) (3.5 * $s) - self::J, -6.0], [(int) (3.5 * $s), 0.0], [4 * $s, 0.0], [4 * $s + self::J, -12.0]],
        ];
        yield 'a clock that goes back, while the hand goes on' => [
            'write',
            [[2 * $s, 0.0], [2 * $s + 960, -2.0], [2 * $s + 480, -4.0], [2 * $s + 1920, -6.0]],
            [[$s, -6.0], $joint, [2 * $s, 0.0], [2 * $s + 960, -4.0], [2 * $s + 1920, -6.0], [4 * $s, -6.0], [4 * $s + self::J, -12.0]],
        ];
        yield 'doubled, outside the pass' => [
            'write',
            [[2 * $s, 7.0], [2 * $s, 1.0], [9 * $s, -50.0], [0, -50.0], [3 * $s, 1.0], [4 * $s, 1.0]],
            [[$s, -6.0], $joint, [2 * $s, 1.0], [4 * $s, 1.0], [4 * $s + self::J, -12.0]],
        ];
        yield 'beyond the ends of the fader' => ['write', [[2 * $s, 99.0], [3 * $s, 99.0]], [[$s, -6.0], $joint, [2 * $s, 12.0], [4 * $s, 12.0], [4 * $s + self::J, -12.0]]];
    }

    public function testTheFirstPassOfATrackStartsFromItsFader(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-fader', 'track' => 'music', 'fader' => -5]);
        $after = self::ridden($mix, 'touch', self::S, 2 * self::S, [[self::S, 0.0, 1], [(int) (1.5 * self::S), 0.0, 0]]);
        self::assertEqualsWithDelta([[0, -5.0], [self::S - self::J, -5.0], [self::S, 0.0], [(int) (1.5 * self::S), 0.0], [(int) (1.7 * self::S), -5.0]], self::lane($after), 1e-6);
    }

    public function testAPassAtTheVeryStartHasNothingBeforeIt(): void
    {
        $after = self::ridden(self::mix(), 'write', 0, self::S, [[0, -20.0], [self::S, -20.0]]);
        self::assertEqualsWithDelta([[0, -20.0], [self::S, -20.0]], \array_slice(self::lane($after), 0, 2), 1e-6);
    }

    /** Thinned, the lane stays within the tolerance of what was ridden, with far fewer keyframes, kept apart where that can be. */
    #[DataProvider('tolerances')]
    public function testThinningStaysWithinTheTolerance(float $tolerance, float $spacing): void
    {
        $random = new Random(5);
        $samples = [];
        $level = -10.0;
        for ($i = 0; $i <= 1500; ++$i) {
            $level = max(-40.0, min(6.0, $level + $random->float(-0.6, 0.6) + 0.4 * sin($i / 40)));
            $samples[] = [$i * 960, round($level, 3), 1];
        }
        $lane = self::ridden(Mixes::voiceOverBed(), 'write', 0, 1500 * 960, $samples, ['tolerance' => $tolerance, 'spacing' => $spacing])->track('music')->lanes->level;
        foreach ($samples as [$at, $db]) {
            self::assertEqualsWithDelta($db, $lane->levelAt($at)->db, $tolerance + 1e-6);
        }
        self::assertLessThan($tolerance >= 1.0 ? 300 : 900, \count($lane->keyframes));
    }

    /** @return iterable<string, array{float, float}> */
    public static function tolerances(): iterable
    {
        yield 'fine' => [0.25, 0.1];
        yield 'coarse' => [1.0, 0.2];
        yield 'without spacing' => [0.5, 0.0];
    }

    /** A hand that holds, drifts, steps and flicks: the lane is within the tolerance of what stood there within 100 ms, at every moment. */
    public function testWhatIsStoredFollowsWhatSoundedAtEveryMoment(): void
    {
        $random = new Random(11);
        $samples = [];
        [$at, $level] = [0, -10.0];
        while ($at < 60 * self::S) {
            $kind = $random->int(0, 2);
            if (0 === $kind) {
                $at += $random->int(3 * self::S / 10, 3 * self::S); // a hold
            }
            for ($i = 0, $way = $random->float(-0.8, 0.8), $n = 1 === $kind ? 1 : $random->int(5, 60); $i < $n; ++$i) {
                $at += $random->int(240, 1200);
                $level = max(-50.0, min(10.0, $level + (1 === $kind ? 8.0 * $way : $way)));
                $samples[] = [$at, round($level, 3), 1];
            }
        }
        $stop = $at + self::S;
        $lane = self::ridden(Mixes::voiceOverBed(), 'write', 0, $stop, $samples, ['tolerance' => 0.25, 'spacing' => 0.1])->track('music')->lanes->level;
        $first = 0;
        for ($t = $samples[0][0]; $t < $stop; $t += 480) {
            while ($first + 1 < \count($samples) && $samples[$first + 1][0] <= $t - Merge::REST) {
                ++$first;
            }
            $near = [];
            for ($i = $first; $i < \count($samples) && $samples[$i][0] <= $t + Merge::REST; ++$i) {
                $near[] = $samples[$i][1];
            }
            $is = $lane->levelAt($t)->db;
            self::assertGreaterThanOrEqual(min($near) - 0.251, $is, "at {$t}");
            self::assertLessThanOrEqual(max($near) + 0.251, $is, "at {$t}");
        }
    }

    /** Points stand nearer than the spacing only where the level moves faster than lines at that distance can follow. */
    public function testSpacingHoldsExceptWhereTheSoundSteps(): void
    {
        $samples = [];
        for ($i = 0; $i <= 3000; ++$i) {
            $slow = -12.0 + 6.0 * sin($i / 60);
            $samples[] = [$i * 960, round($i >= 1000 && $i < 2000 ? $slow + 6.0 : $slow, 3), 1]; // two steps, else a slow wave
        }
        $counts = [];
        foreach ([0.02, 0.1, 0.2, 0.4] as $spacing) {
            $lane = self::ridden(Mixes::voiceOverBed(), 'write', 0, 3000 * 960, $samples, ['spacing' => $spacing])->track('music')->lanes->level;
            $positions = array_map(static fn (Keyframe $k): int => $k->position, $lane->keyframes);
            $near = 0;
            for ($i = 1; $i < \count($positions) - 1; ++$i) {
                $near += $positions[$i] - $positions[$i - 1] < $spacing * self::S ? 1 : 0;
            }
            self::assertLessThanOrEqual($spacing > 0.02 ? 2 : 0, $near, "spacing {$spacing}");
            $counts[] = \count($positions);
        }
        self::assertLessThan(110, $counts[0]);
    }

    /** Where the spacing is set it holds, except at steps, and the lane is within the tolerance that this took, which the label tells. */
    #[DataProvider('spacings')]
    public function testASpacingThatIsSetHolds(float $spacing): void
    {
        $random = new Random(21);
        $samples = [];
        [$at, $level] = [0, 0.0];
        for ($move = 0; $move < 12; ++$move) {
            $target = $random->float(-30.0, 0.0);
            [$from, $n] = [$level, $random->int(12, 60)];
            for ($i = 1; $i <= $n; ++$i) {
                $at += $random->int(700, 900);
                $level = $from + ($target - $from) * (0.5 - 0.5 * cos(\M_PI * $i / $n));
                $samples[] = [$at, round($level, 2), 1];
            }
            $at += $random->int(0, 2) * self::S;
        }
        $samples[] = [$at += self::S, -50.0, 1]; // a step
        $ride = ['edit' => 'ride', 'passes' => [['track' => 'music', 'mode' => 'write', 'start' => 0, 'stop' => $at + self::S, 'level' => $samples]], 'spacing' => $spacing, 'holds' => 'spacing'];
        $label = (new EditReader(Mixes::voiceOverBed()))->read($ride)->label(Mixes::voiceOverBed());
        self::assertSame(1, preg_match('/within ([\d.]+) dB$/', $label, $reached));
        $lane = Mixes::edited(Mixes::voiceOverBed(), $ride)->track('music')->lanes->level;
        $keyframes = array_values(array_filter($lane->keyframes, static fn (Keyframe $k): bool => $k->position <= $at));
        $near = [];
        for ($i = 1; $i < \count($keyframes); ++$i) {
            $gap = $keyframes[$i]->position - $keyframes[$i - 1]->position;
            $gap >= $spacing * self::S || $near[] = $gap;
        }
        self::assertSame([self::J], array_values(array_unique($near)), 'only steps stand nearer');
        foreach ($samples as [$position, $db]) {
            self::assertEqualsWithDelta($db, $lane->levelAt($position)->db, (float) $reached[1] + 0.06);
        }
    }

    /** @return iterable<string, array{float}> */
    public static function spacings(): iterable
    {
        yield 'usual' => [0.1];
        yield 'sparse' => [0.2];
        yield 'sparser' => [0.4];
    }

    public function testARepairByTouchLeavesTheRestOfAWrittenPassExactlyAsItWas(): void
    {
        $wave = array_map(static fn (int $i): array => [$i * 960, -10.0 + 5.0 * sin($i / 15), 1], range(0, 500));
        $written = self::ridden(Mixes::voiceOverBed(), 'write', 0, 480_000, $wave);
        $repaired = self::ridden($written, 'touch', 3 * self::S, 7 * self::S, [[4 * self::S, -3.0, 1], [(int) (4.8 * self::S), -3.0, 0]]);
        $before = $written->track('music')->lanes->level;
        $after = $repaired->track('music')->lanes->level;
        for ($at = 0; $at < 600_000; $at += 240) {
            if ($at <= 4 * self::S - self::J || $at >= 5 * self::S) {
                self::assertEqualsWithDelta($before->levelAt($at)->db, $after->levelAt($at)->db, 1e-9);
            }
        }
        self::assertEqualsWithDelta(-3.0, $after->levelAt((int) (4.5 * self::S))->db, 1e-9);
    }

    public function testPanAndMuteAreRiddenLikewise(): void
    {
        $s = self::S;
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-pan', 'track' => 'music', 'pan' => 0.25]);
        $after = Mixes::edited($mix, ['edit' => 'ride', 'passes' => [[
            'track' => 'music', 'mode' => 'touch', 'start' => $s, 'stop' => 4 * $s,
            'pan' => [[2 * $s, -1.0, 1], [3 * $s, 1.0, 1], [3 * $s + 10, 1.0, 0]],
            'mute' => [[2 * $s, 1, 1], [3 * $s, 1, 0]],
        ]]]);
        $lanes = $after->track('music')->lanes;
        self::assertSame(0.25, $lanes->pan->at(0));
        self::assertSame(-1.0, $lanes->pan->at((int) (2.5 * $s)));
        self::assertSame(1.0, $lanes->pan->at(3 * $s));
        self::assertSame(0.25, $lanes->pan->at(4 * $s));
        self::assertSame([false, true, false], [$lanes->mute->at($s), $lanes->mute->at((int) (2.5 * $s)), $lanes->mute->at((int) (3.5 * $s))]);
        self::assertTrue($lanes->level->isFlat());
        self::assertEquals($after, MixDocument::decode(MixDocument::encode($after)));
    }

    public function testATrackThatIsGoneIsLeftOutAndTheOthersAreKept(): void
    {
        $pass = static fn (string $track): array => ['track' => $track, 'mode' => 'write', 'start' => 0, 'stop' => self::S, 'level' => [[0, -9.0, 1]]];
        $after = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'ride', 'passes' => [$pass('gone'), $pass('music')]]);
        self::assertSame(-9.0, $after->track('music')->lanes->level->levelAt(0)->db);
        $this->expectException(Problem::class);
        Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'ride', 'passes' => [$pass('gone')]]);
    }

    /** @param array<string, mixed> $ride */
    #[DataProvider('mistakes')]
    public function testNonsenseIsRefusedWithItsField(array $ride, string $field): void
    {
        try {
            Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'ride', ...$ride]);
            self::fail('It was taken.');
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function mistakes(): iterable
    {
        $pass = ['track' => 'music', 'mode' => 'write', 'start' => 0, 'stop' => 100];
        yield 'no passes' => [['passes' => []], 'passes'];
        yield 'a pass of no length' => [['passes' => [[...$pass, 'stop' => 0]]], 'passes[0].stop'];
        yield 'a mode that writes nothing' => [['passes' => [[...$pass, 'mode' => 'read']]], 'passes[0].mode'];
        yield 'a sample in words' => [['passes' => [[...$pass, 'level' => [[0, 'loud', 1]]]]], 'passes[0].level[0]'];
        yield 'a moment between samples' => [['passes' => [[...$pass, 'level' => [[0.5, -3.0, 1]]]]], 'passes[0].level[0]'];
        yield 'something else that holds' => [['passes' => [$pass], 'holds' => 'both'], 'holds'];
        yield 'a tolerance below nothing' => [['passes' => [$pass], 'tolerance' => -1], 'tolerance'];
    }

    private static function mix(): Mix
    {
        $mix = Mixes::voiceOverBed();
        foreach ([[1, -6], [3, -12]] as [$at, $level]) {
            $mix = Mixes::edited($mix, ['edit' => 'add-keyframe', 'track' => 'music', 'lane' => 'level', 'at' => $at * self::S, 'level' => $level]);
        }

        return $mix;
    }

    /**
     * @param list<array{int, float, 2?: int}> $samples
     * @param array<string, mixed> $how
     */
    private static function ridden(Mix $mix, string $mode, int $start, int $stop, array $samples, array $how = []): Mix
    {
        return Mixes::edited($mix, ['edit' => 'ride', 'passes' => [['track' => 'music', 'mode' => $mode, 'start' => $start, 'stop' => $stop, 'level' => $samples]], ...$how]);
    }

    /** @return list<array{int, float}> */
    private static function lane(Mix $mix): array
    {
        return array_map(static fn (Keyframe $k): array => [$k->position, $k->level->db], $mix->track('music')->lanes->level->keyframes);
    }
}
