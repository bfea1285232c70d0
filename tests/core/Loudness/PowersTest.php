<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\LoudnessWindows;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\PowerPage;
use Wattage\Core\Loudness\Predicted;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Loudness\Windows;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;

/** Powers every 100 ms: windows over them, and those of tracks after their gains. */
final class PowersTest extends TestCase
{
    private const S = Mixes::SECOND;

    public function testWindowsAreTheMeansThatTheyAreSaidToBe(): void
    {
        $powers = self::random(9, 200);
        foreach ([[Windows::momentary($powers), 4], [self::shortTerm($powers), 30]] as [$means, $length]) {
            self::assertCount(200 - $length + 1, $means);
            foreach ($means as $i => $mean) {
                self::assertEqualsWithDelta(array_sum(\array_slice($powers, $i, $length)) / $length, $mean, 1e-7);
            }
        }
        self::assertSame([], Windows::momentary([0.1, 0.1, 0.1]));
        self::assertSame([], self::shortTerm(array_fill(0, 29, 0.1)));
    }

    /**
     * @param list<float> $powers
     *
     * @return list<float>
     */
    private static function shortTerm(array $powers): array
    {
        return array_merge(...iterator_to_array(Windows::along(Series::of($powers), Windows::SHORT_TERM), false));
    }

    public function testAfterSoundThereIsRealSilence(): void
    {
        $powers = [...self::random(3, 50), ...array_fill(0, 60, 0.0)];
        self::assertSame(0.0, self::shortTerm($powers)[80]);
    }

    /** What streams past and what is there at once are measured alike; the one counts in hundredths of a LU. */
    #[DataProvider('programmes')]
    public function testStreamingAndWholeMeasuresAgree(int $seed, int $tenths): void
    {
        $powers = self::random($seed, $tenths);
        $windows = new LoudnessWindows();
        array_map($windows->push(...), $powers);
        $whole = Predicted::of(Series::of($powers), 0.0);
        self::assertEqualsWithDelta($whole->integrated, $windows->integrated(), 0.01);
        self::assertEqualsWithDelta($whole->range, $windows->range(), 0.03);
        self::assertEqualsWithDelta($whole->maxMomentary, $windows->highestMomentary(), 1e-5);
        self::assertEqualsWithDelta($whole->maxShortTerm, $windows->highestShortTerm(), 1e-5);
    }

    /** @return iterable<array{int, int}> */
    public static function programmes(): iterable
    {
        foreach (range(1, 8) as $seed) {
            yield [$seed, 40 + 97 * $seed];
        }
    }

    /** A clip that begins within 100 ms: each 100 ms of the mix lies across two of the source, of either channel. */
    public function testWhatLiesAcrossTwoTenthsOfItsSourceIsBetweenThem(): void
    {
        [$left, $right] = [[1.0, 3.0, 7.0, 13.0, 21.0], [100.0, 50.0, 200.0, 10.0, 0.0]];
        $tenths = SourceTenths::fromBytes(Series::packed($left).Series::packed($right).Series::packed(array_fill(0, 5, 0.5)), 2);
        $clip = new Clip('c', 's', 'Clip', 15_600, 0, 24_000, Decibels::unchanged(), Curve::flat());
        $page = new PowerPage(0, 10, 4_800);
        $page->add($clip, [Stretch::gain(0, 24_000, 1.0, 1.0)], Routing::straight(), 1.0, $tenths);
        foreach ([4, 5, 6] as $k) {
            self::assertEqualsWithDelta(0.25 * ($left[$k - 4] + $right[$k - 4]) + 0.75 * ($left[$k - 3] + $right[$k - 3]), $page->powers[$k], 1e-4);
        }
        self::assertSame(0.0, $page->powers[2]);
    }

    public function testMetersSayNothingBeforeTheirWindowIsFull(): void
    {
        $windows = new LoudnessWindows();
        self::assertSame([null, null, null, null], self::shown($windows));
        for ($tenth = 1; $tenth <= 30; ++$tenth) {
            $windows->push(0.01);
            [$momentary, $shortTerm, $integrated, $highest] = self::shown($windows);
            self::assertSame($tenth >= Windows::MOMENTARY, null !== $momentary);
            self::assertSame($tenth >= Windows::MOMENTARY, null !== $integrated);
            self::assertSame($tenth >= Windows::SHORT_TERM, null !== $shortTerm);
            self::assertSame($shortTerm, $highest);
        }
        self::assertEqualsWithDelta(-20.691, $windows->shortTerm(), 0.001);
        for ($tenth = 0; $tenth < 30; ++$tenth) {
            $windows->push(0.0);
        }
        self::assertNull($windows->momentary(), 'silence has no level');
        self::assertEqualsWithDelta(-20.691, $windows->highestShortTerm(), 0.001, 'the highest stays');
        self::assertEqualsWithDelta(-20.691, $windows->highestMomentary(), 0.001);
    }

    public function testSilenceHasNoLoudness(): void
    {
        foreach ([[], array_fill(0, 100, 0.0)] as $powers) {
            $found = Predicted::of(Series::of($powers), 0.0);
            self::assertSame([null, 0.0, null, null, null], [$found->integrated, $found->range, $found->maxMomentary, $found->maxShortTerm, $found->peak]);
        }
    }

    /** @param list<array<string, mixed>> $edits */
    #[DataProvider('gains')]
    #[TestDox('$_dataName changes the level by as much as it should')]
    public function testGainsAreFollowed(array $edits, float $atOne, float $atSeven): void
    {
        $plain = self::levels(Mixes::voiceOverBed());
        $changed = self::levels(array_reduce($edits, static fn (Mix $m, array $edit): Mix => Mixes::edited($m, $edit), Mixes::voiceOverBed()));
        self::assertEqualsWithDelta($atOne, $changed[10] - $plain[10], 0.05);
        self::assertEqualsWithDelta($atSeven, $changed[70] - $plain[70], 0.05);
    }

    /** @return iterable<string, array{list<array<string, mixed>>, float, float}> */
    public static function gains(): iterable
    {
        $bed = ['clips' => ['bed']];
        yield 'a fader' => [[['edit' => 'set-fader', 'track' => 'music', 'fader' => -6]], -6.0, -6.0];
        yield 'clip gain' => [[['edit' => 'set-clip-gain', ...$bed, 'gain' => 3.5]], 3.5, 3.5];
        yield 'source gain' => [[['edit' => 'set-source-gain', 'source' => 'src-bed', 'gain' => -4]], -4.0, -4.0];
        yield 'a dip' => [[['edit' => 'dip-range', ...$bed, 'from' => 6 * self::S, 'to' => 9 * self::S, 'by' => -11, 'ramp' => 4800]], 0.0, -11.0];
        yield 'pan to one side' => [[['edit' => 'set-pan', 'track' => 'music', 'pan' => 1]], 0.0, 0.0]; // equal power: W3C Web Audio
        yield 'one channel alone' => [[['edit' => 'set-channels', ...$bed, 'mode' => 'left']], 0.0, 0.0];
        yield 'a muted channel' => [[['edit' => 'open-channels', ...$bed, 'open' => true], ['edit' => 'set-channel', 'clip' => 'bed', 'channel' => 'right', 'muted' => true]], -3.01, -3.01];
        yield 'a linear fade, half way' => [[['edit' => 'set-fade', ...$bed, 'edge' => 'in', 'length' => 2 * self::S + 4800, 'shape' => 'linear']], -6.02, 0.0];
    }

    public function testMutedAndSilentTracksHaveNone(): void
    {
        foreach ([['edit' => 'set-muted', 'track' => 'music', 'muted' => true], ['edit' => 'set-fader', 'track' => 'music', 'fader' => 'silence'], ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => 'silence']] as $edit) {
            $power = TrackPower::of($mix = Mixes::edited(Mixes::voiceOverBed(), $edit), $mix->track('music'), self::tenths(...), 100);
            self::assertSame(0.0, $power->powers->highest());
            self::assertSame(0.0, $power->peaks->highest());
        }
    }

    public function testAClipStandsWhereItStands(): void
    {
        $mix = Mixes::voiceOverBed();
        $voice = TrackPower::of($mix, $mix->track('speech'), self::tenths(...), 100)->powers;
        self::assertSame(0.0, $voice[19]);
        self::assertGreaterThan(0.0, $voice[20]);
        self::assertGreaterThan(0.0, $voice[79]);
        self::assertSame(0.0, $voice[80]);
        $moved = Mixes::edited($mix, ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'speech', 'at' => 2 * self::S + 2400]);
        $half = TrackPower::of($moved, $moved->track('speech'), self::tenths(...), 100)->powers;
        self::assertEqualsWithDelta(0.5 * $voice[30], $half[20], 1e-6, 'half a tenth of it');
    }

    public function testItIsStoredAndReadBack(): void
    {
        $mix = Mixes::voiceOverBed();
        $power = TrackPower::of($mix, $mix->track('music'), self::tenths(...), 100);
        $read = TrackPower::fromBytes($power->toBytes());
        foreach ($power->powers as $k => $value) {
            self::assertEqualsWithDelta($value, $read->powers[$k], 1e-8);
            self::assertEqualsWithDelta($power->peaks[$k], $read->peaks[$k], 1e-7);
        }
        self::assertSame('', TrackPower::of($mix, $mix->track('music'), self::tenths(...), 0)->toBytes());
    }

    public function testStemsAddUpToTheProgramme(): void
    {
        $mix = Mixes::voiceOverBed();
        $figures = MixFigures::of($mix, self::tenths(...));
        $sum = array_map(static fn (float ...$p): float => array_sum($p), $figures->powersOf(Stem::Speech)->values(), $figures->powersOf(Stem::Speech, others: true)->values());
        self::assertEqualsWithDelta($figures->powers()->values(), $sum, 1e-7);
        self::assertEqualsWithDelta($figures->track('music')->integrated, $figures->stem(Stem::Music)->integrated, 1e-9);
        self::assertNull($figures->stem(Stem::Effects)->integrated);
        self::assertEqualsWithDelta(20 * log10(0.5 + 0.7), $figures->programme()->peak, 0.01, 'no sample is higher than all peaks together');
    }

    public function testTenthsOfASourceAreItsBlocksByFives(): void
    {
        $rows = '';
        foreach (range(1, 12) as $n) {
            $rows .= pack('g*', $n, $n / 100, 2 * $n, $n / 50);
        }
        $tenths = SourceTenths::of(SourceBlocks::fromBytes($rows, 2));
        self::assertEqualsWithDelta([[3.0, 8.0, 4.6], [6.0, 16.0, 9.2]], array_map(static fn (Series $row): array => $row->values(), $tenths->powers), 1e-5, 'the rest counts as if silence followed');
        self::assertEqualsWithDelta([0.1, 0.2, 0.24], $tenths->peaks->values(), 1e-6);
        self::assertSame($tenths->toBytes(), SourceTenths::fromBytes($tenths->toBytes(), 2)->toBytes());
    }

    /** @return list<float> dB every 100 ms of the bed */
    private static function levels(Mix $mix): array
    {
        return array_map(static fn (float $p): float => Gating::loudness($p), array_values(TrackPower::of($mix, $mix->track('music'), self::tenths(...), 100)->powers->values()));
    }

    private static function tenths(string $id): SourceTenths
    {
        return 'src-voice' === $id
            ? SourceTenths::fromBytes(pack('g*', ...array_fill(0, 100, 0.004), ...array_fill(0, 100, 0.5)), 1)
            : SourceTenths::fromBytes(pack('g*', ...array_fill(0, 200, 0.02), ...array_fill(0, 100, 0.7)), 2);
    }

    /** @return list<float> */
    private static function random(int $seed, int $count): array
    {
        $random = new Random($seed);
        $powers = [];
        for ($i = 0; $i < $count; ++$i) {
            $powers[] = 10.0 ** $random->float(-6.0, -1.0) * (0 === intdiv($i, 20) % 3 ? 0.01 : 1.0);
        }

        return $powers;
    }

    /**
     * @phpstan-impure
     *
     * @return array{?float, ?float, ?float, ?float} momentary, short-term, integrated, highest short-term
     */
    private static function shown(LoudnessWindows $windows): array
    {
        return [$windows->momentary(), $windows->shortTerm(), $windows->integrated(), $windows->highestShortTerm()];
    }
}
