<?php

/*
 * How fast the core is, as ratios against ffmpeg in the same run: measuring a source, and rendering a mix.
 * Run with bench/run, which sets PHP up as the workers have it. Needs ffmpeg; makes its signals itself.
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

use Wattage\App\Media\Ffmpeg;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Render\WavRender;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

const RATE = 48_000;

$dir = sys_get_temp_dir().'/wattage-bench-'.getmypid();
mkdir($dir);
register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($dir)));

/** Seconds of the processor: of this process, or of programs it has waited for. */
function cpu(int $of = 0): float
{
    $used = getrusage($of);

    return $used['ru_utime.tv_sec'] + $used['ru_stime.tv_sec'] + ($used['ru_utime.tv_usec'] + $used['ru_stime.tv_usec']) / 1e6;
}

/** Runs a program. @return array{float, float} its wall and processor seconds */
function seconds(array $command): array
{
    $begun = microtime(true);
    $before = cpu(1);
    $process = proc_open($command, [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes);
    if (!is_resource($process) || 0 !== proc_close($process)) {
        throw new RuntimeException('Failed: '.implode(' ', $command));
    }

    return [microtime(true) - $begun, cpu(1) - $before];
}

/**
 * On a shared machine the wall clock tells of the neighbours, too; so processor time stands beside it.
 *
 * @param array{float, float} $ours wall and processor seconds
 * @param array{float, float} $theirs
 */
function row(string $what, float $length, array $ours, array $theirs, string $against): void
{
    printf("%-48s wall %5.1f s %4.0f× real time, ratio %.2f | processor %5.1f s %4.0f×, ratio %.2f   (to %s)\n", $what, $ours[0], $length / $ours[0], $ours[0] / $theirs[0], $ours[1], $length / $ours[1], $ours[1] / $theirs[1], $against);
}

$hour = 3600;
$noise = 'anoisesrc=r=48000:a=0.25:c=pink:d=%d:seed=%d,aformat=channel_layouts=stereo,tremolo=f=0.3:d=0.8';

// 1. Ingest: decode, K-energies, peaks and outline of one hour of stereo, through the application's own ffmpeg call.
foreach (['flac' => 'FLAC, 16 bit', 'm4a' => 'AAC, 24 bit inside'] as $ending => $name) {
    $file = "{$dir}/hour.{$ending}";
    seconds(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', sprintf($noise, $hour, 1), ...('m4a' === $ending ? ['-c:a', 'aac', '-b:a', '160k'] : ['-sample_fmt', 's16']), $file]);
    $theirs = seconds(['ffmpeg', '-v', 'error', '-i', $file, '-af', 'ebur128', '-f', 'null', '-']);
    $ffmpeg = new Ffmpeg('ffmpeg', 'ffprobe');
    [$begun, $used] = [microtime(true), cpu()];
    $facts = $ffmpeg->probe($file, $name);
    hash_file('sha256', $file) ?: throw new RuntimeException($file);
    [$pcm, $blocks, $waveform] = [fopen("{$dir}/pcm", 'w'), fopen("{$dir}/blocks", 'w'), fopen("{$dir}/waveform", 'w+')];
    $measurer = new SourceMeasurer(PcmFormat::of(2, $facts->bits), RATE, $blocks, $waveform);
    foreach ($ffmpeg->decode($file, $name, $facts, RATE) as $piece) {
        fwrite($pcm, $piece);
        $measurer->push($piece);
    }
    $measurer->finish();
    rewind($waveform);
    Overview::write($waveform, 2, array_map(static fn (int $level): mixed => fopen("{$dir}/overview-{$level}", 'w'), array_keys(Overview::BINS_PER_POINT)));
    row("ingest of one hour, stereo, {$name}", $hour, [microtime(true) - $begun, cpu() - $used], $theirs, 'ffmpeg decode + ebur128');
    printf("%-52s %6.1f MB\n", '  memory', memory_get_peak_usage(true) / 1e6);
}

// 2. Render: four stereo tracks with a keyframe every two seconds, lines and smooth ramps by turns.
$length = 600;
foreach ([16, 24] as $bits) {
    $sources = $inputs = $filters = $tracks = [];
    for ($t = 0; $t < 4; ++$t) {
        $file = "{$dir}/track{$t}.s{$bits}";
        seconds(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', sprintf($noise, $length, $t), '-f', "s{$bits}le", '-c:a', "pcm_s{$bits}le", $file]);
        $sources["s{$t}"] = new PcmStream(fopen($file, 'r'), PcmFormat::of(2, $bits));
        $keyframes = [];
        for ($second = 0; $second < $length; $second += 2) {
            $keyframes[] = new Keyframe($second * RATE, Decibels::of(($second / 2 + $t) % 2 ? -12.0 : 0.0), $t % 2 ? Ramp::smooth() : Ramp::line());
        }
        $tracks[] = Track::named("t{$t}", "Track {$t}", Stem::Music)->withClip(new Clip("c{$t}", "s{$t}", 'Clip', 0, 0, $length * RATE, Decibels::of(-9.0), Curve::of($keyframes)));
        array_push($inputs, '-f', "s{$bits}le", '-ar', '48000', '-ac', '2', '-i', $file);
        // The same gains as an expression, evaluated for each of ffmpeg's frames of 1024 samples.
        $filters[] = "[{$t}]volume=volume='pow(10\\,(-15+6*cos(PI*t/2))/20)':eval=frame[v{$t}]";
    }
    $mix = Mix::of(RATE, FrameRate::F25, array_map(static fn (int $t): Source => new Source("s{$t}", 'S', $length * RATE, 2, Decibels::unchanged()), range(0, 3)), $tracks);
    $graph = implode(';', $filters).';[v0][v1][v2][v3]amix=inputs=4:normalize=0';
    $theirs = seconds(['ffmpeg', '-v', 'error', '-y', ...$inputs, '-filter_complex', $graph, '-c:a', 'pcm_s16le', "{$dir}/theirs.wav"]);
    foreach (SampleFormat::cases() as $format) {
        $out = fopen("{$dir}/ours.wav", 'w');
        [$begun, $used] = [microtime(true), cpu()];
        foreach ((new WavRender($mix, $sources, $format))->writeTo($out) as $_) {
        }
        row("render of 4 stereo tracks, {$bits} bit in, {$format->value} out", $length, [microtime(true) - $begun, cpu() - $used], $theirs, 'ffmpeg volume + amix to 16 bit');
    }
}
printf("%-52s %6.1f MB\n", 'memory at most, all of it', memory_get_peak_usage(true) / 1e6);
