<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Signal\Output;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;

/**
 * Measures by third-octave bands, as a source's sound streams past: every 40 ms, the lower ten bands from its sums over every eight samples, 43 ms of them, the upper
 * eight from 5 ms in the middle, over every two. That is a sample of the sound and not all of it, which is what makes it cheap; the bands' own width makes up
 * for it, since a wide band says in 5 ms what a narrow one says in 43.
 *
 * Written are the powers of each channel every 100 ms, and for finding speech a record of every 40 ms: the bands of all channels together, and
 * how harmonic it is.
 */
final class BandMeter
{
    /** Records in a second, of two blocks each. */
    public const PER_SECOND = 25;
    /** Frames that one low value stands for. */
    public const LOW_STEP = 8;
    /** Bytes of a record. */
    public const RECORD = ThirdOctaves::COUNT + 1;

    /** In 100 ms are three records or two, in turns. */
    private const BLOCKS_PER_TENTH = 5;
    /** The first band that is looked at in the short window. */
    private const FIRST_HIGH = 10;
    private const LOW_LENGTH = 256;
    private const HIGH_LENGTH = 128;

    private readonly Window $low;
    private readonly Window $high;
    private readonly Harmonicity $harmonicity;
    private readonly int $lowsPerRecord;
    private readonly int $bands;

    /** @var array<int, list<int>> lows by channel, of what is not measured yet */
    private array $lows;
    /** @var list<list<int>> upper windows, by record and channel, of what is not measured yet */
    private array $upper = [];
    /** @var list<list<int>> lower windows, likewise */
    private array $lower = [];
    /** @var list<array{array<int, float>, array<int, float>}> powers by band, and lower spectrum, by channel: of a record that is not complete */
    private array $measured = [];
    /** @var array<int, array<int, float>> sums over the records of this tenth, by channel and band */
    private array $sums;
    private int $inTenth = 0;
    private int $blocks = 0;
    private int $records = 0;

    /**
     * @param int $rate samples per second, a multiple of 400
     * @param int $recordedAt samples per second of the recording itself: bands it cannot hold are silent
     * @param resource $tenths gets one byte for each 100 ms, channel and band: {@see BandLevel}
     * @param resource $out gets {@see RECORD} bytes every 40 ms: the bands of all channels together, likewise, and how harmonic it is, 0 … 255
     */
    public function __construct(private readonly PcmFormat $format, int $rate, int $recordedAt, private readonly mixed $tenths, private readonly mixed $out)
    {
        $lowRate = $rate / self::LOW_STEP;
        $sum = static fn (float $hz): float => sin(\M_PI * $hz * self::LOW_STEP / $rate) / sin(\M_PI * $hz / $rate);
        // Both are sums of sums, so their response is squared.
        $this->low = new Window(self::LOW_LENGTH, $lowRate, 0, self::FIRST_HIGH - 1, static fn (float $hz): float => $sum($hz) ** 2 * $format->fullScale());
        $this->high = new Window(self::HIGH_LENGTH, $rate / 2, self::FIRST_HIGH, ThirdOctaves::COUNT - 1, static fn (float $hz): float => 4.0 * cos(\M_PI * $hz / $rate) ** 2 * $format->fullScale());
        $this->harmonicity = new Harmonicity($lowRate / self::LOW_LENGTH, $this->low->last());
        $this->lowsPerRecord = intdiv($rate, self::PER_SECOND * self::LOW_STEP);
        $this->bands = ThirdOctaves::within($recordedAt);
        $this->lows = array_fill(0, $format->channels, array_fill(0, intdiv(self::LOW_LENGTH - $this->lowsPerRecord, 2), 0));
        $this->sums = array_fill(0, $format->channels, array_fill(0, ThirdOctaves::COUNT, 0.0));
    }

    /** @return array{int, int} bytes that a second takes in the tenths and in the records */
    public static function bytesPerSecond(int $channels): array
    {
        return [intdiv(2 * self::PER_SECOND, self::BLOCKS_PER_TENTH) * $channels * ThirdOctaves::COUNT, self::PER_SECOND * self::RECORD];
    }

    /**
     * @param string $bytes of the block
     * @param list<list<int>> $lows by channel: sums of sums over every {@see LOW_STEP} frames
     *
     * @throws NotWritten
     */
    public function block(string $bytes, array $lows): void
    {
        foreach ($lows as $channel => $row) {
            array_push($this->lows[$channel], ...$row);
        }
        if (0 === $this->blocks++ % 2) {
            $this->takeUpper($bytes);
        }
        while (\count($this->lows[0]) >= self::LOW_LENGTH) {
            $this->takeLower();
        }
        $this->measure();
    }

    /**
     * A last block may be shorter.
     *
     * @throws NotWritten
     */
    public function finish(): void
    {
        while (\count($this->lower) < \count($this->upper)) {
            $this->lows = array_map(static fn (array $row): array => array_pad($row, self::LOW_LENGTH, 0), $this->lows);
            $this->takeLower();
        }
        $this->measure();
        $missing = \count($this->lower) % 2;
        if (1 === $missing) {
            $this->lower[] = $this->lower[0];
            $this->upper[] = $this->upper[0];
            $this->measure(1);
        }
        0 === $this->inTenth || $this->writeTenth();
    }

    private function takeLower(): void
    {
        foreach ($this->lows as $channel => $row) {
            $this->lower[] = \array_slice($row, 0, self::LOW_LENGTH);
            $this->lows[$channel] = \array_slice($row, $this->lowsPerRecord);
        }
    }

    /**
     * Two windows at a time: those of both channels, or of two records where there is one.
     *
     * @param int $wanted of the two
     */
    private function measure(int $wanted = 2): void
    {
        while (\count($this->lower) >= 2 && \count($this->upper) >= 2) {
            $low = $this->low->spectra($this->lower[0], $this->lower[1]);
            $high = $this->high->spectra($this->upper[0], $this->upper[1]);
            $this->lower = \array_slice($this->lower, 2);
            $this->upper = \array_slice($this->upper, 2);
            for ($i = 0; $i < $wanted; ++$i) {
                $this->measured[] = [$this->low->bands($low[$i]) + $this->high->bands($high[$i]), $low[$i]];
                $this->format->channels === \count($this->measured) && $this->record();
            }
        }
    }

    private function record(): void
    {
        [$together, $both] = $this->measured[0];
        foreach ($this->measured as $channel => [$powers, $spectrum]) {
            for ($band = 0; $band < $this->bands; ++$band) {
                $this->sums[$channel][$band] += $powers[$band];
            }
            if ($channel > 0) {
                foreach ($powers as $band => $power) {
                    $together[$band] += $power;
                }
                foreach ($spectrum as $k => $power) {
                    $both[$k] += $power;
                }
            }
        }
        $this->measured = [];
        $bytes = '';
        $part = 1.0 / $this->format->channels;
        for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
            $bytes .= $band < $this->bands ? \chr(BandLevel::byte($part * $together[$band])) : "\0";
        }
        Output::write($this->out, $bytes.\chr((int) round(255.0 * $this->harmonicity->of($both))));
        ++$this->inTenth;
        // The next record begins two blocks further.
        intdiv(2 * ++$this->records, self::BLOCKS_PER_TENTH) > intdiv(2 * ($this->records - 1), self::BLOCKS_PER_TENTH) && $this->writeTenth();
    }

    private function writeTenth(): void
    {
        $bytes = '';
        foreach ($this->sums as $channel => $row) {
            foreach ($row as $sum) {
                $bytes .= \chr(BandLevel::byte($sum / $this->inTenth));
            }
            $this->sums[$channel] = array_fill(0, ThirdOctaves::COUNT, 0.0);
        }
        $this->inTenth = 0;
        Output::write($this->tenths, $bytes);
    }

    /** From the end of the first of two blocks, which is the middle of both. */
    private function takeUpper(string $bytes): void
    {
        $channels = $this->format->channels;
        $size = 2 * self::HIGH_LENGTH * $this->format->bytesPerFrame();
        $samples = PcmDecoder::decode(str_pad(substr($bytes, -$size), $size, "\0"), $this->format);
        for ($channel = 0; $channel < $channels; ++$channel) {
            $before = $samples[$channel];
            $window = [];
            for ($i = $channel, $n = \count($samples), $step = 2 * $channels; $i < $n; $i += $step) {
                $after = $samples[$i + $channels];
                $window[] = $before + 2 * $samples[$i] + $after;
                $before = $after;
            }
            $this->upper[] = $window;
        }
    }
}
