<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Generator;
use Wattage\Core\Bands\BandMeter;

/**
 * How likely it is that somebody speaks in a recording, every 40 ms: one byte for each, as it is kept. A first network goes by the sound around a moment, a second by what
 * the first makes of the second and a half around it.
 */
final readonly class SpeechChance
{
    public const PER_SECOND = BandMeter::PER_SECOND;
    /** The byte that stands for certainty. */
    public const SURE = 255;

    /** Records that are gone through at once: a minute. */
    private const AT_ONCE = 60 * self::PER_SECOND;
    /** Where the second network looks, in records from the moment it is about. */
    private const GUESSES = [-20, -15, -11, -8, -6, -4, -3, -2, -1, 0, 1, 2, 3, 4, 6, 8, 11, 15, 20];
    private const NEAR = [-3, -2, -1, 0, 1, 2, 3];

    private function __construct(public string $bytes)
    {
    }

    public static function fromBytes(string $bytes): self
    {
        return new self($bytes);
    }

    /** @param iterable<string> $pieces records in order, cut anywhere: see {@see BandMeter} */
    public static function ofRecords(iterable $pieces): self
    {
        $features = new SpeechFeatures();
        $first = Network::unpacked(SpeechModel::FIRST, SpeechModel::FIRST_UNITS);
        $second = Network::unpacked(SpeechModel::SECOND, SpeechModel::SECOND_UNITS);
        $reach = -self::GUESSES[0];
        $bytes = '';
        foreach (self::minutes($pieces) as [$records, $from, $to]) {
            $count = intdiv(\strlen($records), BandMeter::RECORD);
            $low = max(0, $from - $reach);
            $rows = $features->of($records, $low, min($count, $to + $reach));
            $guesses = $first->answers($rows);
            $arounds = [];
            for ($i = $from - $low; $i < $to - $low; ++$i) {
                $arounds[] = self::around($i, $guesses, $rows);
            }
            foreach ($second->answers($arounds) as $chance) {
                $bytes .= \chr((int) round(self::SURE * $chance));
            }
        }

        return new self($bytes);
    }

    public function count(): int
    {
        return \strlen($this->bytes);
    }

    /**
     * @param list<float> $guesses
     * @param list<list<float>> $rows features
     *
     * @return list<float>
     */
    public static function around(int $i, array $guesses, array $rows): array
    {
        $last = \count($guesses) - 1;
        $inputs = [];
        foreach (self::GUESSES as $step) {
            $k = $i + $step;
            $inputs[] = 4.0 * ($guesses[$k < 0 ? 0 : ($k > $last ? $last : $k)] - 0.5);
        }
        foreach (self::NEAR as $step) {
            $k = $i + $step;
            $row = $rows[$k < 0 ? 0 : ($k > $last ? $last : $k)];
            $inputs[] = ($row[0] + $row[1] + $row[2] + $row[3] + $row[4] + $row[5]) / 6.0;
            $inputs[] = 2.0 * $row[SpeechFeatures::VOICED] - 1.0;
        }

        return $inputs;
    }

    /**
     * @param iterable<string> $pieces
     *
     * @return Generator<array{string, int, int}> records with those around them, and which of them are meant
     */
    private static function minutes(iterable $pieces): Generator
    {
        $context = SpeechFeatures::CONTEXT + self::PER_SECOND;
        $held = '';
        $before = 0;
        foreach ($pieces as $piece) {
            $held .= $piece;
            while (intdiv(\strlen($held), BandMeter::RECORD) >= $before + self::AT_ONCE + $context) {
                yield [$held, $before, $before + self::AT_ONCE];
                $held = substr($held, ($before + self::AT_ONCE - $context) * BandMeter::RECORD);
                $before = $context;
            }
        }
        yield [$held, $before, intdiv(\strlen($held), BandMeter::RECORD)];
    }
}
