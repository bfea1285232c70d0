<?php

/*
 * What filters cost: four stereo tracks with a keyframe every two seconds, plain, and with a low cut, a tone of four parts and the band of speech that gives way
 * on each of them; and ffmpeg with the same filters. One after the other in each of five runs; medians. Run by bench/run.
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/seconds.php';

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\LowCut;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

const LENGTH = 120;

$dir = directory();

$tracks = $filtered = $inputs = $chains = [];
for ($t = 0; $t < 4; ++$t) {
    $file = "{$dir}/t{$t}.wav";
    seconds(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', sprintf(NOISE, LENGTH, $t), '-c:a', 'pcm_s16le', $file]);
    array_push($inputs, '-i', $file);
    $keyframes = [];
    for ($second = 0; $second < LENGTH; $second += 2) {
        $keyframes[] = new Keyframe($second * RATE + ((($second * 7919 + $t * 31) % 9973) | 1), Decibels::of(($second / 2 + $t) % 2 ? -12.0 : 0.0), Ramp::line());
    }
    $clip = new Clip("c{$t}", "t{$t}", 'Clip', 0, 0, LENGTH * RATE, Decibels::of(-9.0), Curve::of($keyframes));
    $tracks[] = Track::named("t{$t}", "Track {$t}", Stem::Music)->withClip($clip);
    $filtered[] = Track::named("t{$t}", "Track {$t}", Stem::Music)
        ->withClip($clip->withColour(new Colour(null, new Tone([[180.0, -3.0], [500.0, 2.0], [2_000.0, 3.0], [5_000.0, -2.0]]))))
        ->withColour(new Colour(new LowCut(80.0)))
        ->withBand(new Ducking(Curve::of($keyframes)));
    $chains[] = "[{$t}]lowshelf=f=180:g=-3,equalizer=f=500:t=q:w=0.9:g=2,equalizer=f=2000:t=q:w=0.9:g=3,highshelf=f=5000:g=-2,equalizer=f=900:t=q:w=1.2:g=-12,equalizer=f=2250:t=q:w=1.2:g=-12,highpass=f=80,volume=volume='pow(10\\,(-15+6*cos(PI*t/2))/20)':eval=frame[v{$t}]";
}
$sources = array_map(static fn (int $t): Source => new Source("t{$t}", "t{$t}.wav", LENGTH * RATE, 2, Decibels::unchanged()), range(0, 3));
foreach (['plain' => $tracks, 'filtered' => $filtered] as $name => $of) {
    file_put_contents("{$dir}/{$name}.json", MixDocument::encode(Mix::of(RATE, FrameRate::F25, $sources, $of)));
}
$plain = job('render', "{$dir}/plain.json", $dir, 'pcm16');
row('render, 4 tracks with all filters, to pcm16', LENGTH, job('render', "{$dir}/filtered.json", $dir, 'pcm16'), $plain, 'the plain mix');
$theirs = ['ffmpeg', '-v', 'error', '-y', ...$inputs, '-filter_complex', implode(';', $chains).';[v0][v1][v2][v3]amix=inputs=4:normalize=0', '-c:a', 'pcm_s16le', "{$dir}/theirs.wav"];
row('the same', LENGTH, job('render', "{$dir}/filtered.json", $dir, 'pcm16'), $theirs, 'ffmpeg with as many filters');
