<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use RuntimeException;
use Wattage\App\Handover\RenderedFile;
use Wattage\App\Media\Beside;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

/** A file that two processes make, each its half, is the file that one would make. */
final class RenderedFileTest extends TestCase
{
    private const HEADER = 44;

    #[DataProvider('formats')]
    public function testTwoProcessesMakeTheFileThatOneMakes(SampleFormat $format, int $rate): void
    {
        $sound = self::noise(22 * $rate + 1234);
        $mix = self::mix($rate, 22 * $rate + 1234);
        $span = Span::of(4321, $mix->length());
        $path = Sound::file(str_repeat('h', self::HEADER));
        $told = [];
        $file = new RenderedFile($mix, ['s' => self::sound($sound)], $span, $format, $path, self::HEADER, true);
        $file->write(static function (float $done) use (&$told): void {
            $told[] = $done;
        });

        [$encoder, $clipping, $meter, $bytes] = [new SampleEncoder($format), new Clipping(), new SampleMeter(2, $rate), ''];
        foreach ((new Renderer($mix, ['s' => self::sound($sound)], intdiv($rate, 10)))->render($span) as $from => $samples) {
            $bytes .= $encoder->encode($samples);
            $clipping->look($samples, $from);
            $meter->push($samples);
        }
        $made = (string) file_get_contents($path);
        self::assertSame(str_repeat('h', self::HEADER), substr($made, 0, self::HEADER));
        self::assertSame(md5($bytes), md5(substr($made, self::HEADER)), 'to the byte');
        self::assertSame([$clipping->samples, $clipping->places], [$file->clipping()->samples, $file->clipping()->places]);
        self::assertGreaterThan(0, $clipping->samples, 'the bang at the seam passes full scale');
        [$expected, $found] = [$meter->finish(), $file->measured()];
        self::assertNotNull($found->integrated);
        foreach (['integrated', 'range', 'maxMomentary', 'maxShortTerm', 'rms'] as $what) {
            self::assertEqualsWithDelta($expected->{$what}, $found->{$what}, 1e-6, $what);
        }
        self::assertSame([$expected->truePeak, $expected->samplePeak, $expected->frames], [$found->truePeak, $found->samplePeak, $found->frames]);
        self::assertNotEmpty(array_filter($told, static fn (float $done): bool => $done > 0.4 && $done < 1.0));
    }

    /** @return iterable<string, array{SampleFormat, int}> */
    public static function formats(): iterable
    {
        yield '16 bit' => [SampleFormat::Pcm16, 48_000];
        yield '24 bit' => [SampleFormat::Pcm24, 48_000];
        yield 'float' => [SampleFormat::Float32, 48_000];
        yield '24 bit at 96 kHz, where pieces of as many frames would be 50 ms' => [SampleFormat::Pcm24, 96_000];
    }

    /** Where the other process comes to nothing, or there can be none, one makes all of it. */
    #[DataProvider('hindrances')]
    public function testWithoutASecondProcessTheFileIsTheSame(?PcmSource $apart): void
    {
        $sound = self::sound(self::noise(22 * 48_000));
        $alone = new class($sound, $apart) implements PcmSource {
            public function __construct(private readonly PcmSource $sound, private readonly ?PcmSource $other)
            {
            }

            public function format(): PcmFormat
            {
                return $this->sound->format();
            }

            public function read(int $from, int $frames): string
            {
                return $this->sound->read($from, $frames);
            }

            public function apart(): ?PcmSource
            {
                return $this->other;
            }
        };
        $mix = self::mix(48_000, 22 * 48_000);
        $made = array_map(static function (PcmSource $source) use ($mix): array {
            $path = Sound::file('');
            $file = new RenderedFile($mix, ['s' => $source], Span::of(0, $mix->length()), SampleFormat::Pcm16, $path, 0, true);
            $file->write(static fn (): null => null);

            return [md5_file($path), $file->measured()->frames, round($file->measured()->integrated ?? 0.0, 6)];
        }, [$sound, $alone]);
        self::assertSame($made[0], $made[1]);
    }

    /** @return iterable<string, array{?PcmSource}> */
    public static function hindrances(): iterable
    {
        yield 'a sound that only one can read' => [null];
        yield 'a sound that fails in the other process' => [new class implements PcmSource {
            public function format(): PcmFormat
            {
                return PcmFormat::of(2, 16);
            }

            public function read(int $from, int $frames): string
            {
                throw new RuntimeException('gone');
            }

            public function apart(): ?PcmSource
            {
                return null;
            }
        }];
    }

    public function testNoProcessIsLeftWhenWritingIsBrokenOff(): void
    {
        $mix = self::mix(48_000, 30 * 48_000);
        $file = new RenderedFile($mix, ['s' => self::sound(self::noise(30 * 48_000))], Span::of(0, $mix->length()), SampleFormat::Pcm16, Sound::file(''), 0, true);
        try {
            $file->write(static fn (): never => throw new RuntimeException('cancelled'));
            self::fail('It went on.');
        } catch (RuntimeException $cancelled) {
            self::assertSame('cancelled', $cancelled->getMessage());
        }
        self::assertSame(-1, pcntl_waitpid(-1, $status, \WNOHANG), 'no child is left');
    }

    public function testWhatAnotherProcessSaysComesWholeOrNotAtAll(): void
    {
        $long = str_repeat('0123456789', 100_000);
        $ticks = 0;
        foreach ([[static fn (): string => $long, $long], [static fn (): string => throw new RuntimeException('no'), null], [static fn (): string => posix_kill(posix_getpid(), \SIGKILL) ? '' : '', null]] as [$work, $expected]) {
            $beside = Beside::begin($work);
            self::assertNotNull($beside);
            self::assertTrue($expected === $beside->result(static function () use (&$ticks): void {
                ++$ticks;
            }));
            $beside->end();
        }
        self::assertGreaterThan(2, $ticks);
    }

    private static function mix(int $rate, int $length): Mix
    {
        $clip = new Clip('c', 's', 'Noise', 0, 0, $length, Decibels::of(6.0), Curve::flat());

        return Mix::of($rate, FrameRate::F25, [new Source('s', 'noise.wav', $length, 2, Decibels::unchanged())], [Track::named('t', 'T', Stem::Music)->withClip($clip)]);
    }

    /** @param resource $stream a temporary file, which can be opened once more as long as it is open */
    private static function sound(mixed $stream): PcmStream
    {
        return new PcmStream($stream, PcmFormat::of(2, 16), again: static fn (): mixed => fopen(stream_get_meta_data($stream)['uri'] ?? '', 'r'));
    }

    /**
     * Noise that swells, with a bang around the middle, where the halves meet.
     *
     * @return resource
     */
    private static function noise(int $frames): mixed
    {
        $random = new Random(5);
        $values = [];
        for ($i = 0; $i < 9600; ++$i) {
            $values[] = (int) (4000 * $random->float(-1, 1));
        }
        $second = pack('v*', ...array_map(static fn (int $v): int => $v & 0xFFFF, $values));
        $bytes = substr(str_repeat($second, intdiv(4 * $frames, \strlen($second)) + 1), 0, 4 * $frames);
        $at = 4 * intdiv($frames, 2);
        $bang = pack('v*', ...array_map(static fn (int $i): int => 0 === $i % 4 ? 32_000 : 33_536, range(0, 11_999)));
        $bytes = substr_replace($bytes, $bang, $at - intdiv(\strlen($bang), 8) * 4, \strlen($bang));
        $stream = tmpfile();
        self::assertIsResource($stream);
        fwrite($stream, $bytes);

        return $stream;
    }
}
