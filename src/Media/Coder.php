<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use RuntimeException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\FileOrder;

/** Makes files of ours into others, by ffmpeg on the same short lead as everything: another rate, or another format. */
final readonly class Coder
{
    private const SILENT_SECONDS = 120;
    private const ONLY_FILES = ['-protocol_whitelist', 'file'];

    public function __construct(private string $ffmpeg)
    {
    }

    /**
     * Interleaved 32-bit floats at another rate, or mono: both channels at half.
     *
     * @param Closure(): mixed $tick called now and then
     */
    public function convert(string $from, int $rate, string $to, int $toRate, int $toChannels, Closure $tick): void
    {
        $filters = [...(1 === $toChannels ? ['pan=mono|c0=0.5*c0+0.5*c1'] : []), ...($toRate === $rate ? [] : ["aresample={$toRate}:resampler=soxr:precision=28"])];
        $this->run($tick, ...[...self::ONLY_FILES, '-f', 'f32le', '-ar', (string) $rate, '-ac', '2', '-i', "file:{$from}", '-af', implode(',', $filters), '-f', 'f32le', '-y', $to]);
    }

    /**
     * @param string $wav what is to be coded
     * @param string $about tags and chapters, as ffmpeg writes them to a text file
     * @param ?string $picture a file of the picture, for a film
     * @param ?string $captions a WebVTT file, for a film that has some
     * @param ?string $cover a JPEG file, where the format can carry one
     * @param Closure(): mixed $tick called now and then
     */
    public function encode(string $wav, string $about, FileOrder $order, string $to, Closure $tick, ?string $picture = null, ?string $captions = null, ?string $cover = null): void
    {
        $coded = match ($order->format) {
            FileFormat::Flac, FileFormat::Matroska => ['-c:a', 'flac', ...(24 === $order->bits ? ['-sample_fmt', 's32', '-bits_per_raw_sample', '24'] : ['-sample_fmt', 's16']), '-f', FileFormat::Flac === $order->format ? 'flac' : 'matroska'],
            FileFormat::Mp3 => ['-c:a', 'libmp3lame', '-b:a', "{$order->kbps}k", '-id3v2_version', '3', '-f', 'mp3'],
            FileFormat::Aac, FileFormat::Film => ['-c:a', 'aac', '-b:a', "{$order->kbps}k", '-movflags', '+faststart', '-f', 'mp4'],
            FileFormat::Opus => ['-c:a', 'libopus', '-b:a', "{$order->kbps}k", '-f', 'ogg'],
            FileFormat::Wav, FileFormat::Archive => throw new RuntimeException('This file is written, not coded.'),
        };
        $inputs = [...self::ONLY_FILES, '-f', 'wav', '-i', "file:{$wav}", ...self::ONLY_FILES, '-f', 'ffmetadata', '-i', "file:{$about}"];
        $maps = [...(null === $picture ? [] : ['-map', '2:v:0', '-c:v', 'copy']), '-map', '0:a:0', '-map_metadata', '1', '-map_chapters', '1'];
        null === $picture || array_push($inputs, ...self::ONLY_FILES, ...['-f', 'mov', '-i', "file:{$picture}"]);
        if (null !== $captions) {
            array_push($inputs, ...self::ONLY_FILES, ...['-f', 'webvtt', '-i', "file:{$captions}"]);
            array_push($maps, '-map', (null === $picture ? 2 : 3).':s:0', '-c:s', FileFormat::Matroska === $order->format ? 'srt' : 'mov_text');
        }
        if (null !== $cover && $order->format->hasCover()) {
            array_push($inputs, ...self::ONLY_FILES, ...['-f', 'jpeg_pipe', '-i', "file:{$cover}"]);
            array_push($maps, '-map', '2:v:0', '-c:v', 'copy', '-disposition:v:0', 'attached_pic', '-metadata:s:v:0', 'title=Cover', '-metadata:s:v:0', 'comment=Cover (front)');
        }
        $this->run($tick, ...$inputs, ...$maps, ...$coded, ...['-y', $to]);
    }

    /**
     * Any work of ffmpeg that ends in a file.
     *
     * @param Closure(): mixed $tick called now and then
     *
     * @throws NoRoom
     */
    public function run(Closure $tick, string ...$arguments): void
    {
        $process = new Process([...Ffmpeg::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', '-progress', 'pipe:1', ...$arguments], timeout: null);
        $process->setIdleTimeout(self::SILENT_SECONDS);
        try {
            $process->start();
            foreach ($process->getIterator(Process::ITER_SKIP_ERR) as $_) {
                $tick();
            }
            $process->wait();
        } catch (ProcessTimedOutException) {
            throw new RuntimeException('Coding a file came to a halt.');
        } finally {
            $process->stop(0);
        }
        if (!$process->isSuccessful() && str_contains($process->getErrorOutput(), 'No space left on device')) {
            throw NoRoom::full('the file', 'work disk of this server');
        }
        $process->isSuccessful() || throw new RuntimeException('Coding a file failed: '.mb_substr(trim($process->getErrorOutput()), 0, 300));
    }
}
