<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Signal;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Signal\InvalidAudio;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Signal\WavHeader;
use Wattage\Tests\support\Sound;

final class PcmTest extends TestCase
{
    /** The fast decoder against its slow, obvious twin, on lengths that fill words and groups and on those that do not. */
    #[DataProvider('lengths')]
    public function testEveryLengthDecodesAsTheObviousWay(int $bits, int $samples): void
    {
        $bytes = Sound::noise($samples, $samples * intdiv($bits, 8));
        $expected = [];
        for ($i = 0; $i < $samples; ++$i) {
            $value = 0;
            for ($b = intdiv($bits, 8) - 1; $b >= 0; --$b) {
                $value = $value * 256 + \ord($bytes[$i * intdiv($bits, 8) + $b]);
            }
            $expected[] = $value >= 1 << ($bits - 1) ? $value - (1 << $bits) : $value;
        }
        self::assertSame($expected, PcmDecoder::decode($bytes, PcmFormat::of(1, $bits)));
    }

    /** @return iterable<string, array{int, int}> */
    public static function lengths(): iterable
    {
        foreach ([16, 24] as $bits) {
            foreach ([0, 1, 3, 7, 8, 9, 240, 959, 960, 961, 1920, 5000] as $samples) {
                yield "{$bits} bit, {$samples} samples" => [$bits, $samples];
            }
        }
    }

    #[DataProvider('odd')]
    public function testOtherLayoutsAreRefused(int $channels, int $bits): void
    {
        $this->expectException(InvalidAudio::class);
        PcmFormat::of($channels, $bits);
    }

    /** @return iterable<array{int, int}> */
    public static function odd(): iterable
    {
        yield [0, 16];
        yield [6, 16];
        yield [2, 8];
        yield [2, 32];
    }

    public function testDitherStaysWithinOneStepAndAveragesOut(): void
    {
        $value = 1000.3 / 32768;
        /** @var array<int, int> $written */
        $written = unpack('s*', (new SampleEncoder(SampleFormat::Pcm16))->encode(array_fill(0, 60_000, $value)));
        self::assertEqualsWithDelta(1000.3, array_sum($written) / \count($written), 0.02, 'the mean keeps the fraction that rounding would lose');
        self::assertGreaterThanOrEqual(999, min($written));
        self::assertLessThanOrEqual(1002, max($written));
        // TPDF dither of two uniform steps and rounding: variance 2/12 + 1/12 = 0.25 (definition).
        $variance = array_sum(array_map(static fn (int $w): float => ($w - 1000.3) ** 2, $written)) / \count($written);
        self::assertEqualsWithDelta(0.25, $variance, 0.02);
    }

    public function testAboveFullScaleIsClippedNotWrapped(): void
    {
        $loud = [2.0, -2.0, 1.0, -1.0];
        self::assertSame([32767, -32768, 32767], \array_slice(array_values((array) unpack('s*', (new SampleEncoder(SampleFormat::Pcm16))->encode($loud))), 0, 3));
        self::assertSame([8388607, -8388608, 8388607], \array_slice(PcmDecoder::decode((new SampleEncoder(SampleFormat::Pcm24))->encode($loud), PcmFormat::of(1, 24)), 0, 3));
        self::assertSame($loud, Sound::floats((new SampleEncoder(SampleFormat::Float32))->encode($loud)));
    }

    #[DataProvider('counts')]
    public function testTwentyFourBitsComeBackWithinTheDither(int $count): void
    {
        $samples = array_map(static fn (int $i): float => ($i - 20) * 1234.0 / 8388608, range(0, $count - 1));
        $back = PcmDecoder::decode((new SampleEncoder(SampleFormat::Pcm24))->encode($samples), PcmFormat::of(1, 24));
        self::assertCount($count, $back);
        foreach ($back as $i => $value) {
            self::assertEqualsWithDelta($samples[$i] * 8388608, $value, 1.5);
        }
    }

    /** @return iterable<array{int}> */
    public static function counts(): iterable
    {
        yield [1];
        yield [8];
        yield [13];
        yield [64];
    }

    /** Opened by ffprobe and sox, as EBU Tech 3285 and 3306 readers. */
    #[DataProvider('formats')]
    public function testOtherProgramsReadTheHeaderAsItIsMeant(SampleFormat $format, string $codec): void
    {
        $frames = 4801;
        $file = Sound::file(WavHeader::delivery($format, 48_000, $frames).str_repeat("\0", $frames * 2 * intdiv($format->bits(), 8)), '.wav');
        $found = Sound::probe($file)['streams'][0];
        self::assertSame([$codec, '48000', 2, $frames], [$found['codec_name'], $found['sample_rate'], $found['channels'], $found['duration_ts']]);
        self::assertSame((string) $frames, trim(Sound::run(['soxi', '-s', $file])));
    }

    /** @return iterable<string, array{SampleFormat, string}> */
    public static function formats(): iterable
    {
        yield '16 bit' => [SampleFormat::Pcm16, 'pcm_s16le'];
        yield '24 bit' => [SampleFormat::Pcm24, 'pcm_s24le'];
        yield 'float' => [SampleFormat::Float32, 'pcm_f32le'];
    }

    /** EBU Tech 3306: sizes that do not fit 32 bits stand in ds64. Read by ffprobe from a sparse file of the true size. */
    public function testAboveFourGibibytesTheHeaderIsRf64(): void
    {
        $frames = 800_000_000;
        $header = WavHeader::delivery(SampleFormat::Pcm24, 48_000, $frames);
        self::assertStringStartsWith('RF64', $header);
        $file = Sound::file($header, '.wav');
        $stream = fopen($file, 'r+');
        self::assertIsResource($stream);
        ftruncate($stream, \strlen($header) + $frames * 6);
        fclose($stream);
        $found = Sound::probe($file)['streams'][0];
        self::assertSame($frames, $found['duration_ts']);
    }
}
