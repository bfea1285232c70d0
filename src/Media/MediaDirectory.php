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

        return self::plain($path, $mix->source($id)->channels, $mix->rate) ?? $this->decoded($path, $file, $mix, $id);
    }

    /** A WAV file of whole numbers, with the channels and the rate that are wanted, is read where it lies. */
    private static function plain(string $path, int $channels, int $rate): ?PcmStream
    {
        $wav = WavChunks::of($path, ['fmt ' => 26]);
        if (null === $wav?->soundBytes || null === $wav->soundAt) {
            return null;
        }
        /** @var array{tag: int, channels: int, rate: int, bytes: int, frame: int, bits: int, kind: int} $about */
        $about = unpack('vtag/vchannels/Vrate/Vbytes/vframe/vbits/x8/vkind', str_pad($wav->body('fmt '), 26, "\0"));
        // Two tags for the same: 1, or the extensible one and then 1.
        $isWhole = 1 === $about['tag'] || (0xFFFE === $about['tag'] && 1 === $about['kind']);
        $fits = \in_array($about['bits'], [16, 24], true) && $channels <= 2 && [$about['channels'], $about['rate'], $about['frame']] === [$channels, $rate, $channels * intdiv($about['bits'], 8)];
        $stream = $isWhole && $fits ? fopen($path, 'r') : false;

        return false === $stream ? null : new PcmStream($stream, PcmFormat::of($channels, $about['bits']), $wav->soundAt, $wav->soundBytes, static fn (): mixed => fopen($path, 'r'));
    }

    /** @throws Refused */
    private function decoded(string $path, string $file, Mix $mix, string $id): PcmStream
    {
        $facts = $this->ffmpeg->probe($path, $file);
        if ($facts->channels !== $mix->source($id)->channels) {
            throw new Refused("“{$file}” has {$facts->channels} channels, but the mix expects {$mix->source($id)->channels}.");
        }
        $stream = tmpfile() ?: throw new RuntimeException('No room for a temporary file.');
        foreach ($this->ffmpeg->decode($path, $file, $facts, $mix->rate) as $piece) {
            Output::write($stream, $piece);
        }

        $place = stream_get_meta_data($stream)['uri'] ?? '';

        return new PcmStream($stream, PcmFormat::of($facts->channels, $facts->bits), again: static fn (): mixed => fopen($place, 'r'));
    }
}
