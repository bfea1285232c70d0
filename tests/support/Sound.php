<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use RuntimeException;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Signal\PcmFormat;

/**
 * Signals made by the tests, and files to hand them to other programs.
 *
 * @phpstan-type Stream array{codec_type: string, codec_name: string, sample_rate: string, channels: int, bits_per_sample: int, duration: string, duration_ts: int, width: int, height: int, nb_read_frames: string, disposition: array<string, int>, tags?: array<string, string>}
 * @phpstan-type Probed array{streams: list<Stream>, format: array{duration: string, tags?: array<string, string>}, chapters: list<array{start_time: string, tags: array{title: string}}>}
 */
final class Sound
{
    /** @return list<float> a sine, full scale ±1 */
    public static function sine(float $hz, float $amplitude, int $frames, int $rate = 48_000): array
    {
        $samples = [];
        for ($i = 0; $i < $frames; ++$i) {
            $samples[] = $amplitude * sin(2 * \M_PI * $hz * $i / $rate);
        }

        return $samples;
    }

    /**
     * @param array<int, float> ...$channels
     *
     * @return string 16-bit PCM
     */
    public static function pcm16(array ...$channels): string
    {
        $values = [];
        foreach (array_keys($channels[0]) as $i) {
            foreach ($channels as $channel) {
                $values[] = (int) round($channel[$i] * 32767.0) & 0xFFFF;
            }
        }

        return pack('v*', ...$values);
    }

    public static function noise(int $seed, int $bytes): string
    {
        return $bytes < 1 ? '' : (new \Random\Randomizer(new \Random\Engine\Mt19937($seed)))->getBytes($bytes);
    }

    public static function stream(string $bytes, int $channels, int $bits): PcmStream
    {
        return new PcmStream(self::memory($bytes), PcmFormat::of($channels, $bits));
    }

    /** @return resource */
    public static function memory(string $bytes = ''): mixed
    {
        $stream = fopen('php://temp', 'w+');
        \assert(\is_resource($stream));
        fwrite($stream, $bytes);
        rewind($stream);

        return $stream;
    }

    /** @param resource $stream */
    public static function contents(mixed $stream): string
    {
        rewind($stream);

        return (string) stream_get_contents($stream);
    }

    public static function file(string $bytes, string $ending = ''): string
    {
        $path = tempnam(sys_get_temp_dir(), 'wattage-test-').$ending;
        file_put_contents($path, $bytes);
        register_shutdown_function(static function () use ($path, $ending): void {
            @unlink($path);
            '' === $ending || @unlink(substr($path, 0, -\strlen($ending)));
        });

        return $path;
    }

    /**
     * Runs a program and returns what it writes; a failure fails the test.
     *
     * @param list<string> $command
     */
    public static function run(array $command): string
    {
        $process = proc_open($command, [1 => ['pipe', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes);
        \assert(\is_resource($process));
        $output = (string) stream_get_contents($pipes[1]);
        if (0 !== proc_close($process)) {
            throw new RuntimeException('Failed: '.implode(' ', $command));
        }

        return $output;
    }

    /**
     * What ffprobe reads in a file.
     *
     * @return Probed
     */
    public static function probe(string $file): array
    {
        /** @var Probed $found */
        $found = json_decode(self::run(['ffprobe', '-v', 'error', '-count_frames', '-show_streams', '-show_format', '-show_chapters', '-of', 'json', $file]), true, flags: \JSON_THROW_ON_ERROR);

        return $found;
    }

    /**
     * Largest difference of two lists of floats in dBFS.
     *
     * @param array<int, float> $a
     * @param array<int, float> $b
     */
    public static function residualDbfs(array $a, array $b): float
    {
        $worst = 0.0;
        foreach ($a as $i => $value) {
            $worst = max($worst, abs($value - $b[$i]));
        }

        return $worst > 0.0 ? 20 * log10($worst) : -400.0;
    }

    /**
     * What one of ffmpeg's measuring filters says of a file, moment by moment.
     *
     * @param list<string> $tags of a frame
     *
     * @return list<array<string, float>> of the frames that have the first
     */
    public static function metadata(string $file, string $filter, array $tags): array
    {
        /** @var array{frames: list<array{tags?: array<string, string>}>} $found */
        $found = json_decode(self::run(['ffprobe', '-v', 'error', '-f', 'lavfi', '-i', "amovie={$file},{$filter}", '-show_entries', 'frame_tags='.implode(',', $tags), '-of', 'json']), true, flags: \JSON_THROW_ON_ERROR);
        $said = array_filter(array_map(static fn (array $frame): array => $frame['tags'] ?? [], $found['frames']), static fn (array $of): bool => isset($of[$tags[0]]));

        return array_map(static fn (array $of): array => array_map(floatval(...), $of), array_values($said));
    }

    /**
     * @param string $as whole numbers of one kind, as unpack() names them
     *
     * @return list<int>
     */
    public static function integers(string $as, string $bytes, int $offset = 0): array
    {
        /** @var array<int, int> $values */
        $values = unpack($as, $bytes, $offset);

        return array_values($values);
    }

    /** @return list<float> 32-bit floats, as programs write them */
    public static function floats(string $bytes): array
    {
        /** @var array<int, float> $values */
        $values = unpack('g*', $bytes);

        return array_values($values);
    }
}
