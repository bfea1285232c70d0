<?php

/*
 * One job in a process of its own, for bench/core.php: so that what one has compiled and kept does not help or hinder the next.
 *   php bench/job.php ingest FILE DIR
 *   php bench/job.php render MIX.json DIR FORMAT
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

use Symfony\Component\Uid\Uuid;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\MeasuredFile;
use Wattage\App\Media\MediaDirectory;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\SourceParts;
use Wattage\App\Media\Spool;
use Wattage\App\Storage\LocalStore;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Tests\support\PlainWav;

[, $job, $file, $dir, $format] = [...$argv, ''];
$ffmpeg = new Ffmpeg('ffmpeg', 'ffprobe');
$open = static fn (string $name, string $mode = 'w'): mixed => fopen("{$dir}/{$name}", $mode) ?: throw new RuntimeException($name);

if ('ingest' === $job) {
    $facts = $ffmpeg->probe($file, $file);
    hash_file('sha256', $file) ?: throw new RuntimeException($file);
    $spool = new Spool("{$dir}/spool");
    $work = $spool->workDirectory(Uuid::v7());
    $pcm = $spool->file($work, 'pcm', 'pcm');
    $hash = hash_init(MediaStore::DIGEST);
    foreach ($ffmpeg->decode($file, $file, $facts, 48_000) as $piece) {
        $pcm->write($piece);
        hash_update($hash, $piece);
    }
    $pcm->close();
    (new MeasuredFile($spool, $work, PcmFormat::of($facts->channels, $facts->bits), $facts->rate, $file))->measure(static fn () => null);
    (new SourceParts($spool, new MediaStore(new LocalStore("{$dir}/store"))))->work($work, $facts->channels, static fn () => null);
    // It is read again once it is stored.
    hash_file(MediaStore::DIGEST, "{$work}/pcm") ?: throw new RuntimeException($file);
    $spool->remove($work);
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
