<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** The parts of a WAV file, RIFF or RF64, other than its sound: what each begins with, as far as it was asked for. */
final readonly class WavChunks
{
    private const MAX_CHUNKS = 64;

    /**
     * @param array<string, string> $bodies by id: the first of a kind, as much of it as was asked for
     * @param ?int $soundBytes what the header promises; null for one that was written without knowing it
     * @param ?int $soundAt byte that the samples begin at
     */
    private function __construct(private array $bodies, public ?int $soundBytes, public ?int $soundAt)
    {
    }

    /**
     * @param array<string, int> $wanted bytes at most, by the id of the chunk; of a list "LIST" and its kind
     *
     * @return ?self null when it is no WAV file
     */
    public static function of(string $file, array $wanted): ?self
    {
        $stream = fopen($file, 'r');
        if (false === $stream) {
            return null;
        }
        try {
            $riff = (string) fread($stream, 12);

            return 12 === \strlen($riff) && \in_array(substr($riff, 0, 4), ['RIFF', 'RF64'], true) && 'WAVE' === substr($riff, 8) ? self::read($stream, ['ds64' => 16, ...$wanted]) : null;
        } finally {
            fclose($stream);
        }
    }

    public function body(string $id): string
    {
        return $this->bodies[$id] ?? '';
    }

    /** A whole number of four bytes, the least first; 0 where there are fewer. */
    public static function number(string $bytes, int $at): int
    {
        /** @var array{1: int}|false $found */
        $found = \strlen($bytes) >= $at + 4 ? unpack('V', $bytes, $at) : false;

        return false === $found ? 0 : $found[1];
    }

    /**
     * @param resource $stream after the RIFF header
     * @param array<string, int> $wanted
     */
    private static function read(mixed $stream, array $wanted): self
    {
        $bodies = [];
        $sound = $at = null;
        for ($n = 0; $n < self::MAX_CHUNKS && 8 === \strlen($head = (string) fread($stream, 8)); ++$n) {
            $id = substr($head, 0, 4);
            $size = self::number($head, 4);
            if ('data' === $id) {
                $long = $bodies['ds64'] ?? '';
                $size = 0xFFFFFFFF === $size ? (16 === \strlen($long) ? self::number($long, 8) + (self::number($long, 12) << 32) : 0) : $size;
                $sound = $size > 0 ? $size : null;
                $at = ftell($stream) ?: null;
                if (null === $sound || [] === array_diff_key($wanted, ['ds64' => 0, 'fmt ' => 0], $bodies)) {
                    break;
                }
            }
            $kind = 'LIST' === $id ? (string) fread($stream, 4) : '';
            $most = $wanted[$id.$kind] ?? 0;
            $body = $most > 0 && $size > \strlen($kind) ? (string) fread($stream, max(1, min($size - \strlen($kind), $most))) : '';
            $most > 0 && $bodies[$id.$kind] ??= $body;
            if (0 !== fseek($stream, $size - \strlen($kind) - \strlen($body) + ($size & 1), \SEEK_CUR)) {
                break;
            }
        }

        return new self($bodies, $sound, $at);
    }
}
