<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

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
        $count = [] === $bands ? 0 : intdiv(max(array_map(strlen(...), $bands)), ThirdOctaves::COUNT);
        $active = SpeechTimes::tenths($speech, intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), $count);
        $spoken = self::spoken($mix, $bands, $active);
        if (null === $spoken->loudness(self::GATE)) {
            return new self(str_repeat(\chr(self::NOBODY), $count), null, null, []);
        }
        $ear = self::ear($spoken, $room);
        $values = str_repeat(\chr(self::NOBODY), $count);
        $low = new LowRuns();
        $sum = $number = $clear = $held = 0;
        foreach ($spoken->moments() as $k => $powers) {
            $held = null === $powers ? $held : (int) round(self::MOST * $ear->index(...$powers));
            $values[$k] = \chr($held);
            $sum += $held;
            ++$number;
            $held >= $wanted ? ++$clear : $low->add($k, $held);
        }
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $covered = array_map(static fn (array $run): Covered => Covered::of(Span::of($run[0] * $frames, $run[1] * $frames), (int) $run[2], $spoken->means($run[0], $run[1]), $ear), \array_slice($low->long(), 0, self::MOST_COVERED));

        return new self($values, $sum / $number, $clear / $number, $covered);
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
