<?php

/*
 * One job in a process of its own, for bench/core.php: so that what one has compiled and kept does not help or hinder the next.
 *   php bench/job.php ingest FILE DIR
 *   php bench/job.php render MIX.json DIR FORMAT
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\MediaDirectory;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Tests\support\PlainWav;

[, $job, $file, $dir, $format] = [...$argv, ''];
$ffmpeg = new Ffmpeg('ffmpeg', 'ffprobe');
$open = static fn (string $name, string $mode = 'w'): mixed => fopen("{$dir}/{$name}", $mode) ?: throw new RuntimeException($name);

if ('ingest' === $job) {
    $facts = $ffmpeg->probe($file, $file);
    hash_file('sha256', $file) ?: throw new RuntimeException($file);
    [$pcm, $waveform] = [$open('pcm'), $open('waveform', 'w+')];
    $measurer = new SourceMeasurer(PcmFormat::of(2, $facts->bits), 48_000, $open('blocks'), $waveform);
    foreach ($ffmpeg->decode($file, $file, $facts, 48_000) as $piece) {
        fwrite($pcm, $piece);
        $measurer->push($piece);
    }
    $measurer->finish();
    rewind($waveform);
    Overview::write($waveform, 2, array_map(static fn (int $level): mixed => $open("overview-{$level}"), array_keys(Overview::BINS_PER_POINT)));
} else {
    $json = (string) file_get_contents($file);
    $mix = MixDocument::decode($json);
    $sounds = [];
    foreach (MediaDirectory::files($json) as $id => $name) {
        $sounds[$id] = (new MediaDirectory($ffmpeg))->sound($mix, $id, $dir, $name);
    }
    PlainWav::write($mix, $sounds, SampleFormat::from($format), $open('ours.wav'));
}
fwrite(\STDERR, (string) (memory_get_peak_usage(true) / 1e6));
