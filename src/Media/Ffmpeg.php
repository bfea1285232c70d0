<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Generator;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/**
 * Looks into files from outside and decodes them, with ffprobe and ffmpeg kept on a short lead: no shell, a fixed list of
 * containers, no protocol but the one file, limits on memory and time.
 */
final readonly class Ffmpeg
{
    public const MAX_HOURS = 24;

    private const CONTAINERS = 'wav,w64,aiff,flac,mp3,aac,ogg,mov,matroska';
    private const MAX_MEMORY_BYTES = 2 * 1024 ** 3;
    /** What a program that handles sound is kept within. */
    public const LIMITS = ['prlimit', '--as='.self::MAX_MEMORY_BYTES, '--core=0', '--'];
    private const PROBE_SECONDS = 30;
    private const SILENT_SECONDS = 60;

    /** Containers whose header states the true length. Others estimate it. */
    private const STATES_LENGTH = ['wav', 'w64', 'aiff', 'flac', 'mov', 'matroska'];

    public function __construct(private string $ffmpeg, private string $ffprobe)
    {
    }

    /**
     * @param string $file local path, a name of our own
     * @param string $name what the person calls it
     * @param int $mostChannels what the caller can take
     *
     * @throws Refused
     */
    public function probe(string $file, string $name, int $mostChannels = 2): AudioFacts
    {
        $process = new Process([...self::LIMITS, $this->ffprobe, '-v', 'error', ...self::input($file), '-show_format', '-show_streams', '-of', 'json'], timeout: self::PROBE_SECONDS);
        try {
            $process->run();
        } catch (ProcessTimedOutException) {
            throw Refused::tooSlow($name);
        }
        /** @var array{format?: array{format_name?: string, duration?: string, start_time?: string}, streams?: list<array<string, mixed>>}|null $found */
        $found = json_decode($process->getOutput(), true);
        if (!$process->isSuccessful() || !\is_array($found) || !isset($found['format'])) {
            throw Refused::notMedia($name);
        }
        $picture = [] !== array_filter($found['streams'] ?? [], self::isPicture(...));
        foreach ($found['streams'] ?? [] as $stream) {
            if ('audio' === ($stream['codec_type'] ?? '')) {
                return $this->facts($stream, $found['format'], $name, $mostChannels, WavHeaderReader::promisedSeconds($file), $picture);
            }
        }
        throw Refused::noSound($name);
    }

    /**
     * The sound as interleaved PCM at the mix rate.
     *
     * @return Generator<string> pieces of any size
     *
     * @throws Refused
     */
    public function decode(string $file, string $name, AudioFacts $facts, int $rate, Complaints $complaints = new Complaints()): Generator
    {
        return $this->pcm($file, $name, $complaints, '-af', "aresample={$rate}:resampler=soxr:precision=28", '-ac', (string) $facts->channels, '-f', "s{$facts->bits}le", '-c:a', "pcm_s{$facts->bits}le");
    }

    /**
     * The sound as it is, at its own rate: 16-bit integers where the file has no more, else 32-bit floats, which keep what passes
     * full scale.
     *
     * @param int $from first sample wanted
     * @param ?int $to last + 1; null for the end
     *
     * @return Generator<string> pieces of any size
     *
     * @throws Refused
     */
    public function samples(string $file, string $name, AudioFacts $facts, int $from = 0, ?int $to = null): Generator
    {
        $trim = "atrim=start_sample={$from}".(null === $to ? '' : ":end_sample={$to}");

        return $this->pcm($file, $name, new Complaints(), ...(0 === $from && null === $to ? [] : ['-af', $trim]), ...['-f', 16 === $facts->bits ? 's16le' : 'f32le']);
    }

    /**
     * @return Generator<string>
     *
     * @throws Refused
     */
    private function pcm(string $file, string $name, Complaints $complaints, string ...$output): Generator
    {
        $process = new Process([
            ...self::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', ...self::input($file),
            '-map', '0:a:0', '-vn', '-sn', '-dn', '-t', (string) (self::MAX_HOURS * 3600), ...$output, 'pipe:1',
        ], timeout: null);
        $process->setIdleTimeout(self::SILENT_SECONDS);
        $process->start();
        $bytes = 0;
        try {
            foreach ($process->getIterator() as $type => $piece) {
                if (Process::ERR === $type) {
                    $complaints->add($piece);
                    continue;
                }
                $bytes += \strlen($piece);
                yield $piece;
            }
            $process->wait();
        } catch (ProcessTimedOutException) {
            throw Refused::tooSlow($name);
        } catch (ProcessSignaledException) {
            throw Refused::decoderDied($name);
        } finally {
            $process->stop(0);
        }
        if (0 === $bytes) {
            throw Refused::notMedia($name);
        }
        // One that gave up has not read all there is, whatever came out before.
        $process->isSuccessful() || throw Refused::decoderDied($name);
    }

    /**
     * @param array<string, mixed> $stream
     * @param array{format_name?: string, duration?: string, start_time?: string} $format
     * @param ?float $promised seconds that a WAV header states
     */
    private function facts(array $stream, array $format, string $name, int $mostChannels, ?float $promised, bool $picture): AudioFacts
    {
        $number = static fn (string $key): int => is_numeric($stream[$key] ?? null) ? (int) $stream[$key] : 0;
        $text = static fn (string $key): string => \is_string($stream[$key] ?? null) ? $stream[$key] : '';
        $channels = $number('channels');
        $channels >= 1 && $channels <= $mostChannels || throw Refused::channels($name, $channels, $mostChannels);
        $rate = $number('sample_rate');
        $rate >= 8000 && $rate <= 192_000 || throw Refused::rate($name, $rate);
        $container = explode(',', $format['format_name'] ?? '')[0];
        $seconds = $promised ?? (is_numeric($stream['duration'] ?? null) ? (float) $stream['duration'] : (float) ($format['duration'] ?? 0.0));
        $seconds <= self::MAX_HOURS * 3600 || throw Refused::tooLong($name, $seconds);
        $is16 = 's16' === rtrim($text('sample_fmt'), 'p') || 'u8' === rtrim($text('sample_fmt'), 'p');

        return new AudioFacts("{$container} · {$text('codec_name')}", $rate, $channels, $is16 ? 16 : 24, \in_array($container, self::STATES_LENGTH, true) && $seconds > 0 ? $seconds : null, $picture, max(0.0, (float) $text('start_time') - (float) ($format['start_time'] ?? 0.0)));
    }

    /**
     * A moving picture, not the cover of a record.
     *
     * @param array<string, mixed> $stream
     */
    private static function isPicture(array $stream): bool
    {
        $disposition = $stream['disposition'] ?? [];

        return 'video' === ($stream['codec_type'] ?? '') && !(\is_array($disposition) && 1 === ($disposition['attached_pic'] ?? 0));
    }

    /**
     * A small picture without sound, easy to seek in: VP8 in WebM, at most 640 wide, a key frame twice a second.
     *
     * @param float $skip seconds to leave out at its start, so that it runs with the sound
     *
     * @return Generator<float> seconds done, as it goes
     *
     * @throws Refused
     */
    public function picture(string $file, string $name, string $target, float $skip): Generator
    {
        $process = new Process([
            ...self::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', '-progress', 'pipe:1', ...self::input($file),
            '-map', '0:v:0', '-an', '-sn', '-dn', '-t', (string) (self::MAX_HOURS * 3600), '-ss', \sprintf('%.6f', $skip),
            '-vf', 'scale=w=min(640\\,iw):h=-2', '-vsync', 'cfr', '-pix_fmt', 'yuv420p',
            '-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8', '-threads', '1', '-crf', '28', '-b:v', '700k', '-g', '12',
            '-f', 'webm', '-y', $target,
        ], timeout: null);
        $process->setIdleTimeout(self::SILENT_SECONDS);
        $process->start();
        try {
            foreach ($process->getIterator(Process::ITER_SKIP_ERR) as $report) {
                if (1 === preg_match('/out_time_us=(\d+)/', $report, $found)) {
                    yield (float) $found[1] / 1e6;
                }
            }
            $process->wait();
        } catch (ProcessTimedOutException) {
            throw Refused::tooSlow($name);
        } catch (ProcessSignaledException) {
            throw Refused::noPicture($name);
        } finally {
            $process->stop(0);
        }
        if (!$process->isSuccessful() || !is_file($target)) {
            throw Refused::noPicture($name);
        }
    }

    /** @return list<string> what lets nothing but this file, in a container that is known, be read */
    public static function input(string $file): array
    {
        return ['-protocol_whitelist', 'file,pipe', '-format_whitelist', self::CONTAINERS, '-i', 'file:'.$file];
    }
}
