<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use RuntimeException;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Signal\PcmFormat;

/** Signals made by the tests, and files to hand them to other programs. */
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
     * @param list<float> ...$channels
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
        return 0 === $bytes ? '' : (new \Random\Randomizer(new \Random\Engine\Mt19937($seed)))->getBytes($bytes);
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

    /** @return list<float> 32-bit floats, as programs write them */
    public static function floats(string $bytes): array
    {
        /** @var array<int, float> $values */
        $values = unpack('g*', $bytes);

        return array_values($values);
    }
}
