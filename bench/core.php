<?php

/*
 * How fast the core is, as ratios against ffmpeg: taking in a source, and rendering a mix. Each of five runs times both, one after the other,
 * so that a busy machine is busy for both; medians, with all five ratios behind them. Run with bench/run, which sets PHP up as the workers
 * have it. Needs ffmpeg; makes its signals itself.
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

require __DIR__.'/seconds.php';

$dir = directory();

// 1. Ingest: decode, K-energies, peaks and outline of one hour of stereo, through the application's own ffmpeg call.
$hour = 3600;
foreach (['flac' => 'FLAC, 16 bit', 'm4a' => 'AAC, 24 bit inside'] as $ending => $name) {
    $file = "{$dir}/hour.{$ending}";
    seconds(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', sprintf(NOISE, $hour, 1), ...('m4a' === $ending ? ['-c:a', 'aac', '-b:a', '160k'] : ['-sample_fmt', 's16']), $file]);
    row("ingest of one hour, stereo, {$name}", $hour, job('ingest', $file, $dir), ['ffmpeg', '-v', 'error', '-i', $file, '-af', 'ebur128', '-f', 'null', '-'], 'ffmpeg decode + ebur128');
}

// 2. Render: four stereo tracks with a keyframe every two seconds at odd places, lines and smooth ramps by turns.
$length = 300;
foreach ([16, 24] as $bits) {
    $tracks = $inputs = $filters = [];
    for ($t = 0; $t < 4; ++$t) {
        $file = "{$dir}/t{$t}-{$bits}.wav";
        seconds(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', sprintf(NOISE, $length, $t), '-c:a', "pcm_s{$bits}le", $file]);
        $keyframes = [];
        for ($second = 0; $second < $length; $second += 2) {
            $keyframes[] = new Keyframe($second * RATE + ((($second * 7919 + $t * 31) % 9973) | 1), Decibels::of(($second / 2 + $t) % 2 ? -12.0 : 0.0), $t % 2 ? Ramp::smooth() : Ramp::line());
        }
        $tracks[] = Track::named("t{$t}", "Track {$t}", Stem::Music)->withClip(new Clip("c{$t}", "t{$t}-{$bits}", 'Clip', 0, 0, $length * RATE, Decibels::of(-9.0), Curve::of($keyframes)));
        array_push($inputs, '-i', $file);
        // The same gains as an expression, evaluated for each of ffmpeg's frames of 1024 samples.
        $filters[] = "[{$t}]volume=volume='pow(10\\,(-15+6*cos(PI*t/2))/20)':eval=frame[v{$t}]";
    }
    $mix = Mix::of(RATE, FrameRate::F25, array_map(static fn (int $t): Source => new Source("t{$t}-{$bits}", "t{$t}-{$bits}.wav", $length * RATE, 2, Decibels::unchanged()), range(0, 3)), $tracks);
    file_put_contents("{$dir}/mix.json", MixDocument::encode($mix));
    $graph = implode(';', $filters).';[v0][v1][v2][v3]amix=inputs=4:normalize=0';
    $theirs = ['ffmpeg', '-v', 'error', '-y', ...$inputs, '-filter_complex', $graph, '-c:a', 'pcm_s16le', "{$dir}/theirs.wav"];
    $measured = ['ffmpeg', '-v', 'error', '-y', ...$inputs, '-filter_complex', "{$graph},ebur128=peak=true", '-c:a', 'pcm_s16le', "{$dir}/theirs.wav"];
    foreach (SampleFormat::cases() as $format) {
        row("render, 4 stereo tracks, {$bits} bit to {$format->value}", $length, job('render', "{$dir}/mix.json", $dir, $format->value), $theirs, 'volume + amix to 16 bit');
    }
    $console = [...PHP_AS_WORKERS, dirname(__DIR__).'/bin/console', 'wattage:render', "{$dir}/mix.json", '--media', $dir, '--out', "{$dir}/console.wav", '--format', 'pcm16'];
    row("wattage:render, two processes, {$bits} bit to pcm16", $length, $console, $theirs, 'volume + amix to 16 bit, which measures nothing');
    row("wattage:render, two processes, {$bits} bit to pcm16", $length, $console, $measured, 'the same + ebur128=peak=true');
}
