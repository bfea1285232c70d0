<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Closure;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Speech\LowRuns;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Room;
use Wattage\Core\Timeline\Stem;

/**
 * How much of the speech can be understood at each moment, 0 … 100: {@see SpeechIndex} of the sentence around it, two seconds, against everything else during 400 ms, as in
 * {@see \Wattage\Core\Speech\Clearance}. Who listens has set the volume so that the speech as a whole is as loud as {@see Hearing} says.
 */
final readonly class Clarity
{
    public const MOST = 100;
    /** In place of a value where nobody speaks. */
    public const NOBODY = 255;
    /** As many as are listed. */
    public const MOST_COVERED = 1000;

    /** Softer than the mean by more than this, a moment does not count towards how loud the speech is. */
    private const GATE = 0.1;

    /**
     * @param string $values a byte for each 100 ms: 0 … 100, or {@see NOBODY}
     * @param ?float $average over all that is spoken; null where nobody speaks
     * @param ?float $clearPart part of the speech that is as clear as wanted, 0 … 1; null where nobody speaks
     * @param list<Covered> $covered in the order of time, the first {@see MOST_COVERED}
     */
    private function __construct(public string $values, public ?float $average, public ?float $clearPart, public array $covered)
    {
    }

    /**
     * @param array<string, string> $bands of each track, by id: see {@see TrackBands}
     * @param list<Span> $speech timeline samples at which somebody speaks
     * @param float $wanted 0 … 100
     */
    public static function of(Mix $mix, array $bands, array $speech, float $wanted, Room $room): self
    {
        return self::remembering(static fn (array $states, Closure $make): array => $make(array_keys($states)), $mix, $bands, $speech, $wanted, $room);
    }

    /**
     * The same, by somebody who knows most of it from before.
     *
     * @param Closure(array<int, string>, Closure(list<int>): array<int, string>): array<int, string> $each gives a row of values for each minute, told by all that they depend on, and lets those be made that it does not know
     * @param array<string, string> $bands
     * @param list<Span> $speech
     */
    public static function remembering(Closure $each, Mix $mix, array $bands, array $speech, float $wanted, Room $room): self
    {
        $count = [] === $bands ? 0 : intdiv(max(array_map(strlen(...), $bands)), ThirdOctaves::COUNT);
        $active = SpeechTimes::tenths($speech, intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), $count);
        $spoken = self::spoken($mix, $bands, $active);
        $loudness = $spoken->loudness(self::GATE);
        $values = str_repeat(\chr(self::NOBODY), $count);
        if (null === $loudness) {
            return new self($values, null, null, []);
        }
        $ear = new Ear(Hearing::in($room), $loudness);
        $states = [];
        foreach ($spoken->minutes() as $minute) {
            $states[$minute] = "{$room->value} {$loudness} {$spoken->state($minute)}";
        }
        $rows = $each($states, static function (array $minutes) use ($spoken, $ear): array {
            $made = [];
            foreach ($minutes as $minute) {
                $made[$minute] = self::minute($spoken, $ear, $minute);
            }

            return $made;
        });
        $low = new LowRuns();
        $sum = $number = $clear = 0;
        foreach ($rows as $minute => $bytes) {
            for ($i = 0, $k = $minute * Spoken::MINUTE, $n = min(Spoken::MINUTE, $count - $k); $i < $n; ++$i, ++$k) {
                $value = \ord($values[$k] = $bytes[$i]);
                if (self::NOBODY !== $value) {
                    $sum += $value;
                    ++$number;
                    $value >= $wanted ? ++$clear : $low->add($k, $value);
                }
            }
        }
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $covered = array_map(static fn (array $run): Covered => Covered::of(Span::of($run[0] * $frames, $run[1] * $frames), (int) $run[2], $spoken->means($run[0], $run[1]), $ear), \array_slice($low->long(), 0, self::MOST_COVERED));

        return new self($values, $sum / $number, $clear / $number, $covered);
    }

    /** A byte for each 100 ms of a minute. */
    private static function minute(Spoken $spoken, Ear $ear, int $minute): string
    {
        $values = str_repeat(\chr(self::NOBODY), Spoken::MINUTE);
        $held = 0;
        foreach ($spoken->momentsOf($minute) as $k => $powers) {
            $held = null === $powers ? $held : (int) round(self::MOST * $ear->index($powers[0], $powers[1]));
            $values[$k - $minute * Spoken::MINUTE] = \chr($held);
        }

        return $values;
    }

    /** How somebody hears the speech of a mix who has set the volume by it. */
    public static function ear(Spoken $spoken, Room $room): Ear
    {
        return new Ear(Hearing::in($room), $spoken->loudness(self::GATE) ?? 1.0);
    }

    /** @param array<string, string> $bands */
    private static function spoken(Mix $mix, array $bands, string $active): Spoken
    {
        $voice = $rest = [];
        foreach ($mix->tracks as $id => $track) {
            $row = [$bands[$id] ?? '', $mix->faders->of($track->stem)->ratio() ** 2];
            Stem::Speech === $track->stem ? $voice[(string) $id] = $row : $rest[(string) $id] = $row;
        }

        return new Spoken($active, $voice, $rest);
    }
}
