<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use RuntimeException;

/** A file that cannot be used, with a sentence that names it, says why and what to do. */
final class Refused extends RuntimeException
{
    public static function empty(string $name): self
    {
        return new self("“{$name}” is empty. Export it again and bring in the new file.");
    }

    public static function notMedia(string $name): self
    {
        return new self("“{$name}” is not an audio or video file that Wattage can read, or it is damaged. Bring in WAV, FLAC, MP3, AAC/M4A, Ogg, MP4, MKV, WebM or MOV.");
    }

    public static function noSound(string $name): self
    {
        return new self("“{$name}” has no sound in it. Bring in a file with an audio track.");
    }

    public static function channels(string $name, int $channels, int $most): self
    {
        return new self(match (true) {
            0 === $channels => "“{$name}” states no channels. Export it again as mono or stereo.",
            Ffmpeg::MAX_CHANNELS === $most => "“{$name}” has {$channels} channels; at most {$most} can be brought in. Export fewer of them.",
            $most > 2 => "“{$name}” has {$channels} channels; at most {$most} can be measured. Fold it down first.",
            default => "“{$name}” has {$channels} channels; Wattage takes mono and stereo. Export it as stereo and bring that in.",
        });
    }

    public static function rate(string $name, int $rate): self
    {
        return new self(\sprintf('“%s” has %d samples a second; Wattage reads 8,000 to 192,000. Export it at 48,000.', $name, $rate));
    }

    public static function tooLong(string $name, float $seconds): self
    {
        return new self(\sprintf('“%s” claims to last %s hours; a source lasts at most %d. Split it, or export it again if the claim is wrong.', $name, number_format($seconds / 3600, 0), Ffmpeg::MAX_HOURS));
    }

    public static function cutOff(string $name, float $claimed, float $found): self
    {
        return new self(\sprintf('“%s” is cut off: it should last %s but only %s of sound are in it. Copy or export it again.', $name, self::clock($claimed), self::clock($found)));
    }

    public static function duplicate(string $name, string $other): self
    {
        return new self($name === $other
            ? "“{$name}” is in this project already. Use the one you have."
            : "“{$name}” is the same file as “{$other}”, which is in this project already. Use that one.");
    }

    public static function tooSlow(string $name): self
    {
        return new self("“{$name}” took too long to read and was given up. Export it as WAV and bring that in.");
    }

    private static function clock(float $seconds): string
    {
        return $seconds < 60 ? \sprintf('%.1f s', $seconds) : \sprintf('%d:%02d:%02d', (int) $seconds / 3600, (int) ($seconds / 60) % 60, (int) $seconds % 60);
    }

    /** @param string $why the rest of the sentence */
    public static function archive(string $name, string $why): self
    {
        return new self("“{$name}” cannot be taken in: {$why}.");
    }

    /** The same of a file in an archive, with the name of that before it. */
    public function within(string $archive): self
    {
        return str_contains($this->getMessage(), "“{$archive}”") ? $this : self::archive($archive, rtrim($this->getMessage(), '.'));
    }

    public static function cover(): self
    {
        return new self('This cannot be used as a cover picture. Choose a JPEG or PNG file, square, of 1400 by 1400 pixels or more.');
    }

    public static function noPicture(string $name): self
    {
        return new self("The picture of “{$name}” cannot be read. Its sound is here all the same.");
    }

    public static function decoderDied(string $name): self
    {
        return new self("“{$name}” could not be read to its end: its decoder broke down on it. Export it again as WAV or FLAC and bring that in.");
    }

    /**
     * @param string $quota what one account may have
     * @param string $left what of it is left
     */
    public static function overQuota(string $name, string $quota, string $left): self
    {
        return new self("“{$name}” does not fit: an account has {$quota}, and {$left}. Remove recordings, deliveries or projects that are not needed, or ask whoever runs this server for more.");
    }

    public static function tooManyRenders(int $most): self
    {
        return new self("{$most} files are being made or wait already, which is the most for one account. Wait until one is done, or cancel one.");
    }
}
