<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use RuntimeException;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Signal\Output;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Timeline\Mix;

/** The media of a mix file where they lie in a directory, for commands that need no database. */
final readonly class MediaDirectory
{
    public function __construct(private Ffmpeg $ffmpeg)
    {
    }

    /** @return array<string, string> media file by source id: its “file”, or its name where it has none */
    public static function files(string $json): array
    {
        /** @var array{sources: list<array{id: string, name: string, file?: string}>} $document */
        $document = json_decode($json, true);
        $files = [];
        foreach ($document['sources'] as $source) {
            $files[$source['id']] = basename($source['file'] ?? $source['name']);
        }

        return $files;
    }

    /** @throws Refused */
    public function sound(Mix $mix, string $id, string $directory, string $file): PcmStream
    {
        $path = realpath("{$directory}/{$file}");
        if (false === $path || !is_file($path)) {
            throw new Refused("There is no file “{$file}” in {$directory}. Put it there, or name another directory with --media.");
        }
        $facts = $this->ffmpeg->probe($path, $file);
        if ($facts->channels !== $mix->source($id)->channels) {
            throw new Refused("“{$file}” has {$facts->channels} channels, but the mix expects {$mix->source($id)->channels}.");
        }

        return self::plain($path, $facts, $mix->rate) ?? $this->decoded($path, $file, $facts, $mix->rate);
    }

    /** A WAV file of whole numbers at the rate of the mix is read where it lies. */
    private static function plain(string $path, AudioFacts $facts, int $rate): ?PcmStream
    {
        $wav = WavChunks::of($path, ['fmt ' => 16]);
        $about = unpack('vtag/vchannels/Vrate/Vbytes/vframe/vbits', str_pad($wav?->body('fmt ') ?? '', 16, "\0"));
        $expected = ['tag' => 1, 'channels' => $facts->channels, 'rate' => $rate, 'bytes' => $rate * $facts->channels * intdiv($facts->bits, 8), 'frame' => $facts->channels * intdiv($facts->bits, 8), 'bits' => $facts->bits];
        $stream = null === $wav?->soundBytes || null === $wav->soundAt || $facts->channels > 2 || $about !== $expected ? false : fopen($path, 'r');

        return false === $stream ? null : new PcmStream($stream, PcmFormat::of($facts->channels, $facts->bits), $wav->soundAt, $wav->soundBytes);
    }

    /** @throws Refused */
    private function decoded(string $path, string $file, AudioFacts $facts, int $rate): PcmStream
    {
        $stream = tmpfile() ?: throw new RuntimeException('No room for a temporary file.');
        foreach ($this->ffmpeg->decode($path, $file, $facts, $rate) as $piece) {
            Output::write($stream, $piece);
        }

        return new PcmStream($stream, PcmFormat::of($facts->channels, $facts->bits));
    }
}
