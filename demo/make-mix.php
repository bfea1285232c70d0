<?php

/*
 * Lays out The Salt Ferry with the core's own edits and writes salt-ferry.json. Run by hand after make-media.sh.
 * The problems are there on purpose: level jumps between takes, buried speech, a slammed hatch, dead air, a horn that is
 * far too loud, and two speakers on the two sides of one file.
 */

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

use Wattage\App\Media\Ffmpeg;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** @var array<string, Source> $sources */
$sources = [];
/** @var array<string, string> $files */
$files = [];
$ffmpeg = new Ffmpeg('ffmpeg', 'ffprobe');
$names = [
    'narrator' => ['narrator.ogg', 'Narrator'], 'wheelhouse' => ['deckhand-wheelhouse.flac', 'Deckhand, wheelhouse'],
    'deck' => ['deckhand-far-mic.opus', 'Deckhand, far mic'], 'pair' => ['two-voices.flac', 'Two voices, left and right'],
    'slow' => ['slow-accordion.ogg', 'Slow accordion'], 'departure' => ['departure.mp3', 'Departure'],
    'engine' => ['engine-hum.m4a', 'Engine hum'], 'shore' => ['shore.ogg', 'Shore'], 'rope' => ['rope.wav', 'Rope'],
    'horn' => ['horn.flac', 'Horn'], 'gulls' => ['gulls.mp3', 'Gulls'], 'picture' => ['crossing-picture.mp4', 'Picture sound'],
];
foreach ($names as $id => [$file, $name]) {
    $path = __DIR__.'/media/'.$file;
    $facts = $ffmpeg->probe($path, $file);
    $bytes = 0;
    foreach ($ffmpeg->decode($path, $file, $facts, Mix::DEFAULT_RATE) as $piece) {
        $bytes += strlen($piece);
    }
    $sources[$id] = new Source($id, $name, intdiv($bytes, $facts->channels * intdiv($facts->bits, 8)), $facts->channels, Decibels::unchanged(), null, $facts->hasPicture);
    $files[$id] = $file;
}
$cuts = [];
foreach (file(__DIR__.'/cuts.txt', \FILE_IGNORE_NEW_LINES) ?: [] as $line) {
    [$source, $n, $start, $length] = explode(' ', $line);
    $cuts[$source][(int) $n] = [(float) $start, (float) $length];
}

$mix = Mix::empty();
$edit = static function (array $edit) use (&$mix, $sources): void {
    $mix = Change::by((new EditReader($mix, $sources))->read($edit), $mix);
};
$samples = static fn (float $seconds): int => (int) round($seconds * Mix::DEFAULT_RATE);
$place = static function (string $track, string $source, float $at, float $in = 0.0, ?float $length = null, float $gain = 0.0) use ($edit, $samples, $sources): string {
    $id = sprintf('%s-%d', $source, (int) $at);
    $length = min(null === $length ? \PHP_INT_MAX : $samples($length), $sources[$source]->length - $samples($in));
    $edit(['edit' => 'add-clip', 'track' => $track, 'clip' => $id, 'source' => $source, 'at' => $samples($at), 'in' => $samples($in), 'length' => $length]);
    0.0 === $gain || $edit(['edit' => 'set-clip-gain', 'clips' => [$id], 'gain' => $gain]);

    return $id;
};
/* One sentence of a recording, with a little air around it; $at is when the speech itself starts. */
$say = static function (string $track, string $source, int $sentence, float $at, float $gain = 0.0) use ($place, $cuts): void {
    [$start, $length] = $cuts[$source][$sentence];
    $place($track, $source, $at - 0.3, $start - 0.3, $length + 0.8, $gain);
};

foreach ([['narrator', 'Narrator', 'speech'], ['deckhand', 'Deckhand', 'speech'], ['music', 'Music', 'music'], ['ambience', 'Engine and shore', 'ambience'], ['spots', 'Spot effects', 'effects'], ['picture', 'Picture sound', 'ambience']] as [$id, $name, $stem]) {
    $edit(['edit' => 'add-track', 'track' => $id, 'name' => $name, 'stem' => $stem]);
}
foreach ([14.0, 32.0, 68.0, 100.0, 146.0, 196.0, 252.0, 304.0] as $n => $at) {
    $say('narrator', 'narrator', $n, $at);
}
$place('deckhand', 'wheelhouse', 40.0, 0.0, 16.8);
$say('deckhand', 'wheelhouse', 2, 114.0);
$say('deckhand', 'wheelhouse', 3, 214.0);
foreach ([80.0, 124.0, 164.0, 270.0] as $n => $at) {
    $say('deckhand', 'deck', $n, $at);
}
$place('deckhand', 'pair', 230.0);
$place('music', 'slow', 0.0, gain: -4.5);
$place('music', 'departure', 138.0, gain: -6.0);
$place('music', 'slow', 222.0, 20.0, gain: -4.5);
$place('ambience', 'shore', 0.0, length: 60.0, gain: -6.0);
$place('ambience', 'engine', 60.0, gain: -12.0);
$place('ambience', 'engine', 156.0, length: 84.0, gain: -12.0);
$place('ambience', 'shore', 240.0, 20.0, 96.0, -6.0);
foreach ([['gulls', 3.0], ['rope', 62.0], ['horn', 171.0], ['gulls', 262.0], ['rope', 296.0], ['horn', 316.0]] as [$source, $at]) {
    $place('spots', $source, $at);
}
$place('picture', 'picture', 0.0);
$edit(['edit' => 'set-fader', 'track' => 'picture', 'fader' => -12.0]);
$edit(['edit' => 'set-fader', 'track' => 'music', 'fader' => -3.0]);

/** @var array{sources: list<array{id: string}>} $document */
$document = MixDocument::toArray($mix);
foreach ($document['sources'] as $i => $source) {
    $document['sources'][$i]['file'] = $files[$source['id']];
}
file_put_contents(__DIR__.'/salt-ferry.json', json_encode($document, \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR)."\n");
printf("%d tracks, %d sources, %s\n", count($mix->tracks), count($mix->sources), Wattage\Core\Time\Timecode::clock($mix->length(), $mix->rate));
