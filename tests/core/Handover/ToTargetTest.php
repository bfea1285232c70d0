<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Handover;

use ArrayIterator;
use Closure;
use Iterator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Wattage\Core\Handover\InvalidTarget;
use Wattage\Core\Handover\Target;
use Wattage\Core\Handover\ToTarget;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Core\Signal\SampleLayout;
use Wattage\Tests\support\Sound;

/** The result is measured as a file would be, by the meter that EBU Tech 3341 was checked against. */
final class ToTargetTest extends TestCase
{
    private const RATE = 48_000;

    /** @param list<array{float, float}> $parts level of noise and how far its peaks stand out */
    #[DataProvider('programmes')]
    public function testTheTargetIsMetAndNoPeakPassesTheCeiling(array $parts, float $loudness, float $truePeak): void
    {
        $sound = self::sound($parts);
        $to = new ToTarget(Target::of($loudness, $truePeak), self::measured($sound), 2, self::RATE);
        $written = self::written($to, $sound);
        $found = self::measured($written);
        self::assertEqualsWithDelta($loudness, $found->integrated, 0.1);
        self::assertLessThanOrEqual($truePeak + 0.05, $found->truePeak);
        self::assertTrue($to->target->isMetBy($to->result));
        self::assertEqualsWithDelta($found->integrated, $to->result->integrated, 0.001);
        self::assertCount(\count($sound), array_chunk($written, 9600));
    }

    /** @return iterable<string, array{list<array{float, float}>, float, float}> */
    public static function programmes(): iterable
    {
        yield 'quiet, to the level of a broadcaster' => [[[0.02, 1.0], [0.05, 1.0]], -23.0, -1.0];
        yield 'loud already, turned down' => [[[0.6, 1.0]], -23.0, -1.0];
        yield 'single peaks over the ceiling' => [[[0.02, 1.0], [0.03, 12.0], [0.02, 1.0]], -20.0, -2.0];
        yield 'hard work: what the guard takes is made up for' => [[[0.1, 1.0], [0.1, 9.0]], -12.0, -1.0];
    }

    public function testATargetThatNothingReachesIsSaidToBeMissedAndTheCeilingHoldsAllTheSame(): void
    {
        $sound = self::sound([[0.2, 1.0]]);
        $to = new ToTarget(Target::of(-5.0, -20.0), self::measured($sound), 2, self::RATE);
        $written = self::written($to, $sound);
        self::assertFalse($to->target->isMetBy($to->result));
        self::assertLessThanOrEqual(-19.95, self::measured($written)->truePeak);
    }

    /** Each with the gain and the guard of the whole, parts add up to it, before the guard and after. */
    public function testPartsAddUpToTheWhole(): void
    {
        $parts = [self::sound([[0.05, 9.0]]), self::sound([[0.04, 1.0]], 6)];
        $whole = array_map(static fn (array $a, array $b): array => array_map(static fn (float $x, float $y): float => $x + $y, $a, $b), $parts[0], $parts[1]);
        $written = array_map(static fn (?array $along): array => self::written(new ToTarget(Target::of(-14.0, -1.0), self::measured($whole), 2, self::RATE), $whole, $along), [...$parts, null]);
        $sum = array_map(static fn (float $x, float $y): float => $x + $y, $written[0], $written[1]);
        $apart = array_map(static fn (float $x, float $y): float => abs($x - $y), $sum, $written[2]);
        self::assertLessThan(10.0 ** (-120.0 / 20.0), max($apart));
        self::assertNotSame($whole[0][0], $sum[0], 'and there was something to do');
    }

    public function testSilenceIsRefusedWithASentence(): void
    {
        $this->expectException(InvalidTarget::class);
        $this->expectExceptionMessage('This is silent');
        new ToTarget(Target::of(-23.0, null), self::measured([array_fill(0, 9600, 0.0)]), 2, self::RATE);
    }

    public function testWithoutATargetNothingIsChanged(): void
    {
        $sound = self::sound([[0.9, 3.0]]);
        $written = self::written(new ToTarget(Target::none(), self::measured($sound), 2, self::RATE), $sound);
        self::assertTrue(array_merge(...$sound) === $written);
    }

    #[DataProvider('absurd')]
    public function testWhatCannotBeAskedForIsSaid(?float $loudness, ?float $truePeak, string $said): void
    {
        $this->expectException(InvalidTarget::class);
        $this->expectExceptionMessage($said);
        Target::of($loudness, $truePeak);
    }

    /** @return iterable<array{?float, ?float, string}> */
    public static function absurd(): iterable
    {
        yield [0.0, null, 'A loudness of 0 LUFS'];
        yield [-80.0, null, 'A loudness of -80 LUFS'];
        yield [\NAN, null, 'A loudness of that size'];
        yield [-23.0, 3.0, 'A true peak of 3 dBTP'];
        yield [-23.0, -\INF, 'A true peak of that size'];
    }

    /** A sound as numbers measures as its bytes do. */
    public function testTheMeterOfNumbersAgreesWithThatOfBytes(): void
    {
        $samples = array_merge(...self::sound([[0.1, 2.0], [0.01, 5.0]]), ...[array_fill(0, 100, 0.3)]);
        $meter = new LoudnessMeter(SampleLayout::float32(2), self::RATE);
        $meter->push(pack('g*', ...$samples));
        self::assertEqualsWithDelta($meter->finish(), self::measured(array_chunk(self::rounded($samples), 9600)), 1e-9);
    }

    /**
     * @param list<array{float, float}> $parts
     *
     * @return list<list<float>> pieces of 100 ms, a second for each part
     */
    private static function sound(array $parts, int $seed = 5): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $pieces = [];
        foreach ($parts as [$level, $standOut]) {
            for ($tenth = 0; $tenth < 20; ++$tenth) {
                $piece = [];
                $smooth = 0.0;
                for ($i = 0; $i < 4800; ++$i) {
                    $smooth += 0.2 * ($random->getInt(-1000, 1000) / 1000 - $smooth);
                    $sample = $level * 2.5 * $smooth * (0 === $i % 1600 ? $standOut : 1.0);
                    $piece[] = $sample;
                    $piece[] = 0.7 * $sample;
                }
                $pieces[] = $piece;
            }
        }

        return $pieces;
    }

    /**
     * @param list<float> $samples
     *
     * @return list<float> as 32-bit floats have them
     */
    private static function rounded(array $samples): array
    {
        return Sound::floats(pack('g*', ...$samples));
    }

    /** @param list<list<float>>|list<float> $sound in pieces, or whole */
    private static function measured(array $sound): Loudness
    {
        $meter = new SampleMeter(2, self::RATE);
        foreach ($sound as $piece) {
            \is_array($piece) && $meter->push($piece);
        }
        foreach (array_chunk(array_filter($sound, is_float(...)), 9600) as $piece) {
            $meter->push($piece);
        }

        return $meter->finish();
    }

    /**
     * @param list<list<float>> $sound
     * @param ?list<list<float>> $along
     *
     * @return list<float>
     */
    private static function written(ToTarget $to, array $sound, ?array $along = null): array
    {
        $written = [];
        $begin = static function () use (&$written): Closure {
            $written = [];

            return static function (array $samples) use (&$written): void {
                array_push($written, ...$samples);
            };
        };
        foreach ($to->write(static fn (): array => $sound, $begin, null === $along ? null : static fn (): Iterator => new ArrayIterator($along)) as $_) {
        }

        /** @var list<float> $written */
        return $written;
    }
}
