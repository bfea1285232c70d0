<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** How much sound the header of a WAV file promises. ffprobe tells how much is there, and so cannot tell a file that was cut off. */
final class WavHeaderReader
{
    private const MAX_CHUNKS = 64;

    /** @return ?float seconds; null when it is no WAV file, or one that was written without knowing its length */
    public static function promisedSeconds(string $file): ?float
    {
        $stream = fopen($file, 'r');
        if (false === $stream) {
            return null;
        }
        try {
            $riff = (string) fread($stream, 12);

            return 12 === \strlen($riff) && \in_array(substr($riff, 0, 4), ['RIFF', 'RF64'], true) && 'WAVE' === substr($riff, 8) ? self::fromChunks($stream) : null;
        } finally {
            fclose($stream);
        }
    }

    /** @param resource $stream after the RIFF header */
    private static function fromChunks(mixed $stream): ?float
    {
        $bytesPerSecond = 0;
        $longSize = null;
        for ($n = 0; $n < self::MAX_CHUNKS && 8 === \strlen($head = (string) fread($stream, 8)); ++$n) {
            /** @var array{id: string, size: int<0, max>} $chunk */
            $chunk = unpack('a4id/Vsize', $head);
            if ('data' === $chunk['id']) {
                $size = 0xFFFFFFFF === $chunk['size'] ? $longSize : $chunk['size'];

                return null !== $size && 0 !== $size && $bytesPerSecond > 0 ? $size / $bytesPerSecond : null;
            }
            $body = $chunk['size'] > 0 ? (string) fread($stream, min($chunk['size'], 40)) : '';
            if ('fmt ' === $chunk['id'] && \strlen($body) >= 12) {
                /** @var array{1: int} $rate */
                $rate = unpack('V', $body, 8);
                $bytesPerSecond = $rate[1];
            }
            if ('ds64' === $chunk['id'] && \strlen($body) >= 16) {
                /** @var array{1: int} $size */
                $size = unpack('P', $body, 8);
                $longSize = $size[1];
            }
            fseek($stream, $chunk['size'] - \strlen($body) + ($chunk['size'] & 1), \SEEK_CUR);
        }

        return null;
    }
}
