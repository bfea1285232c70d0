<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use Generator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Clarity\Ear;
use Wattage\Core\Clarity\Hearing;
use Wattage\Core\Ducking\BandShares;
use Wattage\Core\Ducking\ClarityNeed;
use Wattage\Core\Ducking\Given;
use Wattage\Core\Ducking\Passage;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Room;
use Wattage\Tests\support\Random;

/** What stretches need, against each moment of them looked at by itself. */
final class ClarityNeedTest extends TestCase
{
    private const STRETCHES = [[0, 7], [7, 30], [41, 42], [43, 90], [90, 120]];
    private const WANTED = 0.61;

    #[DataProvider('parts')]
    public function testAStretchGoesAsFarAsTheMomentThatNeedsMost(DuckPart $part): void
    {
        $rule = self::rule($part);
        $need = self::need($rule);
        foreach (self::STRETCHES as [$from, $to]) {
            $given = $need->furthest($from, $to);
            $passages = self::passages($from, $to);
            $clear = array_filter($passages, static fn (Passage $passage): bool => $passage->indexOf($given->all, $given->band) >= self::WANTED);
            self::assertSame($given->enough, \count($clear) === \count($passages), "{$from} to {$to}");
            if ($given->enough && $given->all + $given->band < -0.5) {
                $less = array_filter($passages, static fn (Passage $passage): bool => $passage->indexOf(min(0.0, $given->all + 0.4), 0.0 === $given->all ? $given->band + 1.0 : $given->band) >= self::WANTED);
                self::assertLessThan(\count($passages), \count($less), 'and no further than it takes');
            }
            if (!$given->enough) {
                $louder = static fn (float $lift): int => \count(array_filter($passages, static fn (Passage $passage): bool => $passage->louder($lift)->index($rule->deepest, DuckPart::BandFirst === $part ? DuckPart::All : $part) >= self::WANTED));
                self::assertSame(\count($passages), $louder($given->lift));
                self::assertLessThan(\count($passages), $louder($given->lift - 1.0));
            }
        }
    }

    /** @return iterable<string, array{DuckPart}> */
    public static function parts(): iterable
    {
        foreach (DuckPart::cases() as $part) {
            yield $part->value => [$part];
        }
    }

    /** Whoever asks for stretches in another order, or twice, hears the same to a hair. */
    public function testTheOrderInWhichStretchesAreAskedForDoesNotMatter(): void
    {
        $need = self::need(self::rule(DuckPart::All));
        $forth = array_map(static fn (array $stretch): Given => $need->furthest(...$stretch), self::STRETCHES);
        $back = array_reverse(array_map(static fn (array $stretch): Given => $need->furthest(...$stretch), array_reverse(self::STRETCHES)));
        foreach ($forth as $i => $given) {
            self::assertSame($given->enough, $back[$i]->enough);
            self::assertEqualsWithDelta($given->all, $back[$i]->all, 0.4);
        }
    }

    private static function rule(DuckPart $part): DuckRule
    {
        return RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'R', 'targets' => ['bed'], 'part' => $part->value, 'clarity' => 60, 'deepest' => -24]), 48_000);
    }

    private static function need(DuckRule $rule): ClarityNeed
    {
        return new ClarityNeed($rule, self::ear(), self::moments(...), (new BandShares(48_000))->byBand());
    }

    /** @return Generator<int, ?array{array<int, float>, array<int, float>, array<int, float>}> 12 seconds, of which the last three are covered more than can be helped */
    private static function moments(): Generator
    {
        $random = new Random(8);
        for ($k = 0; $k < 120; ++$k) {
            $rows = [self::row($random, -15.0), self::row($random, $random->float(-20.0, -8.0)), self::row($random, $k < 90 ? -32.0 : -17.0)];
            // Every other one holds for two.
            if (40 !== $k) {
                yield $k => 0 === $k % 2 || 41 === $k ? $rows : null;
            }
        }
    }

    /** @return array<int, float> power by band */
    private static function row(Random $random, float $db): array
    {
        return array_map(static fn (): float => 10.0 ** (($db + $random->float(-6.0, 6.0)) / 10.0), range(0, ThirdOctaves::COUNT - 1));
    }

    /** @return list<Passage> of a stretch, whose first moment may be the second that one of them holds for */
    private static function passages(int $from, int $to): array
    {
        $passages = [];
        $last = null;
        foreach (self::moments() as $k => $row) {
            $isNew = null !== $row;
            $last = $row ?? $last;
            if (null !== $last && $k >= $from && $k < $to && ($isNew || $k === $from)) {
                $passages[] = Passage::of(self::ear(), (new BandShares(48_000))->byBand(), ...$last);
            }
        }

        return $passages;
    }

    private static function ear(): Ear
    {
        return new Ear(Hearing::in(Room::Quiet), 0.6);
    }
}
