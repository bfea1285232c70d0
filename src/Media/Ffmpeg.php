<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
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
    private const MAX_CHAPTERS = 2000;
    /** Channels of one file, as field recorders write them. */
    public const MAX_CHANNELS = 32;
    private const SILENT_PIECE = 1 << 20;

    /** Containers whose header states the true length. Others estimate it. */
    private const STATES_LENGTH = ['wav', 'w64', 'aiff', 'flac', 'mov', 'matroska'];

    public function __construct(private string $ffmpeg, private string $ffprobe)
    {
    }

    /**
     * @param string $file local path, a name of our own
     * @param string $name what the person calls it
     * @param int $mostChannels what the caller can take
     * @param bool $orSilent whether a film without sound will do
     *
     * @throws Refused
     */
    public function probe(string $file, string $name, int $mostChannels = 2, bool $orSilent = false): AudioFacts
    {
        $process = new Process([...self::LIMITS, $this->ffprobe, '-v', 'error', ...self::input($file), '-show_format', '-show_streams', '-show_chapters', '-of', 'json'], timeout: self::PROBE_SECONDS);
        try {
            $process->run();
        } catch (ProcessTimedOutException) {
            throw Refused::tooSlow($name);
        }
        /** @var array{format?: array{format_name?: string, duration?: string, start_time?: string, tags?: array<string, string>}, streams?: list<array<string, mixed>>, chapters?: list<array{start_time?: string, tags?: array<string, string>}>}|null $found */
        $found = json_decode($process->getOutput(), true);
        if (!$process->isSuccessful() || !\is_array($found) || !isset($found['format'])) {
            throw Refused::notMedia($name);
        }
        $picture = [] !== array_filter($found['streams'] ?? [], self::isPicture(...));
        foreach ($found['streams'] ?? [] as $stream) {
            if ('audio' === ($stream['codec_type'] ?? '')) {
                return $this->facts($stream, $found['format'], $name, $mostChannels, WavHeaderReader::promisedSeconds($file), $picture, self::chapters($found['chapters'] ?? []));
            }
        }
        $seconds = (float) ($found['format']['duration'] ?? 0.0);
        $orSilent && $picture && $seconds > 0.0 || throw Refused::noSound($name);
        $seconds <= self::MAX_HOURS * 3600 || throw Refused::tooLong($name, $seconds);

        return new AudioFacts(explode(',', $found['format']['format_name'] ?? '')[0].' · no sound', 48_000, 1, 16, $seconds, true, whySilent: 'There is no sound in this film; its picture is here.', chapters: self::chapters($found['chapters'] ?? []));
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
        if (null !== $facts->whySilent) {
            return self::silence((int) round(($facts->claimedSeconds ?? 0.0) * $rate) * $facts->channels * intdiv($facts->bits, 8));
        }

        return $this->pcm($file, $name, $complaints, '-af', "aresample={$rate}:resampler=soxr:precision=28", '-ac', (string) $facts->channels, '-f', "s{$facts->bits}le", '-c:a', "pcm_s{$facts->bits}le");
    }

    /** @return Generator<string> */
    private static function silence(int $bytes): Generator
    {
        for (; $bytes > 0; $bytes -= self::SILENT_PIECE) {
            yield str_repeat("\0", min($bytes, self::SILENT_PIECE));
        }
    }

    /**
     * Each channel as a WAV file of its own, in one pass, at the rate of the file.
     *
     * @param string $directory gets 1.wav, 2.wav, …
     *
     * @return Generator<float> seconds done, as it goes
     *
     * @throws Refused
     */
    public function split(string $file, string $name, AudioFacts $facts, string $directory): Generator
    {
        $channels = range(0, $facts->channels - 1);
        $split = '[0:a:0]asplit='.\count($channels).implode('', array_map(static fn (int $c): string => "[s{$c}]", $channels));
        $filter = implode(';', [$split, ...array_map(static fn (int $c): string => "[s{$c}]pan=mono|c0=c{$c}[o{$c}]", $channels)]);
        $outputs = array_merge(...array_map(static fn (int $c): array => ['-map', "[o{$c}]", '-c:a', "pcm_s{$facts->bits}le", '-fflags', '+bitexact', '-flags', '+bitexact', '-map_metadata', '-1', '-rf64', 'auto', '-f', 'wav', '-y', $directory.'/'.($c + 1).'.wav'], $channels));

        return $this->worked(['-filter_complex', $filter, ...$outputs], $file, $name, static fn (): Refused => Refused::decoderDied($name));
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
            // Several threads take more of the processor for the same sound, and there is one worker for each core.
            ...self::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', '-threads', '1', ...self::input($file),
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
     * @param array{format_name?: string, duration?: string, start_time?: string, tags?: array<string, string>} $format
     * @param ?float $promised seconds that a WAV header states
     * @param list<array{float, string}> $chapters
     */
    private function facts(array $stream, array $format, string $name, int $mostChannels, ?float $promised, bool $picture, array $chapters): AudioFacts
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
        $began = $format['tags']['time_reference'] ?? null;
        $is16 = 's16' === rtrim($text('sample_fmt'), 'p') || 'u8' === rtrim($text('sample_fmt'), 'p');

        return new AudioFacts("{$container} · {$text('codec_name')}", $rate, $channels, $is16 ? 16 : 24, \in_array($container, self::STATES_LENGTH, true) && $seconds > 0 ? $seconds : null, $picture, max(0.0, (float) $text('start_time') - (float) ($format['start_time'] ?? 0.0)), beganAt: is_numeric($began) && (float) $began >= 0.0 && (float) $began < 2 * 86_400.0 * $rate ? (float) $began / $rate : null, chapters: $chapters);
    }

    /**
     * @param list<array{start_time?: string, tags?: array<string, string>}> $found
     *
     * @return list<array{float, string}>
     */
    private static function chapters(array $found): array
    {
        $chapters = [];
        foreach (\array_slice($found, 0, self::MAX_CHAPTERS) as $i => $chapter) {
            $title = trim((string) preg_replace('/[\p{Cc}\p{Cf}]+/u', ' ', mb_scrub($chapter['tags']['title'] ?? '')));
            $chapters[] = [max(0.0, (float) ($chapter['start_time'] ?? 0.0)), mb_substr('' === $title ? 'Chapter '.($i + 1) : $title, 0, 100)];
        }

        return $chapters;
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
        yield from $this->worked([
            '-map', '0:v:0', '-an', '-sn', '-dn', '-t', (string) (self::MAX_HOURS * 3600), '-ss', \sprintf('%.6f', $skip),
            '-vf', 'scale=w=min(640\\,iw):h=-2', '-vsync', 'cfr', '-pix_fmt', 'yuv420p',
            '-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8', '-threads', '1', '-crf', '28', '-b:v', '700k', '-g', '12',
            '-f', 'webm', '-y', $target,
        ], $file, $name, static fn (): Refused => Refused::noPicture($name));
        is_file($target) || throw Refused::noPicture($name);
    }

    /**
     * Small frames of a picture on sheets of ten by ten, one every two seconds, and how much each of its own frames differs from the one before.
     *
     * @param string $sheets place of the sheets, with %d for their number, from 1
     *
     * @return Generator<string, float> scene score, 0 to 1, by time in seconds
     *
     * @throws Refused
     */
    public function frames(string $file, string $name, string $sheets): Generator
    {
        [$rows, $seconds] = [PictureFrames::PER_ROW, PictureFrames::SECONDS_PER_FRAME];
        $size = PictureFrames::WIDTH.':'.PictureFrames::HEIGHT;
        $graph = "[0:v]split[a][b];[a]fps=1/{$seconds},scale={$size}:force_original_aspect_ratio=decrease,pad={$size}:-1:-1,tile={$rows}x{$rows}[sheets];"
            ."[b]scale=160:-2,select='gte(scene\\,0)',metadata=print:file=-[scores]";
        $process = new Process([...self::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', ...self::input($file), '-filter_complex', $graph, '-map', '[sheets]', '-q:v', '4', '-f', 'image2', '-y', $sheets, '-map', '[scores]', '-f', 'null', '-'], timeout: null);
        $process->setIdleTimeout(self::SILENT_SECONDS);
        $process->start();
        $rest = '';
        try {
            foreach ($process->getIterator(Process::ITER_SKIP_ERR) as $said) {
                $rest .= $said;
                while (1 === preg_match('/pts_time:([\d.]+)\s+lavfi\.scene_score=([\d.]+)\n/', $rest, $found, \PREG_OFFSET_CAPTURE)) {
                    yield $found[1][0] => (float) $found[2][0];
                    $rest = substr($rest, $found[0][1] + \strlen($found[0][0]));
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
        $process->isSuccessful() || throw Refused::noPicture($name);
    }

    /**
     * Writes files from one that was sent.
     *
     * @param list<string> $what options after the input
     * @param Closure(): Refused $broken why it is refused when it cannot be done
     *
     * @return Generator<float> seconds done, as it goes
     *
     * @throws Refused
     */
    private function worked(array $what, string $file, string $name, Closure $broken): Generator
    {
        $process = new Process([...self::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', '-progress', 'pipe:1', ...self::input($file), ...$what], timeout: null);
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
            throw $broken();
        } finally {
            $process->stop(0);
        }
        $process->isSuccessful() || throw $broken();
    }

    /** @return list<string> what lets nothing but this file, in a container that is known, be read */
    public static function input(string $file): array
    {
        return ['-protocol_whitelist', 'file,pipe', '-format_whitelist', self::CONTAINERS, '-i', 'file:'.$file];
    }
}
