<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\MeasuredPart;
use Wattage\Core\Loudness\PartMeter;
use Wattage\Core\Signal\SampleLayout;

/** Measures the loudness of a file: a long one in two processes, which is the same but quicker. */
final readonly class FileLoudness
{
    /** Bytes measured at once. */
    private const PIECE = 1 << 18;

    /** A shorter file is not worth a second process. */
    private const LONG_SECONDS = 30.0;

    public function __construct(private Ffmpeg $ffmpeg)
    {
    }

    /** @throws Refused */
    public function of(string $file, string $name, AudioFacts $facts): Loudness
    {
        $layout = 16 === $facts->bits ? SampleLayout::int16($facts->channels) : SampleLayout::float32($facts->channels);
        $seconds = $facts->claimedSeconds ?? 0.0;
        if ($seconds >= self::LONG_SECONDS && PartMeter::suits($facts->rate)) {
            $parts = $this->inTwo($file, $name, $facts, $layout, intdiv((int) $seconds, 2) * $facts->rate);
            if (null !== $parts) {
                return LoudnessMeter::joined($parts, $facts->channels);
            }
        }
        $meter = new LoudnessMeter($layout, $facts->rate);
        $this->feed($this->ffmpeg->samples($file, $name, $facts), $meter->push(...));

        return $meter->finish();
    }

    /**
     * @param int $seam samples
     *
     * @return ?non-empty-list<MeasuredPart> null where the second process came to nothing
     *
     * @throws Refused
     */
    private function inTwo(string $file, string $name, AudioFacts $facts, SampleLayout $layout, int $seam): ?array
    {
        $beside = Beside::begin(function () use ($file, $name, $facts, $layout, $seam): string {
            $meter = new PartMeter($layout, $facts->rate, true);
            $this->feed($this->ffmpeg->samples($file, $name, $facts, $seam - PartMeter::RUN_UP_SECONDS * $facts->rate), $meter->push(...));

            return $meter->lastPart()->toBytes();
        });
        if (null === $beside) {
            return null;
        }
        try {
            $meter = new PartMeter($layout, $facts->rate, false);
            $this->feed($this->ffmpeg->samples($file, $name, $facts, 0, $seam), $meter->push(...));
            $second = MeasuredPart::fromBytes($beside->result() ?? '');
        } finally {
            $beside->end();
        }

        return null === $second ? null : [$meter->part(), $second];
    }

    /**
     * @param iterable<string> $pieces
     * @param callable(string): void $push
     */
    private function feed(iterable $pieces, callable $push): void
    {
        $waiting = '';
        foreach ($pieces as $piece) {
            $waiting .= $piece;
            if (\strlen($waiting) >= self::PIECE) {
                $push($waiting);
                $waiting = '';
            }
        }
        $push($waiting);
    }
}
