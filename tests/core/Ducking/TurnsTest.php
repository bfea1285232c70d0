<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Scene;
use Wattage\Tests\support\Voice;

/** Three microphones in one room: each hears the others 14 dB softer. */
final class TurnsTest extends TestCase
{
    private const SECONDS = 16;
    private const OWN = ['a' => [[0.5, 4.0], [9.0, 11.0]], 'b' => [[4.6, 7.6], [9.4, 11.4]], 'c' => [[12.2, 15.0]]];
    private const BLEED = 0.2;

    private static ?Scene $scene = null;

    public static function tearDownAfterClass(): void
    {
        self::$scene = null;
    }

    public function testWhoSpeaksIsOpenAndTheOthersGiveWayByWhatWasAsked(): void
    {
        $mix = $this->turns(-15);
        foreach (self::OWN as $who => $times) {
            foreach ($times as [$from, $to]) {
                for ($t = $from + 0.02; $t < $to - 0.3; $t += 0.05) {
                    $open = self::level($mix, $who, $t);
                    // Alone −0.3 dB, since the shares of the others are in the sum; of two −3.
                    self::assertGreaterThan($t > 9.1 && $t < 11.1 ? -4.0 : -1.0, $open, "{$who} at {$t} s");
                }
            }
        }
        foreach ([[2.0, 'a', ['b', 'c']], [6.0, 'b', ['a', 'c']], [13.5, 'c', ['a', 'b']]] as [$t, $who, $others]) {
            foreach ($others as $other) {
                self::assertEqualsWithDelta(-15.0, self::level($mix, $other, $t) - self::level($mix, $who, $t), 0.6);
            }
        }
        self::assertEqualsWithDelta(-3.1, self::level($mix, 'a', 10.3), 0.6);
        self::assertEqualsWithDelta(-3.1, self::level($mix, 'b', 10.3), 0.6);
    }

    /** Source: gain sharing, D. Dugan 1975 [M]: the powers of all gains add up to one at any moment. */
    public function testThePowersOfAllGainsAddUpToOne(): void
    {
        $mix = $this->turns(-15);
        for ($t = 0.1; $t < self::SECONDS - 0.2; $t += 0.013) {
            $sum = 0.0;
            foreach (array_keys(self::OWN) as $who) {
                $sum += 10.0 ** (self::level($mix, $who, $t) / 10.0);
            }
            self::assertEqualsWithDelta(0.0, 10.0 * log10($sum), 1.0, "{$t} s");
        }
    }

    /** What comes over from the next seat is down by what was asked for in the rendered track, while the one who speaks is as loud as before. */
    public function testBleedIsDownInTheRender(): void
    {
        $scene = self::scene();
        $mix = $this->turns(-15);
        $rms = static function (Mix $of, string $track, float $from, float $to) use ($scene): float {
            $part = \array_slice($scene->rendered($of, $track), (int) ($from * Heard::RATE), (int) (($to - $from) * Heard::RATE));

            return 10.0 * log10(array_sum(array_map(static fn (float $x): float => $x * $x, $part)) / \count($part));
        };
        self::assertEqualsWithDelta(-15.3, $rms($mix, 'b', 1.0, 3.5) - $rms($scene->mix, 'b', 1.0, 3.5), 0.7);
        self::assertEqualsWithDelta(-0.3, $rms($mix, 'a', 1.0, 3.5) - $rms($scene->mix, 'a', 1.0, 3.5), 0.4);
    }

    /** Where microphones take turns, less of the speech is left; a bed gives way to what is left, measured in the rendered stems. */
    public function testABedGivesWayToWhatTurnsLeaveOfTheSpeech(): void
    {
        $scene = self::scene();
        $mix = $scene->ducked(['id' => 'bed', 'targets' => ['bed'], 'clearance' => 12, 'moving' => true, 'lead' => 0.1], $this->turns(-20));
        $speech = Heard::in($scene->rendered($mix, 'a', 'b', 'c'))->tenths->powers[0];
        $bed = Heard::in($scene->rendered($mix, 'bed'))->tenths->powers[0];
        $clear = [];
        foreach (range(0, $speech->count() - 4) as $k) {
            $sum = static fn (Series $row): float => $row[$k] + $row[$k + 1] + $row[$k + 2] + $row[$k + 3];
            // Where somebody has been speaking for half a second, and goes on.
            foreach (array_merge(...array_values(self::OWN)) as [$from, $to]) {
                $k >= 10 * $from + 5 && $k + 4 <= 10 * $to - 2 && $clear[] = 10.0 * log10($sum($speech) / $sum($bed));
            }
        }
        sort($clear);
        self::assertGreaterThan(60, \count($clear));
        self::assertGreaterThan(11.9, $clear[intdiv(\count($clear), 10)]);
    }

    public function testThirtyTwoMicrophonesAndOneThatIsGone(): void
    {
        $sounds = $times = [];
        for ($i = 0; $i < 32; ++$i) {
            $sounds["m{$i}"] = 0 === $i % 8 ? Voice::saying([[0.2 + $i / 16, 1.8 + $i / 16]], 4.5, 0.05, $i + 1) : array_fill(0, (int) (4.5 * Heard::RATE), 0.0);
            $times["m{$i}"] = 0 === $i % 8 ? [[0.2 + $i / 16, 1.8 + $i / 16]] : [];
        }
        $scene = new Scene($sounds, $times);
        $mix = $scene->ducked(['kind' => 'turns', 'targets' => [...array_keys($sounds), 'gone'], 'depth' => -20, 'hold' => 0.2]);
        $sum = 0.0;
        foreach (array_keys($sounds) as $who) {
            $sum += 10.0 ** (self::level($mix, $who, 1.0) / 10.0);
        }
        self::assertEqualsWithDelta(0.0, 10.0 * log10($sum), 1.0);
    }

    private function turns(float $depth): Mix
    {
        return self::scene()->ducked(['kind' => 'turns', 'targets' => ['a', 'b', 'c'], 'depth' => $depth, 'hold' => 0.3]);
    }

    private static function level(Mix $mix, string $track, float $second): float
    {
        return $mix->track($track)->ducking->curve->levelAt((int) ($second * Heard::RATE))->db;
    }

    private static function scene(): Scene
    {
        if (null === self::$scene) {
            $voices = $sounds = [];
            foreach (array_keys(self::OWN) as $i => $who) {
                $voices[$who] = Voice::saying(self::OWN[$who], self::SECONDS, 0.05, $i + 1);
            }
            foreach (array_keys(self::OWN) as $i => $who) {
                $room = (new Noise(new Random(20 + $i)))->steady('pink', self::SECONDS * Heard::RATE, 0.0006);
                foreach ($voices as $other => $voice) {
                    foreach ($voice as $k => $x) {
                        $room[$k] += $other === $who ? $x : self::BLEED * $x;
                    }
                }
                $sounds[$who] = $room;
            }
            // Everybody is heard on every microphone: who it is has to come from the powers.
            $all = array_merge(...array_values(self::OWN));
            $bed = (new Noise(new Random(9)))->music(self::SECONDS * Heard::RATE, 0.05);
            self::$scene = new Scene([...$sounds, 'bed' => $bed], array_map(static fn (): array => $all, self::OWN));
        }

        return self::$scene;
    }
}
