<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Aim;

/** A mono recording as it is taken in, as far as finding speech in it goes. */
final readonly class Heard
{
    public const RATE = 48_000;

    private function __construct(public SpeechLevels $levels, public SpeechChance $chance, public SourceTenths $tenths, public SourceBands $bands)
    {
    }

    /** @param array<int, float> $samples full scale is 1 */
    public static function in(array $samples): self
    {
        [$blocks, $records, $bands] = [Sound::memory(), Sound::memory(), Sound::memory()];
        $format = PcmFormat::of(1, 16);
        $measurer = new SourceMeasurer($format, self::RATE, $blocks, Sound::memory(), new BandMeter($format, self::RATE, self::RATE, $bands, $records));
        foreach (array_chunk($samples, self::RATE) as $second) {
            $measurer->push(Sound::pcm16($second));
        }
        $measurer->finish();

        $measured = SourceBlocks::fromBytes(Sound::contents($blocks), 1);

        return new self(SpeechLevels::of($measured), SpeechChance::ofRecords([Sound::contents($records)]), SourceTenths::of($measured), SourceBands::fromBytes(Sound::contents($bands), 1));
    }

    /** @return list<Span> */
    public function speech(float $sensitivity = Aim::USUAL_SENSITIVITY): array
    {
        return Activity::in($this->levels, self::RATE, $sensitivity, $this->chance);
    }

    /**
     * How much of some times it takes for speech.
     *
     * @param list<array{0: float, 1: float, 2?: float}> $times seconds
     *
     * @return float 0 … 1
     */
    public function part(array $times): float
    {
        $all = $found = 0;
        foreach ($times as [$from, $to]) {
            $span = Span::of((int) ($from * self::RATE), (int) ($to * self::RATE));
            $all += $span->length();
            foreach ($this->speech() as $one) {
                $found += $one->within($span)?->length() ?? 0;
            }
        }

        return $found / max(1, $all);
    }
}
