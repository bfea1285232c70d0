<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Scene;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** Rules on mixes that nobody would make on purpose. */
final class OddMixesTest extends TestCase
{
    private const SECONDS = 8;
    private const TIMES = [[1.0, 3.5], [5.0, 7.0]];

    /** @param array<string, mixed> $rule */
    #[DataProvider('rules')]
    public function testTracksThatGiveWayToOneAnotherComeToRest(array $rule): void
    {
        $scene = new Scene(['a' => Voice::saying(self::TIMES, self::SECONDS, 0.05, 3), 'b' => Voice::saying([[2.0, 6.0]], self::SECONDS, 0.05, 4)], ['a' => self::TIMES, 'b' => [[2.0, 6.0]]]);
        $mix = Mixes::edited($scene->mix, ['edit' => 'set-stem', 'track' => 'b', 'stem' => 'music']);
        foreach ([['a', 'b'], ['b', 'a']] as [$speaks, $gives]) {
            $mix = $mix->withRule(RuleDocument::read(Fields::of(['id' => "r-{$speaks}", 'name' => 'R', 'triggers' => [$speaks], 'targets' => [$gives], ...$rule]), Heard::RATE));
        }
        $after = $scene->ducker($mix)->applied();
        self::assertSame([], $scene->ducker($after)->outOfDate());
        self::assertEquals($after, $scene->ducker($after)->applied());
        foreach ($after->tracks as $track) {
            foreach ([$track->ducking, $track->band] as $lane) {
                foreach ($lane->curve->keyframes as $keyframe) {
                    self::assertGreaterThanOrEqual(-61.0, $keyframe->level->db);
                    self::assertLessThanOrEqual(0.0, $keyframe->level->db);
                }
            }
        }
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function rules(): iterable
    {
        yield 'by a number' => [['depth' => -12]];
        yield 'by band' => [['depth' => -12, 'part' => 'band-first']];
        yield 'to a clearance' => [['clearance' => 15, 'part' => 'band-first', 'moving' => true]];
        yield 'to a clarity' => [['clarity' => 75, 'moving' => true]];
    }

    /** A bed of one tone, of clicks, of silence, at 8 kHz with nothing above: what is asked for is reached or said not to be, and every level is a number. */
    #[DataProvider('beds')]
    public function testAnyBedIsLoweredOrSaidNotToReach(string $bed): void
    {
        $scene = new Scene(['voice' => Voice::saying(self::TIMES, self::SECONDS, 0.05, 3), 'bed' => self::bed($bed)], ['voice' => self::TIMES]);
        foreach (['all', 'band', 'band-first'] as $part) {
            foreach ([['clearance' => 15], ['clarity' => 60]] as $wish) {
                foreach ([true, false] as $moving) {
                    $rule = RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'R', 'targets' => ['bed'], 'part' => $part, 'moving' => $moving, ...$wish]), Heard::RATE);
                    $ducker = $scene->ducker($scene->mix->withRule($rule));
                    foreach ($ducker->dips($rule) as $dip) {
                        self::assertGreaterThanOrEqual(-30.01, $dip->depth + $dip->band);
                        self::assertLessThanOrEqual(0.0, $dip->depth + $dip->band);
                    }
                    $taken = $ducker->taken($rule);
                    self::assertTrue(null === $taken || ($taken >= -0.01 && is_finite($taken)));
                    self::assertLessThanOrEqual(0.0, $ducker->applied()->track('bed')->ducking->curve->levelAt(2 * Heard::RATE)->db);
                }
            }
        }
    }

    /** @return iterable<array{string}> */
    public static function beds(): iterable
    {
        yield ['one tone in the band'];
        yield ['one tone below it'];
        yield ['clicks'];
        yield ['silence'];
        yield ['telephone'];
        yield ['rain'];
    }

    /** Music on a track of speech is nobody speaking: there is nothing to make room for. */
    public function testWhereNobodySpeaksNothingGivesWay(): void
    {
        $scene = new Scene(['voice' => (new Noise(new Random(2)))->music(self::SECONDS * Heard::RATE, 0.05), 'bed' => self::bed('rain')], ['voice' => []]);
        foreach ([['depth' => -12], ['clearance' => 15, 'moving' => true], ['clarity' => 80, 'part' => 'band']] as $rule) {
            $mix = $scene->ducked(['targets' => ['bed'], ...$rule]);
            self::assertTrue($mix->track('bed')->ducking->curve->isFlat());
            self::assertTrue($mix->track('bed')->band->curve->isFlat());
        }
        $turns = $scene->ducked(['kind' => 'turns', 'targets' => ['voice', 'bed'], 'depth' => -12]);
        self::assertEqualsWithDelta(-3.01, $turns->track('voice')->ducking->curve->levelAt(96_000)->db, 0.2, 'all are alike');
    }

    /** @return list<float> */
    private static function bed(string $kind): array
    {
        $frames = self::SECONDS * Heard::RATE;
        $noise = new Noise(new Random(9));

        return match ($kind) {
            'one tone in the band' => Sound::sine(1_500.0, 0.1, $frames),
            'one tone below it' => Sound::sine(70.0, 0.3, $frames),
            'clicks' => array_map(static fn (int $i): float => 0 === $i % 4_321 ? 0.9 : 0.0, range(0, $frames - 1)),
            'silence' => array_fill(0, $frames, 0.0),
            'telephone' => self::held(array_map(static fn (float $x): float => 2.0 * $x, $noise->steady('traffic', $frames, 0.05))),
            default => $noise->steady($kind, $frames, 0.05),
        };
    }

    /**
     * Every sixth sample held, as if it had been recorded at 8 kHz: nothing of its own above 4.
     *
     * @param list<float> $sound
     *
     * @return list<float>
     */
    private static function held(array $sound): array
    {
        $slow = [];
        $last = 0.0;
        foreach ($sound as $i => $x) {
            $last += 0.25 * ($sound[$i - $i % 6] - $last);
            $slow[] = $last;
        }

        return $slow;
    }
}
