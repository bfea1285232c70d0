<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** How much sound the header of a WAV file promises. ffprobe tells how much is there, and so cannot tell a file that was cut off. */
final class WavHeaderReader
{
    /** @return ?float seconds; null when it is no WAV file, or one that was written without knowing its length */
    public static function promisedSeconds(string $file): ?float
    {
        $chunks = WavChunks::of($file, ['fmt ' => 16]);
        $bytesPerSecond = WavChunks::number($chunks?->body('fmt ') ?? '', 8);

        return null !== $chunks?->soundBytes && $bytesPerSecond > 0 ? $chunks->soundBytes / $bytesPerSecond : null;
    }
}
