<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Speech\Buried;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

final class ClearanceTest extends TestCase
{
    private const TENTH = 4800;

    /** W3C WCAG 2.x, success criterion 1.4.7: a background 20 dB below the speech is 20 LU of clearance. */
    #[DataProvider('depths')]
    public function testASteadyBackgroundReadsAsFarBelowAsItIs(float $bed, float $expected): void
    {
        $clearance = self::of(Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-fader', 'track' => 'music', 'fader' => $bed]), 15.0);
        $values = array_merge(...iterator_to_array($clearance->runs(), false));
        self::assertCount(60, $values);
        foreach ($values as $value) {
            self::assertEqualsWithDelta($expected, $value, 0.1);
        }
    }

    /** @return iterable<array{float, float}> */
    public static function depths(): iterable
    {
        yield from [[-20.0, 20.0], [-12.0, 12.0], [0.0, 0.0]];
    }

    public function testABuriedStretchIsListedWithWhatClearsIt(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-fader', 'track' => 'music', 'fader' => -16]);
        $mix = Mixes::edited($mix, ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 4 * 48_000, 'to' => 5 * 48_000, 'by' => 10, 'ramp' => 0]);
        $clearance = self::of($mix, 15.0);
        [$buried] = $clearance->buried();
        self::assertCount(1, $clearance->buried());
        self::assertEqualsWithDelta(4.0, $buried->span->from / 48_000, 0.21);
        self::assertEqualsWithDelta(5.0, $buried->span->to / 48_000, 0.21);
        self::assertEqualsWithDelta(6.0, $buried->worst, 0.1);
        self::assertSame(['music', ['music']], [$buried->covering, $buried->dipped]);
        self::assertEqualsWithDelta(-9.3, $buried->dip, 0.1);
        self::assertEqualsWithDelta(9.3, $buried->lift, 0.1);
        self::assertEqualsWithDelta(1 - 13 / 60, $clearance->clearPart, 0.001, 'a window of 400 ms reaches 300 ms further');

        $dipped = Mixes::edited($mix, ['edit' => 'dips', 'dips' => [['clips' => ['bed'], 'from' => $buried->span->from, 'to' => $buried->span->to, 'by' => $buried->dip, 'ramp' => 4800]]]);
        self::assertSame([], self::of($dipped, 15.0)->buried());
        self::assertSame(1.0, self::of($dipped, 15.0)->clearPart);
    }

    public function testWhatIsShorterThanHalfASecondIsNotListed(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-fader', 'track' => 'music', 'fader' => -20]);
        $mix = Mixes::edited($mix, ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 4 * 48_000, 'to' => 4 * 48_000 + self::TENTH, 'by' => 12, 'ramp' => 0]);
        self::assertSame([], self::of($mix, 15.0)->buried());
    }

    public function testLockedTracksAreLetAloneAndALiftIsOffered(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-fader', 'track' => 'music', 'fader' => -10]);
        $locked = Mixes::edited($mix, ['edit' => 'set-locked', 'track' => 'music', 'locked' => true]);
        [$buried] = self::of($locked, 15.0)->buried();
        self::assertSame(['music', [], null], [$buried->covering, $buried->dipped, $buried->dip]);
        self::assertEqualsWithDelta(5.3, $buried->lift, 0.1);
    }

    public function testWhereNothingIsSaidNothingIsBuried(): void
    {
        $mix = Mixes::voiceOverBed();
        $none = Clearance::of($mix, self::figures($mix), [], 15.0);
        self::assertSame([[], [], null], [iterator_to_array($none->runs()), $none->buried(), $none->clearPart]);
        $silent = Mixes::edited($mix, ['edit' => 'set-muted', 'track' => 'music', 'muted' => true]);
        self::assertSame(1.0, self::of($silent, 20.0)->clearPart);
        $empty = Mix::empty();
        self::assertSame([], Clearance::of($empty, self::figures($empty), [], 15.0)->buried());
    }

    public function testWhatIsBuriedBeyondAThousandStretchesIsToldAsWell(): void
    {
        $mix = Mixes::voiceOverBed();
        for ($n = 1; $n < 100; ++$n) {
            $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 'music', 'clip' => "bed{$n}", 'source' => 'src-bed', 'at' => $n * 480_000]);
        }
        $speech = array_map(static fn (int $n): Span => Span::of($n * 8 * self::TENTH, ($n * 8 + 5) * self::TENTH), range(0, 1199));
        $clearance = Clearance::of($mix, self::figures($mix), $speech, 15.0);
        self::assertCount(Clearance::MOST_BURIED, $clearance->buried());
        $all = [...array_map(static fn (Buried $b): Span => $b->span, $clearance->buried()), ...$clearance->moreBuried()];
        self::assertEquals($speech, $all);
    }

    private static function of(Mix $mix, float $wanted): Clearance
    {
        return Clearance::of($mix, self::figures($mix), [Span::of(2 * 48_000, 8 * 48_000)], $wanted);
    }

    /** Voice and bed of 10 s each, equally loud all along. */
    private static function figures(Mix $mix): MixFigures
    {
        $steady = static fn (int $channels): SourceTenths => SourceTenths::fromBytes(pack('g*', ...array_fill(0, 100 * $channels, 0.01 / $channels), ...array_fill(0, 100, 0.2)), $channels);
        $tenths = ['src-voice' => $steady(1), 'src-bed' => $steady(2)];
        // A mono voice sounds from both sides, which the bed does, too.
        $tenths['src-bed'] = SourceTenths::fromBytes(pack('g*', ...array_fill(0, 200, 0.01), ...array_fill(0, 100, 0.2)), 2);

        return MixFigures::of($mix, static fn (string $id): ?SourceTenths => $tenths[$id] ?? null);
    }
}
