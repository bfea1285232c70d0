<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Interchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Interchange\Difference;
use Wattage\Core\Interchange\MixDifference;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;

final class DifferenceTest extends TestCase
{
    /** @return iterable<string, array{mixed, mixed}> */
    public static function pairs(): iterable
    {
        yield 'alike' => [['a' => 1], ['a' => 1]];
        yield 'another number' => [['a' => 1, 'b' => 2], ['a' => 1, 'b' => 2.0]];
        yield 'a member more, one less' => [['a' => 1, 'b' => 2], ['b' => 2, 'c' => null]];
        yield 'null stays null' => [['a' => null], ['a' => null, 'b' => null]];
        yield 'a list in place of an object' => [['x' => ['a' => 1]], ['x' => [1]]];
        yield 'emptied' => [['x' => [1, 2]], ['x' => []]];
        yield 'some in the middle' => [[1, 2, 3, 4, 5], [1, 2, 9, 9, 9, 5]];
        yield 'all the same but longer' => [[7, 7, 7], [7, 7, 7, 7]];
        yield 'same length' => [[1, [2, 3], 4], [1, [2, 5], 4]];
        yield 'things moved, gone and new' => [[['id' => 'a', 'v' => 1], ['id' => 'b'], ['id' => 'c']], [['id' => 'c'], ['id' => 'new', 'v' => [1]], ['id' => 'a', 'v' => 2]]];
        yield 'ids that look like numbers' => [[['id' => '0', 'v' => 1], ['id' => '1']], [['id' => '1'], ['id' => '0', 'v' => 2], ['id' => '7']]];
        yield 'the same id twice' => [[['id' => 'a'], ['id' => 'a']], [['id' => 'a'], ['id' => 'a'], ['id' => 'b']]];
        yield 'not a list at all' => [null, ['a' => 1]];
    }

    #[DataProvider('pairs')]
    public function testAppliedToTheFirstItGivesTheSecondAlsoAfterJson(mixed $a, mixed $b): void
    {
        $difference = json_decode(MixDocument::json(Difference::between($a, $b)), true);
        self::assertTrue(null === $difference || \is_array($difference));
        self::assertEquals($b, Difference::applied($a, $difference));
        self::assertSame($a === $b, null === $difference);
    }

    public function testItIsSmallWhereLittleChangesInALongList(): void
    {
        $curve = array_map(static fn (int $at): array => ['at' => $at, 'level' => -6.5, 'ramp' => 'line'], range(0, 4000));
        $more = $curve;
        array_splice($more, 2000, 0, [['at' => 1, 'level' => -3.0, 'ramp' => 'hold']]);
        self::assertLessThan(80, \strlen(MixDocument::json(Difference::between($curve, $more))));
        $other = $curve;
        $other[1234]['level'] = -9.0;
        self::assertLessThan(80, \strlen(MixDocument::json(Difference::between($curve, $other))));
    }

    /** Any mix follows exactly from the first and what differed from one to the next. */
    public function testAnyStateOfARandomHistoryIsRebuiltExactly(): void
    {
        foreach (range(1, 12) as $seed) {
            $random = new Random($seed);
            $mix = Mixes::voiceOverBed();
            $first = MixDocument::encode($mix);
            $differences = [];
            for ($i = 0; $i < 40; ++$i) {
                try {
                    $next = Mixes::edited($mix, self::edit($random, $i));
                } catch (Problem) {
                    continue;
                }
                $differences[] = MixDifference::between($mix, $next);
                $mix = $next;
                self::assertEquals($mix, MixDocument::fromArray(MixDifference::applied($first, $differences)), "seed {$seed}, step {$i}");
            }
            self::assertGreaterThan(15, \count($differences));
        }
    }

    public function testStatesThatShareNoObjectGiveTheSame(): void
    {
        $a = Mixes::voiceOverBed();
        $b = MixDocument::decode(MixDocument::encode(Mixes::edited($a, ['edit' => 'set-fader', 'track' => 'music', 'fader' => -7])));
        $difference = MixDifference::between($a, $b);
        self::assertEquals($b, MixDocument::fromArray(MixDifference::applied(MixDocument::encode($a), [$difference])));
        self::assertLessThan(100, \strlen($difference));
    }

    /** @return array<string, mixed> */
    private static function edit(Random $random, int $i): array
    {
        $at = $random->int(0, 9) * Mixes::SECOND + $random->int(0, 47_999);
        $db = $random->int(-300, 60) / 10;

        return match ($random->int(0, 11)) {
            0 => ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => $at, 'to' => $at + 20_000, 'by' => -11, 'ramp' => 2000],
            1 => ['edit' => 'set-clip-gain', 'clips' => ['bed', 'voice'], 'gain' => $db],
            2 => ['edit' => 'add-track', 'track' => "t{$i}", 'name' => "Track {$i}", 'stem' => 'effects'],
            3 => ['edit' => 'place-track', 'track' => 'music', 'place' => $random->int(0, 3)],
            4 => ['edit' => 'add-marker', 'marker' => "m{$i}", 'at' => $at, 'name' => "Mark {$i}"],
            5 => ['edit' => 'set-captions', 'text' => "1\n00:00:01,000 --> 00:00:02,500\nLine {$i}\n"],
            6 => ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => $at]]],
            7 => ['edit' => 'move-clips', 'clips' => ['voice'], 'later' => $random->int(-20_000, 20_000)],
            8 => ['edit' => 'set-fader', 'track' => 'music', 'fader' => $db / 3],
            9 => ['edit' => 'set-range', 'track' => 'music', 'lane' => 'level', 'from' => $at, 'to' => $at + 30_000, 'level' => $db, 'ramp' => 1000],
            10 => ['edit' => 'set-clip-gain', 'clips' => ['voice'], 'gain' => 'silence'],
            default => ['edit' => 'insert-time', 'at' => $at, 'length' => $random->int(1, 5) * 10_000],
        };
    }
}
