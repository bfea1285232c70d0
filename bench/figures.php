<?php

/*
 * What is worked out after every edit, for one hour and 8 stereo tracks of a source each, with 4,000 keyframes: predicted loudness,
 * speech activity, clearance. Run with bench/run.
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Ducking\Ducker;
use Wattage\Core\Ducking\Listening;
use Wattage\Core\Ducking\PlainSpectra;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Ride\Merge;
use Wattage\Core\Ride\Mode;
use Wattage\Core\Ride\Pass;
use Wattage\Core\Ride\Sample;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Speech\Steady;
use Wattage\Core\Speech\SteadyPlan;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\DuckTiming;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

const RATE = 48_000;
const HOUR = 3600;
mt_srand(5);
$tracks = $sources = $bytes = [];
$rows = [];
for ($b = 0; $b < 50 * HOUR; ++$b) {
    $power = (intdiv($b, 150) % 3 ? 0.01 : 0.00001) * (0.5 + mt_rand() / mt_getrandmax());
    $rows[] = pack('g4', $power, 0.3, $power, 0.3);
}
$blocks = implode('', $rows);
for ($t = 0; $t < 8; ++$t) {
    $sources[] = new Source("s{$t}", 'S', HOUR * RATE, 2, Decibels::unchanged());
    $bytes["s{$t}"] = SourceTenths::of(SourceBlocks::fromBytes($blocks, 2))->toBytes();
    $track = Track::named("t{$t}", "T{$t}", $t < 2 ? Stem::Speech : Stem::Music);
    for ($c = 0; $c < 25; ++$c) {
        $keyframes = [];
        for ($k = 0; $k < 20; ++$k) {
            $keyframes[] = new Keyframe(($c * 144 + 6 * $k) * RATE, Decibels::of(($k + $c) % 2 ? -12.5 : -0.5), Ramp::smooth());
        }
        $track = $track->withClip(new Clip("c{$t}-{$c}", "s{$t}", 'C', $c * 144 * RATE, $c * 144 * RATE, 140 * RATE, Decibels::of(-12.0), Curve::of($keyframes)));
    }
    $tracks[] = $track;
}
$mix = Mix::of(RATE, FrameRate::F25, $sources, $tracks);
/**
 * @template T
 *
 * @param callable(): T $job
 *
 * @return array{float, T} median of some runs in ms, and what came out
 */
function medianOf(callable $job): array
{
    $result = $job();
    $times = [];
    for ($i = 0; $i < 9; ++$i) {
        $begun = hrtime(true);
        $result = $job();
        $times[] = (hrtime(true) - $begun) / 1e6;
    }
    sort($times);

    return [$times[4], $result];
}
$row = static fn (string $what, float $ms, string $asked) => printf("%-56s %6.0f ms   (asked for: %s)\n", $what, $ms, $asked);
$all = static function () use ($mix, $bytes): MixFigures {
    $known = [];
    $figures = MixFigures::of($mix, static function (string $id) use ($bytes, &$known): SourceTenths {
        return $known[$id] ??= SourceTenths::fromBytes($bytes[$id], 2);
    });
    $figures->programme();

    return $figures;
};
[$ms, $figures] = medianOf($all);
$row('programme loudness from stored measures, 8 sources', $ms, '');
// After an edit only the track that it changed is worked out anew.
$kept = array_map(static fn (TrackPower $power): string => $power->toBytes(), $figures->tracks());
[$ms] = medianOf(static fn () => MixFigures::of($mix, static fn (string $id): SourceTenths => SourceTenths::fromBytes($bytes[$id], 2), static fn (Track $track, int $count): TrackPower => 't3' === $track->id
    ? TrackPower::of($mix, $track, (static function (SourceTenths $only): Closure { return static fn (): SourceTenths => $only; })(SourceTenths::fromBytes($bytes['s3'], 2)), $count)
    : TrackPower::fromBytes($kept[$track->id]))->programme());
$row('  the same after an edit of one track', $ms, '≤ 100 ms');
[$ms] = medianOf(static fn (): array => [array_map($figures->stem(...), Stem::cases()), array_map($figures->track(...), array_keys($mix->tracks))]);
$row('  and of every stem and track', $ms, '');
[$ms, $levels] = medianOf(static fn (): string => SpeechLevels::of(SourceBlocks::fromBytes($blocks, 2))->toBytes());
$row('levels of an hour that finding speech needs, once a source', $ms, '');
[$ms, $active] = medianOf(static fn (): array => Activity::in(SpeechLevels::fromBytes($levels), RATE, 10.0));
$row('speech activity of a source of an hour, once', $ms, '');
$speech = SpeechTimes::of($mix, static fn (string $id): array => $active);
[$ms] = medianOf(static fn (): array => Clearance::of($mix, $figures, $speech, 15.0)->buried());
$row('clearance and buried stretches of an hour', $ms, '≤ 200 ms');
// Steady: a talk of half an hour in one clip.
$talk = new Clip('talk', 's0', 'Talk', 0, 0, 1800 * RATE, Decibels::unchanged(), Curve::of([]));
$talking = Mix::of(RATE, FrameRate::F25, $sources, [Track::named('s', 'Speech', Stem::Speech)->withClip($talk)]);
$tenths = SourceTenths::fromBytes($bytes['s0'], 2);
[$ms, $plan] = medianOf(static fn (): SteadyPlan => SteadyPlan::of($talking, $talk, $tenths, static fn (): array => $active, new Steady(3.0, null, 9.0, 12.0, 0.5)));
$row('steady of a clip of 30 minutes', $ms, '≤ 1 s');
printf("  %d keyframes, where a value every quarter of a second would be 7,200\n", count($plan->curve->keyframes ?? []));
// Ducking: four tracks that speak, four that give way, each source's activity known, as after the first time.
$speaking = array_reduce(['t2', 't3'], static fn (Mix $m, string $id): Mix => $m->withTrack($m->track($id)->withStem(Stem::Speech)), $mix);
$hourOf = static fn (?float $depth): DuckRule => new DuckRule('r', 'R', ['t0', 't1', 't2', 't3'], [], ['t4', 't5', 't6', 't7'], $depth, 15.0, -30.0, null, DuckTiming::usual(RATE));
$ducked = [];
foreach (['ducking of an hour, 4 triggers, fixed depth' => -12.0, 'the same to a clearance' => null] as $what => $depth) {
    $known = [];
    $tenths = static function (string $id) use ($bytes, &$known): SourceTenths {
        return $known[$id] ??= SourceTenths::fromBytes($bytes[$id], 2);
    };
    $figuresOf = static fn (Mix $bare): MixFigures => MixFigures::of($bare, $tenths);
    [$ms, $ducked] = medianOf(static fn (): array => (new Ducker($speaking->withRule($hourOf($depth)), new Listening(static fn (): array => $active), $figuresOf, new PlainSpectra($tenths, static fn (): null => null)))->lanes());
    $row($what, $ms, '≤ 500 ms');
}
printf("  %d keyframes a lane\n", count($ducked['t4']->keyframes ?? []));
// A ride of ten minutes, 50 samples a second.
$samples = [];
for ($i = 0; $i < 30_000; ++$i) {
    $samples[] = new Sample($i * 960, -12.0 + 8.0 * sin($i / 90) + 2.0 * sin($i / 23) + 0.2 * mt_rand() / mt_getrandmax(), true);
}
[$ms, $lanes] = medianOf(static fn (): Lanes => (new Merge(0.25, 4800, 9600))->into($mix->track('t0'), new Pass('t0', Mode::Write, 0, 600 * RATE, $samples)));
$row('a ride of 10 minutes at 50 samples a second, merged', $ms, '≤ 100 ms');
printf("  %d keyframes of 30,000 samples\n", count($lanes->level->keyframes));
