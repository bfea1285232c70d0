<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use League\Flysystem\FilesystemOperator;
use RuntimeException;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Source;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Speech\SpeechLevels;

/** Finished files: the sources as sent and as measured, and deliveries. */
final readonly class MediaStore
{
    public function __construct(private FilesystemOperator $files)
    {
    }

    /** Copies of a project share the media of its sources. */
    public static function pathOf(Source $source, string $part): string
    {
        return "sources/{$source->media}/{$part}";
    }

    /** Stores a local file. */
    public function put(string $path, string $localFile): void
    {
        $stream = fopen($localFile, 'r') ?: throw new RuntimeException('A finished file is gone.');
        try {
            $this->files->writeStream($path, $stream);
        } finally {
            \is_resource($stream) && fclose($stream);
        }
    }

    /** @return resource seekable */
    public function open(string $path): mixed
    {
        $stream = $this->files->readStream($path);
        if (stream_get_meta_data($stream)['seekable']) {
            return $stream;
        }
        $copy = tmpfile() ?: throw new RuntimeException('No room for a temporary file.');
        stream_copy_to_stream($stream, $copy);
        rewind($copy);

        return $copy;
    }

    public function has(string $path): bool
    {
        return $this->files->fileExists($path);
    }

    public function delete(string $path): void
    {
        $this->files->delete($path);
    }

    public function deleteMedia(Uuid $media): void
    {
        $this->files->deleteDirectory("sources/{$media}");
    }

    public function sound(Source $source): PcmStream
    {
        return new PcmStream($this->open(self::pathOf($source, 'pcm')), self::formatOf($source));
    }

    /** How loud a source is, in the blocks it was measured in. */
    public function blocks(Source $source): SourceBlocks
    {
        return SourceBlocks::fromBytes($this->bytes($source, 'blocks'), $source->channels ?? 1);
    }

    /** The same every 100 ms, kept beside the blocks once somebody has asked for it. */
    public function tenths(Source $source): SourceTenths
    {
        return SourceTenths::fromBytes($this->worked($source, 'tenths', fn (): string => SourceTenths::of($this->blocks($source))->toBytes()), $source->channels ?? 1);
    }

    /** All that finding speech in it needs, kept likewise. */
    public function speechLevels(Source $source): SpeechLevels
    {
        return SpeechLevels::fromBytes($this->worked($source, 'speech-levels', fn (): string => SpeechLevels::of($this->blocks($source))->toBytes()));
    }

    public function bytes(Source $source, string $part): string
    {
        return (string) stream_get_contents($this->open(self::pathOf($source, $part)));
    }

    /**
     * What is worked out of a source once. It comes under its name when it is whole, whoever else asks meanwhile.
     *
     * @param Closure(): string $make
     */
    private function worked(Source $source, string $part, Closure $make): string
    {
        $path = self::pathOf($source, $part);
        if (!$this->files->fileExists($path)) {
            $own = "{$path}.".bin2hex(random_bytes(8));
            $this->files->write($own, $make());
            $this->files->move($own, $path);
        }

        return $this->bytes($source, $part);
    }

    public static function formatOf(Source $source): PcmFormat
    {
        return PcmFormat::of($source->channels ?? 0, $source->bits ?? 0);
    }
}
