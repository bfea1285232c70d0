<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Clarity;

use Closure;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Clarity\Clarity;
use Wattage\Core\Clarity\Covered;
use Wattage\Core\Clarity\TrackBands;
use Wattage\Core\Clarity\Understood;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Room;
use Wattage\Core\Timeline\Source;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** Clarity of a mix from what its sources were measured at, against the sounds themselves. */
final class ClarityTest extends TestCase
{
    private const SECONDS = 8;
    private const TIMES = [[0.5, 3.5], [4.2, 7.6]];

    /** @var array<string, list<float>> */
    private array $sounds = [];
    /** @var array<string, Heard> */
    private array $heard = [];

    /** Each decibel of the bed takes from it, down to nothing; without one it is nearly all, in every room less. */
    public function testItFallsAsTheBedRises(): void
    {
        $mix = $this->mix(['bed' => (new Noise(new Random(1)))->steady('pink', self::SECONDS * Heard::RATE, 0.03)]);
        $before = 101.0;
        foreach ([-60.0, -30.0, -20.0, -10.0, 0.0, 12.0] as $gain) {
            $clarity = $this->clarity(Mixes::edited($mix, ['edit' => 'set-fader', 'track' => 'bed', 'fader' => $gain]));
            self::assertLessThan($before, $clarity->average);
            $before = $clarity->average ?? 0.0;
            // The made voice has little above 4 kHz, so that not all of it can be there.
            -60.0 === $gain && self::assertGreaterThan(65.0, $before);
        }
        self::assertLessThan(20.0, $before);
        $quiet = $this->clarity(Mixes::edited($mix, ['edit' => 'set-muted', 'track' => 'bed', 'muted' => true]));
        self::assertGreaterThan(65.0, $quiet->average);
        self::assertSame([null], array_unique(array_map(static fn (Covered $c): ?string => $c->track, $quiet->covered) ?: [null]), 'what is lacking is no track’s fault');
        foreach ([Room::Phone, Room::Kitchen, Room::Car, Room::HardOfHearing] as $room) {
            self::assertLessThan($quiet->average, $this->clarity(Mixes::edited($mix, ['edit' => 'set-muted', 'track' => 'bed', 'muted' => true]), $room)->average, $room->value);
        }
    }

    /** The whole programme louder or softer is as clear: whoever listens sets the volume. */
    public function testItDoesNotGoByTheLevelOfAllOfIt(): void
    {
        $mix = $this->mix(['bed' => (new Noise(new Random(1)))->steady('pink', self::SECONDS * Heard::RATE, 0.02)]);
        $softer = $mix;
        foreach (['voice', 'bed'] as $track) {
            $softer = Mixes::edited($softer, ['edit' => 'set-fader', 'track' => $track, 'fader' => -15]);
        }
        self::assertEqualsWithDelta($this->clarity($mix)->average, $this->clarity($softer)->average, 1.0);
    }

    /** Of a rumble and a whistle the one that covers the speech is named, and where: the whistle, although the rumble is 20 dB louder. */
    public function testItSaysWhatCoversTheSpeechAndWhere(): void
    {
        $rumble = array_map(static fn (float $x): float => 0.4 * $x, Sound::sine(45.0, 1.0, self::SECONDS * Heard::RATE));
        $band = array_fill(0, self::SECONDS * Heard::RATE, 0.0);
        for ($hz = 1450.0; $hz < 2600.0; $hz *= 1.031) {
            foreach ($band as $i => $x) {
                $band[$i] = $x + 0.02 * sin(2 * \M_PI * $hz * $i / Heard::RATE);
            }
        }
        $clarity = $this->clarity($this->mix(['rumble' => $rumble, 'whistle' => $band]));
        self::assertNotSame([], $clarity->covered);
        foreach ($clarity->covered as $covered) {
            self::assertSame('whistle', $covered->track);
            self::assertGreaterThanOrEqual(1250, $covered->fromHz);
            self::assertLessThanOrEqual(4000, $covered->toHz);
            self::assertLessThan(75, $covered->worst);
        }
    }

    public function testWhereNobodySpeaksThereIsNothingToJudge(): void
    {
        $mix = $this->mix(['bed' => Sound::sine(440.0, 0.1, self::SECONDS * Heard::RATE)]);
        $clarity = Clarity::of($mix, $this->bands($mix), [], 75.0, Room::Quiet);
        self::assertSame([null, null, []], [$clarity->average, $clarity->clearPart, $clarity->covered]);
        self::assertSame(str_repeat("\xFF", 10 * self::SECONDS), $clarity->values);
        self::assertNull(Clarity::of(Mix::empty(), [], [], 75.0, Room::Quiet)->average);
    }

    /** Worked out minute by minute, and only where something changed, it is what it is from nothing; and where the minutes begin does not matter. */
    public function testWhatIsKnownFromBeforeIsTheSame(): void
    {
        [$tenths, $row] = [2400, ThirdOctaves::COUNT];
        $random = new Random(21);
        $bands = ['voice' => '', 'bed' => ''];
        for ($i = 0; $i < $tenths * $row; ++$i) {
            $bands['voice'] .= \chr($random->int(90, 150));
            $bands['bed'] .= \chr($random->int(70, 150));
        }
        $mix = $this->mix(['bed' => Sound::sine(440.0, 0.1, Heard::RATE)]);
        $speech = [];
        for ($at = 3; $at < $tenths - 90; $at += $random->int(40, 130)) {
            $speech[] = Span::of($at * 4800, ($at + $random->int(1, 39)) * 4800);
        }
        // Across the end of a minute, and where something will change.
        array_push($speech, Span::of(1195 * 4800, 1205 * 4800), Span::of(100 * 4800, 120 * 4800), Span::of(1300 * 4800, 1330 * 4800));
        usort($speech, static fn (Span $a, Span $b): int => $a->from <=> $b->from);
        $made = $known = [];
        $remember = static function (array $states, Closure $work) use (&$known, &$made): array {
            /** @var array<int, string> $states */
            /** @var Closure(list<int>): array<int, string> $work */
            /** @var array<int, array{string, string}> $known */
            [$known, $made] = self::remembered($known, $states, $work);

            return array_map(static fn (array $one): string => $one[1], $known);
        };
        $whole = Clarity::of($mix, $bands, $speech, 75.0, Room::Car);
        self::assertEquals($whole, Clarity::remembering($remember, $mix, $bands, $speech, 75.0, Room::Car));
        self::assertSame([0, 1, 2, 3], $made);
        foreach ([['bed', 1_300, [2]], ['voice', 100, [0]], ['voice', 1_200, [1, 2]]] as [$track, $tenth, $minutes]) {
            $bands[$track] = substr_replace($bands[$track], str_repeat("\x8c", 3 * $row), $tenth * $row, 3 * $row);
            $kept = Clarity::remembering($remember, $mix, $bands, $speech, 75.0, Room::Car);
            self::assertSame($minutes, $made, "{$track} at {$tenth}");
            self::assertEquals(Clarity::of($mix, $bands, $speech, 75.0, Room::Car), $kept);
        }
        $later = array_map(static fn (string $rows): string => str_repeat("\0", 258 * $row).$rows, $bands);
        $moved = Clarity::of($mix, $later, array_map(static fn (Span $span): Span => Span::of($span->from + 258 * 4800, $span->to + 258 * 4800), $speech), 75.0, Room::Car);
        self::assertSame($kept->values, substr($moved->values, 258));
    }

    /** What a track's bands are said to be is what they are in the rendered track: gains, curves, fades, pans and places, within 1.5 dB of what stands out. */
    public function testATracksBandsAreThoseOfItsRender(): void
    {
        $mix = $this->mix(['bed' => (new Noise(new Random(8)))->steady('rain', self::SECONDS * Heard::RATE, 0.1)]);
        foreach ([
            ['edit' => 'set-clip-gain', 'clips' => ['c-bed'], 'gain' => -7.3],
            ['edit' => 'dip-range', 'clips' => ['c-bed'], 'from' => 100_000, 'to' => 200_000, 'by' => -11, 'ramp' => 9_600],
            ['edit' => 'split', 'cuts' => [['clip' => 'c-bed', 'at' => 250_000]]],
            ['edit' => 'set-pan', 'track' => 'bed', 'pan' => 0.4],
        ] as $edit) {
            $mix = Mixes::edited($mix, $edit);
        }
        $alone = Mixes::edited($mix, ['edit' => 'set-muted', 'track' => 'voice', 'muted' => true]);
        $left = $right = [];
        foreach ((new Renderer($alone, array_map(static fn (array $sound) => Sound::stream(Sound::pcm16($sound), 1, 16), $this->sounds)))->render(Span::of(0, $mix->length())) as $samples) {
            foreach ($samples as $i => $x) {
                0 === $i % 2 ? $left[] = $x : $right[] = $x;
            }
        }
        $powers = BandLevel::powers();
        $rendered = array_map(static fn (int $l, int $r): float => $powers[$l] + $powers[$r], self::bytes(Heard::in($left)->bands->together()), self::bytes(Heard::in($right)->bands->together()));
        $said = array_map(static fn (int $byte): float => $powers[$byte], self::bytes($this->bands($mix)['bed']));
        $off = [];
        // Averages of half a second: single tenths lie across two of their source.
        for ($from = 0, $row = ThirdOctaves::COUNT; $from + 5 * $row <= \count($said); $from += 5 * $row) {
            for ($band = 0; $band < $row; ++$band) {
                [$a, $b] = [0.0, 0.0];
                for ($k = 0; $k < 5; ++$k) {
                    $a += $said[$from + $k * $row + $band];
                    $b += $rendered[$from + $k * $row + $band];
                }
                if ($b > 1e-8) {
                    $off[] = abs(10.0 * log10(max(1e-12, $a) / $b));
                }
            }
        }
        sort($off);
        self::assertGreaterThan(200, \count($off));
        self::assertLessThan(1.0, $off[intdiv(\count($off), 2)]);
        self::assertLessThan(3.0, $off[(int) (0.95 * \count($off))]);
    }

    /** Ten mixes, from buried to clear: the index, which goes by bands of sources, and extended STOI, which goes by the two sounds, put them in the same order. */
    public function testItOrdersTenMixesAsAnotherMeasureDoes(): void
    {
        $noise = new Noise(new Random(12));
        $frames = self::SECONDS * Heard::RATE;
        $beds = [
            ['music', $noise->music($frames, 0.05), [-30, -18, -10, 0, 8]],
            ['traffic', $noise->steady('traffic', $frames, 0.05), [-20, 0]],
            ['pink', $noise->steady('pink', $frames, 0.05), [-24, -12, 0]],
        ];
        $ours = $theirs = [];
        foreach ($beds as [$name, $bed, $gains]) {
            $mix = $this->mix(['bed' => $bed]);
            foreach ($gains as $gain) {
                $ours["{$name} {$gain}"] = $this->clarity(Mixes::edited($mix, ['edit' => 'set-fader', 'track' => 'bed', 'fader' => $gain]))->average ?? self::fail();
                $together = array_map(static fn (float $a, float $b): float => $a + $b * 10.0 ** ($gain / 20), $this->sounds['voice'], $bed);
                $theirs["{$name} {$gain}"] = (new Understood())->of(self::slow($this->sounds['voice']), self::slow($together))[1] ?? self::fail();
            }
        }
        self::assertCount(10, $ours);
        self::assertGreaterThanOrEqual(0.9, self::rankCorrelation($ours, $theirs), (string) json_encode([$ours, $theirs]));
    }

    /** @param array<string, list<float>> $beds by track */
    private function mix(array $beds): Mix
    {
        $this->sounds = ['voice' => Voice::saying(self::TIMES, self::SECONDS, 0.05, 3), ...$beds];
        $this->heard = array_map(Heard::in(...), $this->sounds);
        $sources = [];
        foreach ($this->sounds as $id => $sound) {
            $sources[$id] = new Source($id, $id, \count($sound), 1, Decibels::unchanged());
        }
        $mix = Mix::empty();
        foreach (array_keys($this->sounds) as $id) {
            $mix = Mixes::edited($mix, ['edit' => 'add-track', 'track' => $id, 'name' => $id, 'stem' => 'voice' === $id ? 'speech' : 'music'], $sources);
            $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => $id, 'clip' => "c-{$id}", 'source' => $id, 'at' => 0], $sources);
        }

        return $mix;
    }

    private function clarity(Mix $mix, Room $room = Room::Quiet): Clarity
    {
        $speech = array_map(static fn (array $time): Span => Span::of((int) ($time[0] * Heard::RATE), (int) ($time[1] * Heard::RATE)), self::TIMES);

        return Clarity::of($mix, $this->bands($mix), $speech, 75.0, $room);
    }

    /** @return array<string, string> */
    private function bands(Mix $mix): array
    {
        $tenths = fn (string $id) => $this->heard[$id]->tenths;
        $figures = MixFigures::of($mix, $tenths);
        $bands = [];
        foreach ($mix->tracks as $id => $track) {
            $bands[(string) $id] = TrackBands::of($mix, $track, $figures->tracks()[$id]->powers, $tenths, fn (string $source) => $this->heard[$source]->bands);
        }

        return $bands;
    }

    /**
     * @param list<float> $sound at 48 kHz
     *
     * @return list<float> at 10 kHz, what is above 5 kHz mostly gone
     */
    private static function slow(array $sound): array
    {
        $slow = [];
        for ($at = 0.0, $n = \count($sound) - 10; $at < $n; $at += 4.8) {
            $slow[] = array_sum(\array_slice($sound, (int) $at, 9)) / 9;
        }

        return $slow;
    }

    /** @return list<int> */
    private static function bytes(string $rows): array
    {
        return array_map(ord(...), str_split($rows));
    }

    /**
     * Spearman's.
     *
     * @param array<string, float> $a
     * @param array<string, float> $b
     */
    private static function rankCorrelation(array $a, array $b): float
    {
        asort($a);
        asort($b);
        [$ranksA, $ranksB] = [array_flip(array_keys($a)), array_flip(array_keys($b))];
        $n = \count($a);
        $sum = 0;
        foreach ($ranksA as $name => $rank) {
            $sum += ($rank - $ranksB[$name]) ** 2;
        }

        return 1.0 - 6.0 * $sum / ($n * ($n * $n - 1));
    }

    /**
     * @param array<int, array{string, string}> $known
     * @param array<int, string> $states
     * @param Closure(list<int>): array<int, string> $make
     *
     * @return array{array<int, array{string, string}>, list<int>} what is known then, and what of it was made
     */
    private static function remembered(array $known, array $states, Closure $make): array
    {
        $missing = array_keys(array_filter($states, static fn (string $state, int $minute): bool => $state !== ($known[$minute][0] ?? null), \ARRAY_FILTER_USE_BOTH));
        foreach ($make($missing) as $minute => $values) {
            $known[$minute] = [$states[$minute], $values];
        }

        return [$known, $missing];
    }
}
