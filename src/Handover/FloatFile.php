<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Generator;
use RuntimeException;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Core\Signal\FloatDecoder;

/** A work file of interleaved 32-bit floats, gone through in pieces of 100 ms. */
final readonly class FloatFile
{
    /**
     * @param int $rate samples per second, of which 100 ms are a whole number
     */
    public function __construct(public string $path, public int $rate, public int $channels)
    {
    }

    public function frames(): int
    {
        return intdiv((int) filesize($this->path), 4 * $this->channels);
    }

    /** @return Generator<int, array<int, float>> */
    public function pieces(): Generator
    {
        $file = fopen($this->path, 'r') ?: throw new RuntimeException('A work file is gone.');
        $size = 4 * $this->channels * intdiv($this->rate, 10);
        while ('' !== ($bytes = (string) stream_get_contents($file, $size))) {
            yield FloatDecoder::decode($bytes);
        }
        fclose($file);
    }

    /**
     * How loud it is; its peaks are not looked for.
     *
     * @param callable(): mixed $tick called now and then
     */
    public function measured(callable $tick): Loudness
    {
        $meter = new SampleMeter($this->channels, $this->rate, peaks: false);
        foreach ($this->pieces() as $piece) {
            $meter->push($piece);
            $tick();
        }

        return $meter->finish();
    }
}
