<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Scene;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** Rules that make room by band, and from moment to moment: what they do, measured in the rendered stems. */
final class RoomForSpeechTest extends TestCase
{
    private const SECONDS = 24;
    private const TIMES = [[0.6, 3.4], [4.2, 8.1], [9.5, 12.0], [12.4, 16.7], [18.6, 22.5]];
    private const RULE = ['targets' => ['bed'], 'lead' => 0.1, 'hold' => 0.2, 'bridge' => 0.3, 'clearance' => 12];

    private static ?Scene $scene = null;

    public static function tearDownAfterClass(): void
    {
        self::$scene = null;
    }

    /** By moments the speech stands as clear as asked at every one of them, and the median hardly clearer; a plain dip stands more than a third deeper. */
    public function testADipThatFollowsIsNeverShortAndHardlyTooDeep(): void
    {
        $clear = $this->clearances($this->ducked(['moving' => true]));
        self::assertGreaterThan(11.4, $clear[0]);
        self::assertGreaterThan(11.95, $clear[intdiv(\count($clear), 20)]);
        self::assertLessThan(12.0 + 2.0, $clear[intdiv(\count($clear), 2)]);
        $plain = $this->clearances($this->ducked([]));
        self::assertGreaterThan($clear[intdiv(\count($clear), 2)] + 1.5, $plain[intdiv(\count($plain), 2)]);
    }

    /** Its speed is limited: 30 dB a second down, 12 up. */
    public function testADipThatFollowsIsNotHeardMoving(): void
    {
        $curve = $this->ducked(['moving' => true])->track('bed')->ducking->curve;
        $last = null;
        foreach ($curve->keyframes as $keyframe) {
            if (null !== $last) {
                $rate = ($keyframe->level->db - $last->level->db) * Heard::RATE / ($keyframe->position - $last->position);
                self::assertGreaterThan(-34.0, $rate);
                self::assertLessThan(16.0, $rate);
            }
            $last = $keyframe;
        }
        self::assertGreaterThan(20, \count($curve->keyframes));
        self::assertLessThan(5 * self::SECONDS, \count($curve->keyframes));
    }

    /** First the band and then the rest is as clear, and lies mostly in the band. */
    public function testTheBandFirstAndThenTheRestIsAsClear(): void
    {
        $mix = $this->ducked(['part' => 'band-first', 'moving' => true]);
        $clear = $this->clearances($mix);
        self::assertGreaterThan(11.4, $clear[0]);
        self::assertFalse($mix->track('bed')->band->curve->isFlat());
        $all = $this->ducked(['moving' => true]);
        $deepest = static fn (Mix $of): float => min(array_map(static fn ($k): float => $k->level->db, $of->track('bed')->ducking->curve->keyframes));
        self::assertGreaterThan($deepest($all) + 4.0, $deepest($mix));
    }

    /** Where the band alone cannot do it, it says so and by how much the speech is short. */
    public function testWhatTheBandCannotReachIsToldWithTheLiftThatWould(): void
    {
        $rule = RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'R', ...self::RULE, 'part' => 'band', 'clearance' => 20]), Heard::RATE);
        $scene = self::scene();
        $dips = $scene->ducker($scene->mix->withRule($rule))->dips($rule);
        self::assertNotSame([], $dips);
        foreach ($dips as $dip) {
            self::assertTrue($dip->limited);
            self::assertSame(0.0, $dip->depth);
            self::assertSame(-30.0, $dip->band);
            self::assertGreaterThan(3.0, $dip->lift);
        }
        // Lifted by so much, it is enough.
        $louder = Mixes::edited($scene->mix, ['edit' => 'set-fader', 'track' => 'voice', 'fader' => min(12.0, max(array_map(static fn ($d): float => $d->lift, $dips)) + 0.1)]);
        $lifted = array_filter($scene->ducker($louder->withRule($rule))->dips($rule), static fn ($d): bool => $d->limited && $d->lift > 0.2);
        self::assertSame([], array_filter($lifted, static fn ($d): bool => $d->lift > 12.0));
    }

    /** Clarity is reached as the index says it of the whole mix afterwards; by band it takes much less of the music than a plain dip. */
    public function testToAClarityByBandTakesLessOfTheMusic(): void
    {
        $scene = self::scene();
        $taken = [];
        foreach (['all', 'band-first'] as $part) {
            $mix = $this->ducked(['clarity' => 55, 'part' => $part, 'deepest' => -50]);
            $values = array_filter(array_map(ord(...), str_split($scene->clarity($mix)->values)), static fn (int $v): bool => 255 !== $v);
            sort($values);
            self::assertGreaterThanOrEqual(53, $values[intdiv(\count($values), 20)], $part);
            $taken[$part] = $this->taken($mix);
        }
        self::assertGreaterThan($taken['band-first'] + 4.0, $taken['all'], json_encode($taken) ?: '');
    }

    /** A rule and the plain dip for the same wish are told from one listening: the same comes out as from two. */
    public function testAskedForSomethingElseNothingIsHeardAnew(): void
    {
        $scene = self::scene();
        foreach ([['clearance' => 14], ['clarity' => 55]] as $wish) {
            $rule = RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'R', ...self::RULE, ...$wish, 'part' => 'band-first', 'moving' => true]), Heard::RATE);
            $ducker = $scene->ducker($scene->mix->withRule($rule));
            $moving = $ducker->taken($rule);
            $plain = $rule->plain();
            self::assertEqualsWithDelta($scene->ducker($scene->mix->withRule($plain))->taken($plain), $ducker->asking($plain)->taken($plain), 1e-9);
            self::assertSame($moving, $ducker->taken($rule));
        }
    }

    /** Every moment is as clear as asked, also those whose windows lie across two that were worked out. */
    public function testADipThatFollowsAClarityIsNeverShort(): void
    {
        $mix = $this->ducked(['clarity' => 60, 'moving' => true, 'deepest' => -50]);
        $values = array_filter(array_map(ord(...), str_split(self::scene()->clarity($mix)->values)), static fn (int $value): bool => 255 !== $value);
        self::assertGreaterThan(100, \count($values));
        self::assertGreaterThanOrEqual(60, min($values));
    }

    /** A hiss lies above the band of speech: where the band and what is left of the limit do not reach, all of it goes down as far as it takes. */
    public function testWhereTheBandFirstDoesNotReachAllOfItGivesWay(): void
    {
        $hiss = Sound::floats(Sound::run(['sh', '-c', 'ffmpeg -v error -f lavfi -i anoisesrc=color=white:seed=3:amplitude=0.09:r=48000:d='.self::SECONDS.',highpass=f=5000 -f f32le -']));
        $scene = new Scene(['voice' => Voice::saying(self::TIMES, self::SECONDS, 0.05, 3), 'bed' => $hiss], ['voice' => self::TIMES]);
        foreach ([['clearance' => 14], ['clarity' => 90]] as $wish) {
            foreach ([false, true] as $moving) {
                $short = [];
                foreach (['all', 'band-first'] as $part) {
                    $rule = RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'R', ...self::RULE, ...$wish, 'part' => $part, 'deepest' => -24, 'moving' => $moving]), Heard::RATE);
                    $short[$part] = \count(array_filter($scene->ducker($scene->mix->withRule($rule))->dips($rule), static fn ($dip): bool => $dip->limited));
                }
                self::assertSame($short['all'], $short['band-first'], json_encode($wish, \JSON_THROW_ON_ERROR));
            }
        }
    }

    /** What is lowered already by hand counts: both together are what was asked for, and no more. */
    public function testWhatWasLoweredByHandCountsWhereItIsAskedTo(): void
    {
        $scene = self::scene();
        $byHand = Mixes::edited($scene->mix, ['edit' => 'dip-range', 'clips' => ['c-bed'], 'from' => (int) (3.9 * Heard::RATE), 'to' => (int) (8.8 * Heard::RATE), 'by' => -7, 'ramp' => 4800]);
        foreach ([[false, -12.0, -12.0], [true, -12.0, -5.0]] as [$adds, $elsewhere, $there]) {
            $lane = $scene->ducked(['targets' => ['bed'], 'depth' => -12, 'addsUp' => $adds, 'bridge' => 0.3], $byHand)->track('bed')->ducking->curve;
            self::assertEqualsWithDelta($elsewhere, $lane->levelAt(2 * Heard::RATE)->db, 0.01);
            self::assertEqualsWithDelta($there, $lane->levelAt(6 * Heard::RATE)->db, 0.01);
        }
        // Where it is down further than was asked for, nothing is added, and nothing given back.
        $deep = Mixes::edited($byHand, ['edit' => 'dip-range', 'clips' => ['c-bed'], 'from' => (int) (3.9 * Heard::RATE), 'to' => (int) (8.8 * Heard::RATE), 'by' => -20, 'ramp' => 4800]);
        self::assertSame(0.0, $scene->ducked(['targets' => ['bed'], 'depth' => -12, 'addsUp' => true, 'bridge' => 0.3], $deep)->track('bed')->ducking->curve->levelAt(6 * Heard::RATE)->db);
    }

    /** A track of speech goes down in its own pauses by what was asked for, and never while it speaks; with breaths kept it is up for half a second before. */
    public function testAHushLowersPausesAndNothingElse(): void
    {
        $scene = self::scene();
        foreach ([true, false] as $breaths) {
            $mix = $scene->ducked(['kind' => 'hush', 'targets' => ['voice'], 'depth' => -14, 'breaths' => $breaths, 'lead' => 0.1, 'hold' => 0.2, 'fall' => 0.2, 'rise' => 0.1, 'bridge' => 0.5]);
            $lane = $mix->track('voice')->ducking->curve;
            foreach (self::TIMES as [$from, $to]) {
                for ($t = $from - ($breaths ? 0.59 : 0.09); $t < $to + 0.19; $t += 0.01) {
                    self::assertSame(0.0, $lane->levelAt(max(0, (int) ($t * Heard::RATE)))->db, "{$t} s");
                }
            }
            self::assertEqualsWithDelta(-14.0, $lane->levelAt((int) (17.6 * Heard::RATE))->db, 0.01);
            self::assertEqualsWithDelta(0.0, $lane->levelAt((int) (12.2 * Heard::RATE))->db, 0.01, 'a short pause is let alone');
            self::assertEqualsWithDelta($breaths ? 0.0 : -14.0, $lane->levelAt((int) (8.9 * Heard::RATE))->db, $breaths ? 0.01 : 0.01);
            self::assertEquals($mix, MixDocument::decode(MixDocument::encode($mix)));
        }
    }

    /** @param array<string, mixed> $rule */
    #[DataProvider('nonsense')]
    public function testNonsenseIsRefusedWithItsField(array $rule, string $field): void
    {
        try {
            RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'R', ...$rule]), Heard::RATE);
            self::fail('It was taken.');
        } catch (\Wattage\Core\Problem $problem) {
            self::assertNotSame('', $field);
            self::assertStringEndsWith($field, $problem->field());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function nonsense(): iterable
    {
        yield 'a hush without depth' => [['kind' => 'hush', 'targets' => ['a']], 'depth'];
        yield 'turns of one' => [['kind' => 'turns', 'targets' => ['a', 'a'], 'depth' => -10], 'targets'];
        yield 'a part that is not' => [['part' => 'treble', 'targets' => ['a'], 'depth' => -10], 'part'];
        yield 'more than clear' => [['clarity' => 101, 'targets' => ['a']], 'clarity'];
        yield 'a kind that is not' => [['kind' => 'gate', 'targets' => ['a'], 'depth' => -10], 'kind'];
    }

    private static function scene(): Scene
    {
        return self::$scene ??= new Scene([
            'voice' => Voice::saying(self::TIMES, self::SECONDS, 0.05, 3),
            'bed' => (new Noise(new Random(5)))->music(self::SECONDS * Heard::RATE, 0.05),
        ], ['voice' => self::TIMES]);
    }

    /** @param array<string, mixed> $rule */
    private function ducked(array $rule): Mix
    {
        return self::scene()->ducked([...self::RULE, ...$rule]);
    }

    /** @return list<float> LU of each 100 ms in which somebody speaks, rising: measured in the rendered stems as clearance is defined */
    private function clearances(Mix $mix): array
    {
        $scene = self::scene();
        [$voice, $bed] = array_map(static fn (string $track): Series => Heard::in($scene->rendered($mix, $track))->tenths->powers[0], ['voice', 'bed']);
        $active = SpeechTimes::tenths($scene->speech($mix), intdiv(Heard::RATE, 10), $voice->count());
        $clear = [];
        for ($k = 0; $k < $voice->count(); ++$k) {
            if ("\1" === $active[$k]) {
                $within = array_filter(range(max(0, $k - 2), min($voice->count() - 1, $k + 1)), static fn (int $j): bool => "\1" === $active[$j]);
                $sum = static fn (Series $row): float => array_sum(array_map(static fn (int $j): float => $row[$j], $within));
                $clear[] = 10.0 * log10($sum($voice) / max(1e-12, $sum($bed)));
            }
        }
        sort($clear);

        return $clear;
    }

    /** LU that the bed lost, in the render, while somebody speaks. */
    private function taken(Mix $mix): float
    {
        $scene = self::scene();
        $active = SpeechTimes::tenths($scene->speech($mix), intdiv(Heard::RATE, 10), 10 * self::SECONDS);
        $power = static function (Mix $of) use ($scene, $active): float {
            $sum = 0.0;
            foreach (Heard::in($scene->rendered($of, 'bed'))->tenths->powers[0] as $k => $value) {
                /** @var float $value */
                $sum += "\1" === ($active[$k] ?? '') ? $value : 0.0;
            }

            return $sum;
        };

        return 10.0 * log10($power($scene->mix) / $power($mix));
    }
}
