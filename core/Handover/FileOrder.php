<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Timeline\Aim;

/** What one file that is handed over is to be. */
final readonly class FileOrder
{
    /**
     * @param int $bits per sample; 0 where the format has none
     * @param int $kbps kilobits per second; 0 where the format is lossless
     * @param int $rate samples per second
     * @param int $channels 1 or 2
     * @param ?Target $target null for what the project is to reach
     * @param bool $asProgramme whether a part gets the gain and the guard of the whole programme, so that parts add up to it; else it is
     *                          brought to the target by itself
     *
     * @throws InvalidOrder
     */
    public function __construct(
        public FileFormat $format,
        public int $bits,
        public int $kbps,
        public int $rate,
        public int $channels,
        public Excerpt $excerpt,
        public ?Target $target,
        public bool $asProgramme,
    ) {
        [$least, , $most] = $format->kbps();
        [] === $format->bits() || \in_array($bits, $format->bits(), true) || throw InvalidOrder::bits($format);
        0 === $most || ($kbps >= $least && $kbps <= $most) || throw InvalidOrder::kbps($format);
        \in_array($rate, $format->rates(), true) || throw InvalidOrder::rate($format);
        1 === $channels || 2 === $channels || throw InvalidOrder::channels();
    }

    /** The whole programme, as it is, as a WAV file at the rate of the mix. */
    public static function plain(SampleFormat $format): self
    {
        return new self(FileFormat::Wav, $format->bits(), 0, 48_000, 2, Excerpt::programme(), Target::none(), false);
    }

    /** What its samples are written as, before any coder. */
    public function samples(): SampleFormat
    {
        return match ($this->bits) {
            16 => SampleFormat::Pcm16,
            24 => SampleFormat::Pcm24,
            default => SampleFormat::Float32,
        };
    }

    public function target(Aim $aim): Target
    {
        return $this->target ?? Target::ofAim($aim);
    }

    /** Bytes of a file of so many frames, about. */
    public function bytesFor(int $frames): int
    {
        return $this->format->isLossless()
            ? $frames * $this->channels * intdiv($this->bits, 8)
            : (int) ($frames / $this->rate * $this->kbps * 125);
    }
}
