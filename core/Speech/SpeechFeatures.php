<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Bands\ThirdOctaves;

/**
 * What tells speech from other sound, every 40 ms: how far each region of the spectrum stands out of its own background, how it moves in the rhythm of
 * syllables, how the colour changes between vowels and consonants, whether it is voiced. Own choice of features, after what is commonly used for telling
 * speech from music and noise. None depends on the level of the recording.
 */
final class SpeechFeatures
{
    public const COUNT = 139;

    /** The number that says how harmonic a record is by itself. */
    public const VOICED = 12;

    /** Records needed before and after those that are asked for. */
    public const CONTEXT = 75;

    /** Six regions of three bands each, or nine pairs. */
    private const REGIONS = 6;
    private const BANDS = 3;
    private const PAIRS = 9;
    /** dB; what is softer counts as this. */
    private const FLOOR = -90.0;
    /** The background is what so much of the time around stays below. */
    private const QUIET_PART = 0.15;
    /** dB above the background that say no more. */
    private const MOST_ABOVE = 30.0;

    /** Records to each side: a syllable, half a second, a second. */
    private const NEAR = 5;
    private const AROUND = 12;
    private const LONG = 25;
    /** Where else it looks, in records from the moment it is about. */
    private const STEPS = [-8, -4, -2, 2, 4, 8];
    private const VOICED_STEPS = [-4, -2, 2];
    /** Where it looks at the pairs of bands: how a syllable moves through them is what music around it does not do. */
    private const PAIR_STEPS = [-6, -4, -3, -2, -1, 0, 1, 2, 3, 4, 6];
    /** Cycles per second of the modulations looked at, in records of 40 ms. */
    private const RHYTHM = [1.0, 2.0, 3.0, 4.5, 6.0, 8.0, 10.5];

    /** @var list<array{list<float>, list<float>, float, float}> cosines and sines over a window, by modulation, and their sums */
    private array $waves = [];

    public function __construct()
    {
        foreach (self::RHYTHM as $hz) {
            $cos = $sin = [];
            for ($i = -self::AROUND; $i <= self::AROUND; ++$i) {
                $shape = 0.5 + 0.5 * cos(\M_PI * $i / (self::AROUND + 1));
                $cos[] = $shape * cos(2.0 * \M_PI * $hz * $i / BandMeter::PER_SECOND);
                $sin[] = $shape * sin(2.0 * \M_PI * $hz * $i / BandMeter::PER_SECOND);
            }
            $this->waves[] = [$cos, $sin, array_sum($cos), array_sum($sin)];
        }
    }

    /**
     * @param string $records as {@see BandMeter} writes them
     * @param int $from first of those asked for
     * @param int $to last + 1
     *
     * @return list<list<float>> {@see COUNT} numbers for each, about −3 … 3
     */
    public function of(string $records, int $from, int $to): array
    {
        $count = intdiv(\strlen($records), BandMeter::RECORD);
        // Backgrounds go by whole seconds from the first record.
        $first = intdiv(max(0, $from - self::CONTEXT), BandMeter::PER_SECOND) * BandMeter::PER_SECOND;
        $last = min($count, $to + self::CONTEXT);
        if ($last <= $first) {
            return [];
        }
        /** @var array<int, int> $bytes */
        $bytes = unpack('C*', $some = substr($records, $first * BandMeter::RECORD, ($last - $first) * BandMeter::RECORD));
        [$levels, $voiced] = self::levels($bytes, $last - $first);
        [$above, $pairs] = self::above($levels, self::backgrounds($some, $last - $first));
        $level = array_map(static fn (array $row): float => array_sum(\array_slice($row, 3, 12)) / 12, $levels);
        $together = array_map(static fn (array $row): float => array_sum($row) / self::REGIONS, $above);
        $columns = self::columns($levels, $voiced, $level, $above, $together);
        $features = [];
        $end = $last - $first - 1;
        for ($i = $from - $first; $i < $to - $first; ++$i) {
            $row = [];
            foreach ($above[$i] as $db) {
                $row[] = $db / 10.0;
            }
            foreach ($columns as [$column, $unit]) {
                $row[] = $column[$i] / $unit;
            }
            $row = $this->withRhythm($row, $level, $i);
            foreach (self::STEPS as $step) {
                $row[] = $together[max(0, min($end, $i + $step))] / 10.0;
            }
            foreach (self::VOICED_STEPS as $step) {
                $row[] = $voiced[max(0, min($end, $i + $step))];
            }
            foreach (self::PAIR_STEPS as $step) {
                $k = $i + $step;
                array_push($row, ...$pairs[$k < 0 ? 0 : ($k > $end ? $end : $k)]);
            }
            $features[] = $row;
        }

        return $features;
    }

    /**
     * What is the same for a whole row of records.
     *
     * @param list<list<float>> $levels dB by band
     * @param list<float> $voiced
     * @param list<float> $level dB of all bands
     * @param list<list<float>> $above dB above the background, by region
     * @param list<float> $together the same over all regions
     *
     * @return list<array{list<float>, float}> a number for each record, and what it is divided by
     */
    private static function columns(array $levels, array $voiced, array $level, array $above, array $together): array
    {
        $regions = self::regions($levels);
        $tilt = array_map(static fn (array $row): float => ($row[0] + $row[1] + $row[2] - $row[3] - $row[4] - $row[5]) / 3.0, $regions);
        $flux = self::flux($levels);
        $columns = [];
        for ($region = 0; $region < self::REGIONS; ++$region) {
            $columns[] = [Along::spreads(array_column($regions, $region), self::AROUND), 6.0];
        }
        array_push($columns,
            [$voiced, 1.0],
            [Along::means($voiced, self::NEAR), 1.0],
            [Along::spreads($voiced, self::AROUND), 0.25],
            [Along::highest($voiced, self::AROUND), 1.0],
            [$tilt, 20.0],
            [Along::spreads($tilt, self::AROUND), 6.0],
            [Along::means($flux, self::NEAR), 4.0],
            [Along::means($flux, self::LONG), 4.0],
            [Along::differences($level, Along::highest($level, 2 * self::LONG)), 15.0],
            [Along::differences($level, Along::means($level, 2 * self::LONG)), 10.0],
            [Along::sums(array_map(static fn (float $db): float => $db < 3.0 ? 1.0 : 0.0, $together), self::LONG), (2 * self::LONG + 1) / 2.0],
            [array_map(static fn (array $row): float => max([0.0, ...$row]), $above), 10.0],
        );

        return $columns;
    }

    /**
     * @param array<int, int> $bytes
     *
     * @return array{list<list<float>>, list<float>} dB by band, and how harmonic, by record
     */
    private static function levels(array $bytes, int $count): array
    {
        $levels = $voiced = [];
        $at = 1;
        for ($i = 0; $i < $count; ++$i) {
            $row = [];
            for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
                $level = BandLevel::LOWEST + BandLevel::STEP * $bytes[$at++];
                $row[] = $level < self::FLOOR ? self::FLOOR : $level;
            }
            $levels[] = $row;
            $voiced[] = $bytes[$at++] / 255.0;
        }

        return [$levels, $voiced];
    }

    /**
     * What each band stays below for a part of the five seconds around: found by counting, for sorting all of them would take longer than anything else here.
     *
     * @return list<list<float>> dB by band, for every second
     */
    private static function backgrounds(string $records, int $count): array
    {
        $bands = array_fill(0, ThirdOctaves::COUNT, '');
        for ($i = $at = 0; $i < $count; ++$i, ++$at) {
            for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
                $bands[$band] .= $records[$at++];
            }
        }
        $backgrounds = [];
        for ($second = 0; $second * BandMeter::PER_SECOND < $count; ++$second) {
            $background = [];
            foreach ($bands as $column) {
                $around = substr($column, max(0, ($second - 2) * BandMeter::PER_SECOND), 5 * BandMeter::PER_SECOND);
                $left = (int) (self::QUIET_PART * (\strlen($around) - 1));
                $quiet = 0;
                foreach (count_chars($around, 1) as $quiet => $times) {
                    if (($left -= $times) < 0) {
                        break;
                    }
                }
                $background[] = self::level($quiet);
            }
            $backgrounds[] = $background;
        }

        return $backgrounds;
    }

    private static function level(int $byte): float
    {
        return max(self::FLOOR, BandLevel::LOWEST + BandLevel::STEP * $byte);
    }

    /**
     * @param list<list<float>> $levels
     * @param list<list<float>> $backgrounds by second
     *
     * @return array{list<list<float>>, list<list<float>>} how far each record is above the background: dB by region, and tens of dB by pair
     */
    private static function above(array $levels, array $backgrounds): array
    {
        $regions = $pairs = [];
        foreach ($levels as $i => $row) {
            $background = $backgrounds[intdiv($i, BandMeter::PER_SECOND)];
            $over = [];
            foreach ($row as $band => $level) {
                $by = $level - $background[$band];
                $over[] = $by < 0.0 ? 0.0 : ($by > self::MOST_ABOVE ? self::MOST_ABOVE : $by);
            }
            $means = [];
            for ($region = $band = 0; $region < self::REGIONS; ++$region, $band += self::BANDS) {
                $means[] = ($over[$band] + $over[$band + 1] + $over[$band + 2]) / self::BANDS;
            }
            $regions[] = $means;
            $means = [];
            for ($pair = $band = 0; $pair < self::PAIRS; ++$pair, $band += 2) {
                $means[] = ($over[$band] + $over[$band + 1]) / 20.0;
            }
            $pairs[] = $means;
        }

        return [$regions, $pairs];
    }

    /**
     * @param list<list<float>> $levels
     *
     * @return list<list<float>> dB, averaged by region
     */
    private static function regions(array $levels): array
    {
        return array_map(static function (array $row): array {
            $means = [];
            for ($region = 0; $region < self::REGIONS; ++$region) {
                $means[] = ($row[3 * $region] + $row[3 * $region + 1] + $row[3 * $region + 2]) / self::BANDS;
            }

            return $means;
        }, $levels);
    }

    /**
     * @param list<list<float>> $levels
     *
     * @return list<float> dB that the bands move from the record before, on average
     */
    private static function flux(array $levels): array
    {
        $flux = [];
        $before = $levels[0] ?? [];
        foreach ($levels as $row) {
            $sum = 0.0;
            foreach ($row as $band => $level) {
                $sum += abs($level - $before[$band]);
            }
            $flux[] = $sum / ThirdOctaves::COUNT;
            $before = $row;
        }

        return $flux;
    }

    /**
     * How much the level moves at each rhythm.
     *
     * @param list<float> $row
     * @param list<float> $levels
     *
     * @return list<float> the row with it
     */
    private function withRhythm(array $row, array $levels, int $i): array
    {
        $last = \count($levels) - 1;
        $window = [];
        $sum = 0.0;
        for ($k = $i - self::AROUND; $k <= $i + self::AROUND; ++$k) {
            $window[] = $level = $levels[$k < 0 ? 0 : ($k > $last ? $last : $k)];
            $sum += $level;
        }
        $mean = $sum / \count($window);
        foreach ($this->waves as [$cos, $sin, $ones, $others]) {
            $re = -$mean * $ones;
            $im = -$mean * $others;
            foreach ($window as $k => $level) {
                $re += $level * $cos[$k];
                $im += $level * $sin[$k];
            }
            $row[] = sqrt($re * $re + $im * $im) / 40.0;
        }

        return $row;
    }
}
