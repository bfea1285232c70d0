<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Signal\SampleLayout;
use Wattage\Tests\support\Sound;

/** Real sound against ffmpeg (Debian), `ebur128=peak=true`: I within 0.1 LU, LRA within 0.2 LU, true peak within 0.4 dB. */
final class AgainstFfmpegTest extends TestCase
{
    private const MEDIA = __DIR__.'/../../../demo/media/';

    #[DataProvider('sounds')]
    #[TestDox('$_dataName')]
    public function testItReadsAsFfmpegDoes(string $file, int $rate, int $channels, bool $float): void
    {
        $kind = $float ? 'f32le' : 's16le';
        $wav = Sound::file('', '.wav');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-stream_loop', '5', '-i', self::MEDIA.$file, '-ac', (string) $channels, '-ar', (string) $rate, '-t', '60', '-c:a', "pcm_{$kind}", $wav]);
        $meter = new LoudnessMeter($float ? SampleLayout::float32($channels) : SampleLayout::int16($channels), $rate);
        $meter->push(Sound::run(['ffmpeg', '-v', 'error', '-i', $wav, '-f', $kind, '-']));
        $ours = $meter->finish();

        $peaks = array_map(static fn (int $c): string => "lavfi.r128.true_peaks_ch{$c}", range(0, $channels - 1));
        [$theirs] = \array_slice(Sound::metadata($wav, 'ebur128=metadata=1:peak=true', ['lavfi.r128.I', 'lavfi.r128.LRA', ...$peaks]), -1);
        self::assertEqualsWithDelta($theirs['lavfi.r128.I'], $ours->integrated, 0.1, 'integrated');
        self::assertEqualsWithDelta($theirs['lavfi.r128.LRA'], $ours->range, 0.2, 'range');
        $peak = max(array_map(static fn (string $tag): float => $theirs[$tag], $peaks));
        self::assertEqualsWithDelta(20.0 * log10($peak), $ours->truePeak, 0.4, 'true peak');
    }

    /** @return iterable<string, array{string, int, int, bool}> */
    public static function sounds(): iterable
    {
        foreach (['speech' => 'narrator.ogg', 'speech with gaps' => 'two-voices.flac', 'music' => 'departure.mp3', 'sparse' => 'gulls.mp3', 'a horn' => 'horn.flac'] as $what => $file) {
            foreach ([44_100, 48_000] as $rate) {
                foreach ([1, 2] as $channels) {
                    yield "{$what}, {$rate}, {$channels} channels" => [$file, $rate, $channels, 48_000 === $rate && 1 === $channels];
                }
            }
        }
    }
}
