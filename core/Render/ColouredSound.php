<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Cascade;
use Wattage\Core\Signal\PcmDecoder;

/**
 * The sound of a clip's source through the clip's filters. They hear what comes before the clip in its source, too, so that a clip which is split sounds on as
 * one, and one that begins in the middle of a word does not begin with a thump.
 */
final class ColouredSound
{
    /** Frames that the filters hear before the first that is wanted: 0.5 s at 48 kHz; what is left of a 20 Hz cut by then is below −200 dB. */
    public const RUN_UP = 24_000;

    private readonly Cascade $cascade;
    private int $at = -1;
    /** @var array<int, float> */
    private array $last = [];
    private int $lastFrom = -1;

    /** @param non-empty-list<Biquad> $biquads */
    public function __construct(private readonly PcmSource $source, array $biquads)
    {
        $this->cascade = new Cascade($biquads);
    }

    /** @return array<int, float> interleaved as in the source, full scale ±1.0; what was asked for last is still there */
    public function samples(int $from, int $frames): array
    {
        if ($from === $this->lastFrom && \count($this->last) === $frames * $this->source->format()->channels) {
            return $this->last;
        }
        if ($from !== $this->at) {
            $this->cascade->forget();
            $begin = max(0, $from - self::RUN_UP);
            $from > $begin && $this->through($begin, $from - $begin);
        }
        $this->lastFrom = $from;
        $this->at = $from + $frames;

        return $this->last = $this->through($from, $frames);
    }

    /** @return array<int, float> */
    private function through(int $from, int $frames): array
    {
        $format = $this->source->format();
        $bytes = $this->source->read($from, $frames);
        if (!$this->cascade->rings() && '' === ltrim($bytes, "\0")) {
            return array_fill(0, $frames * $format->channels, 0.0);
        }
        $samples = PcmDecoder::decode($bytes, $format);
        $scale = 1.0 / $format->fullScale();

        return 1 === $format->channels ? $this->cascade->mono($samples, $scale) : $this->cascade->stereo($samples, $scale);
    }
}
