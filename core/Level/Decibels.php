<?php

declare(strict_types=1);

namespace Wattage\Core\Level;

/**
 * A gain in dB. 0 dB leaves the sound unchanged; silence is −∞ dB and stays silence whatever is added to it.
 */
final readonly class Decibels
{
    /** Highest clip gain and keyframe level. */
    public const MAX_CLIP = 24.0;

    /** Highest fader position. */
    public const MAX_FADER = 12.0;

    private function __construct(public float $db)
    {
    }

    /** @param float $db any finite number, or −INF for silence */
    public static function of(float $db): self
    {
        return $db < \INF ? new self($db) : throw InvalidLevel::notALevel();
    }

    public static function silence(): self
    {
        return new self(-\INF);
    }

    public static function unchanged(): self
    {
        return new self(0.0);
    }

    /** @param float $ratio amplitude ratio, 1.0 = unchanged, 0.0 = silence */
    public static function fromRatio(float $ratio): self
    {
        return $ratio > 0.0 ? self::of(20.0 * log10($ratio)) : self::silence();
    }

    public function isSilence(): bool
    {
        return -\INF === $this->db;
    }

    /** Amplitude ratio, 10^(dB/20); definition of the decibel for amplitudes. */
    public function ratio(): float
    {
        return 10.0 ** ($this->db / 20.0);
    }

    public function plus(self $gain): self
    {
        return new self($this->db + $gain->db);
    }

    public function equals(self $other): bool
    {
        return $this->db === $other->db;
    }

    /** @throws InvalidLevel when above $limit */
    public function atMost(float $limit): self
    {
        return $this->db <= $limit ? $this : throw InvalidLevel::tooHigh($this, new self($limit));
    }

    /** For labels and messages: "−6.0 dB", "+1.5 dB", "silence". */
    public function format(): string
    {
        return match (true) {
            $this->isSilence() => 'silence',
            abs($this->db) < 0.05 => '0.0 dB',
            default => \sprintf('%s%.1f dB', $this->db < 0 ? '−' : '+', abs($this->db)),
        };
    }
}
