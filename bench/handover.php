<?php

/*
 * What handing over costs: the peak guard against ffmpeg's alimiter and ebur128 in the same run, a handover at a target against the plain
 * render, and the report. Run with bench/run handover [SECONDS], which sets PHP up as the workers have it.
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/seconds.php';

use Wattage\App\Handover\About;
use Wattage\App\Handover\FileMaker;
use Wattage\App\Handover\FilmPicture;
use Wattage\App\Handover\Made;
use Wattage\App\Media\Coder;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\FilmCoder;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Handover\Excerpt;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\PeakGuard;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Handover\Target;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Signal\FloatDecoder;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\PlainWav;

$length = (int) ($argv[1] ?? 600);
$dir = directory();

/** Processor seconds of this process and of those it has waited for. */
function took(callable $do): float
{
    $before = used(0) + used(1);
    $do();

    return used(0) + used(1) - $before;
}

function ffmpeg(string ...$arguments): void
{
    seconds(['ffmpeg', '-v', 'error', '-y', ...array_values($arguments)]);
}

$noise = 'anoisesrc=r=48000:a=%s:c=pink:d=%d:seed=%d,aformat=channel_layouts=stereo,tremolo=f=0.3:d=0.8';

// 1. The guard alone, on sound that is nearly always under the ceiling, often over it, and nearly always over it.
foreach (['hardly any' => 0.25, 'now and then' => 0.9, 'far too much' => 1.0] as $how => $amplitude) {
    $file = "{$dir}/loud.f32";
    $gain = 'far too much' === $how ? 12 : ('now and then' === $how ? 6 : 0);
    ffmpeg('-f', 'lavfi', '-i', sprintf($noise, $amplitude, $length, 3).",volume={$gain}dB", '-f', 'f32le', $file);
    $in = ['-f', 'f32le', '-ar', '48000', '-ac', '2', '-i', $file];
    $theirs = took(static fn () => ffmpeg(...$in, ...['-af', 'alimiter=limit=0.89:attack=5:level=false', '-f', 'f32le', "{$dir}/limited.f32"]))
        + took(static fn () => ffmpeg(...$in, ...['-af', 'ebur128', '-f', 'null', '-']));
    $guard = new PeakGuard(2, RATE, 0.8912509381337456);
    $ours = took(static function () use ($file, $guard): void {
        $stream = fopen($file, 'r') ?: throw new RuntimeException($file);
        while ('' !== ($bytes = (string) fread($stream, 38_400))) {
            $guard->push(FloatDecoder::decode($bytes));
        }
        $guard->finish();
    });
    printf("guard, %-20s held %4.1f %% of the time, by up to %4.1f dB: %5.1f s, ratio %.2f to alimiter + ebur128\n", $how, 100 * $guard->acts->seconds() / $length, $guard->acts->most, $ours, $ours / $theirs);
}

// 2. A handover at a target against the plain render of the same mix.
$sources = $tracks = [];
for ($t = 0; $t < 4; ++$t) {
    $file = "{$dir}/track{$t}.s16";
    ffmpeg('-f', 'lavfi', '-i', sprintf($noise, 0.25, $length, $t), '-f', 's16le', $file);
    $sources["s{$t}"] = new PcmStream(fopen($file, 'r') ?: throw new RuntimeException($file), PcmFormat::of(2, 16));
    $keyframes = [];
    for ($second = 0; $second < $length; $second += 2) {
        $keyframes[] = new Keyframe($second * RATE, Decibels::of(($second / 2 + $t) % 2 ? -12.0 : 0.0), Ramp::line());
    }
    $tracks[] = Track::named("t{$t}", "Track {$t}", Stem::Music)->withClip(new Clip("c{$t}", "s{$t}", 'Clip', 0, 0, $length * RATE, Decibels::of(-9.0), Curve::of($keyframes)));
}
$mix = Mix::of(RATE, FrameRate::F25, array_map(static fn (int $t): Source => new Source("s{$t}", 'S', $length * RATE, 2, Decibels::unchanged()), range(0, 3)), $tracks);
$plain = took(static function () use ($mix, $sources, $dir): void {
    PlainWav::write($mix, $sources, SampleFormat::Pcm24, fopen("{$dir}/plain.wav", 'w') ?: throw new RuntimeException($dir));
});
$maker = new FileMaker(new Coder('ffmpeg'), new Ffmpeg('ffmpeg', 'ffprobe'), new FilmPicture(new FilmCoder(new Coder('ffmpeg'), 'ffprobe')));
$about = new About(new Tags('Bench'), 'bench', 'bench', new DateTimeImmutable());
foreach ([[FileFormat::Wav, 24, 0, -16.0], [FileFormat::Flac, 24, 0, -16.0], [FileFormat::Mp3, 0, 192, -16.0]] as [$format, $bits, $kbps, $loudness]) {
    $work = "{$dir}/work";
    mkdir($work);
    $made = null;
    $seconds = took(static function () use (&$made, $maker, $format, $bits, $kbps, $loudness, $mix, $sources, $work, $about): void {
        $made = $maker->make(new FileOrder($format, $bits, $kbps, RATE, 2, Excerpt::programme(), Target::of($loudness, -1.0), false), $mix, $sources, static fn (): string => '', $work, $about, static fn () => null);
    });
    /** @var Made $made */
    printf("handover, %-4s at %.0f LUFS: %5.1f s, ratio %.2f to the plain render; %.2f LUFS, %.2f dBTP, guard %.1f dB\n", $format->value, $loudness, $seconds, $seconds / $plain, $made->measured->integrated, $made->measured->truePeak, $made->acts->most);
    exec('rm -rf '.escapeshellarg($work));
}
printf("memory at most %.1f MB\n", memory_get_peak_usage(true) / 1e6);
