<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/** The kinds of files with sound that can be handed over; a film is MP4 or Matroska with the picture of the timeline, an archive the whole project. */
enum FileFormat: string
{
    case Wav = 'wav';
    case Flac = 'flac';
    case Mp3 = 'mp3';
    case Aac = 'aac';
    case Opus = 'opus';
    case Film = 'film';
    case Matroska = 'matroska';
    case Archive = 'archive';

    public function ending(): string
    {
        return match ($this) {
            self::Aac => 'm4a',
            self::Film => 'mp4',
            self::Matroska => 'mkv',
            self::Archive => 'zip',
            default => $this->value,
        };
    }

    public function mediaType(): string
    {
        return match ($this) {
            self::Wav => 'audio/wav',
            self::Flac => 'audio/flac',
            self::Mp3 => 'audio/mpeg',
            self::Aac => 'audio/mp4',
            self::Opus => 'audio/ogg',
            self::Film => 'video/mp4',
            self::Matroska => 'video/x-matroska',
            self::Archive => 'application/zip',
        };
    }

    /** Whether it gives back what was put in, sample by sample. */
    public function isLossless(): bool
    {
        return self::Wav === $this || self::Flac === $this || self::Matroska === $this;
    }

    public function hasPicture(): bool
    {
        return self::Film === $this || self::Matroska === $this;
    }

    /** Whether it carries a cover picture. */
    public function hasCover(): bool
    {
        return self::Mp3 === $this || self::Aac === $this || self::Flac === $this;
    }

    /** @return list<int> bits per sample that it can have; 32 are floats */
    public function bits(): array
    {
        return match ($this) {
            self::Wav => [16, 24, 32],
            self::Flac, self::Matroska => [16, 24],
            default => [],
        };
    }

    /** @return list<int> samples per second that it can have */
    public function rates(): array
    {
        return match ($this) {
            self::Opus, self::Film, self::Matroska, self::Archive => [48_000],
            self::Mp3 => [44_100, 48_000],
            default => [44_100, 48_000, 96_000],
        };
    }

    /** @return array{int, int, int} kilobits per second for a stereo sound: least, usual, most; 0 where it is lossless */
    public function kbps(): array
    {
        return match ($this) {
            self::Mp3 => [64, 192, 320],
            self::Aac, self::Film => [64, 192, 320],
            self::Opus => [48, 128, 256],
            default => [0, 0, 0],
        };
    }
}
