<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use RuntimeException;
use Symfony\Component\Process\Process;
use Wattage\Core\Time\FrameRate;

/** Takes pictures over, or lays them one after another, by ffmpeg. */
final readonly class FilmCoder
{
    private const COPIED = ['h264', 'hevc', 'av1', 'mpeg4', 'vp9'];
    private const PROBE_SECONDS = 30;
    private const H264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '18'];
    private const VP9 = ['-c:v', 'libvpx-vp9', '-crf', '24', '-b:v', '0', '-deadline', 'good', '-cpu-used', '5', '-row-mt', '1'];

    public function __construct(private Coder $coder, private string $ffprobe)
    {
    }

    /** @throws Refused */
    public function look(string $file): FilmFacts
    {
        $process = new Process([...Ffmpeg::LIMITS, $this->ffprobe, '-v', 'error', ...Ffmpeg::input($file), '-show_streams', '-of', 'json'], timeout: self::PROBE_SECONDS);
        $process->run();
        /** @var array{streams?: list<array{codec_type?: string, codec_name?: string, width?: int, height?: int, avg_frame_rate?: string, start_time?: string, disposition?: array<string, int>}>}|null $found */
        $found = json_decode($process->getOutput(), true);
        $picture = $sound = null;
        foreach ($found['streams'] ?? [] as $stream) {
            $type = $stream['codec_type'] ?? '';
            'video' === $type && 1 !== ($stream['disposition']['attached_pic'] ?? 0) && $picture ??= $stream;
            'audio' === $type && $sound ??= $stream;
        }
        null !== $picture || throw Refused::noPicture(basename($file));
        [$frames, $seconds] = array_map(floatval(...), explode('/', ($picture['avg_frame_rate'] ?? '25/1').'/1'));
        $even = static fn (int $pixels): int => max(2, $pixels - $pixels % 2);

        return new FilmFacts(
            $even($picture['width'] ?? 2),
            $even($picture['height'] ?? 2),
            $frames > 0.0 && $seconds > 0.0 ? $frames / $seconds : 25.0,
            (float) ($sound['start_time'] ?? 0.0) - (float) ($picture['start_time'] ?? 0.0),
            \in_array($picture['codec_name'] ?? '', self::COPIED, true),
        );
    }

    /** @param Closure(): mixed $tick called now and then */
    public function copy(string $file, float $seconds, string $to, Closure $tick): void
    {
        $this->coder->run($tick, ...Ffmpeg::input($file), ...['-map', '0:v:0', '-an', '-c', 'copy', '-t', \sprintf('%.6f', $seconds), '-f', 'mp4', '-y', $to]);
    }

    /**
     * @param list<array{?string, float, float}> $parts file, where in it it begins, and how long it is, in seconds; without a file it is black
     * @param FilmFacts $like what gives the size
     * @param bool $open whether it is coded as VP9; else as H.264, which more players know
     * @param Closure(): mixed $tick called now and then
     */
    public function lay(array $parts, FilmFacts $like, FrameRate $rate, bool $open, string $to, Closure $tick): void
    {
        [$frames, $seconds] = $rate->fraction();
        $size = "{$like->width}:{$like->height}";
        $inputs = $filters = $rows = [];
        foreach ($parts as $i => [$file, $from, $length]) {
            $time = \sprintf('%.6f', $length);
            if (null === $file) {
                array_push($inputs, '-f', 'lavfi', '-t', $time, '-i', "color=black:size={$like->width}x{$like->height}:rate={$frames}/{$seconds}");
            } else {
                array_push($inputs, '-ss', \sprintf('%.6f', max(0.0, $from)), '-t', $time, ...Ffmpeg::input($file));
            }
            // What is shorter than it should be stands still, so that all that follows is in its place.
            $filters[] = "[{$i}:v:0]fps={$frames}/{$seconds},scale={$size}:force_original_aspect_ratio=decrease,pad={$size}:-1:-1,setsar=1,format=yuv420p,tpad=stop_mode=clone:stop_duration={$time},trim=duration={$time},setpts=PTS-STARTPTS[v{$i}]";
            $rows[] = "[v{$i}]";
        }
        $filters[] = implode('', $rows).'concat=n='.\count($parts).':v=1:a=0[out]';
        $this->coder->run($tick, ...$inputs, ...['-filter_complex', implode(';', $filters), '-map', '[out]', ...($open ? self::VP9 : self::H264), '-f', 'mp4', '-y', $to]);
        is_file($to) || throw new RuntimeException('No film came of the pictures.');
    }
}
