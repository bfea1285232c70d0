<?php

/*
 * Makes utterances of invented words and pieces of invented music: voices.php DIR. See README.md.
 */

declare(strict_types=1);

[, $dir] = $argv;
foreach (['say', 'music'] as $part) {
    is_dir("{$dir}/{$part}") || mkdir("{$dir}/{$part}", recursive: true);
}

const FESTIVAL = [
    'train' => ['lp_diphone', 'pc_diphone', 'czech_machac', 'czech_ph', 'msu_ru_nsh_clunits', 'upc_ca_ona_hts'],
    'check' => ['czech_dita', 'czech_krb', 'suo_fi_lj_diphone', 'hy_fi_mv_diphone', 'cmu_us_slt_arctic_hts', 'ked_diphone'],
];
const FLITE = ['train' => ['awb', 'rms'], 'check' => []];
const ESPEAK = [
    'train' => ['en-us', 'en-gb+f3', 'de+m3', 'fr+f5', 'es+m7', 'en+whisper', 'en+whisperf', 'pl+croak', 'sv+f2', 'en+klatt3', 'pt+m1', 'tr+f4', 'nl+klatt', 'ro+whisper'],
    'check' => ['it+whisper', 'hu+f1', 'el+m5', 'hr+m2'],
];
const UTTERANCES = 14;

/**
 * @template T
 *
 * @param list<T> $from
 *
 * @return T
 */
function pick(array $from): mixed
{
    return $from[mt_rand(0, count($from) - 1)];
}

function sentence(int $words): string
{
    $said = [];
    for ($i = 0; $i < $words; ++$i) {
        $word = '';
        for ($k = mt_rand(1, 3); $k > 0; --$k) {
            $word .= pick(['k', 'l', 'm', 't', 's', 'n', 'p', 'r', 'd', 'v', 'b', 'f', 'h', 'j', 'g', 'st', 'pr', 'tr', 'kl']).pick(['a', 'e', 'i', 'o', 'u', 'a', 'e', 'o']);
        }
        $said[] = $word.pick(['', '', 'n', 's', 'r', 'l', 't']).(0 === mt_rand(0, 6) && $i < $words - 1 ? ',' : '');
    }

    return ucfirst(implode(' ', $said)).'.';
}

function run(string $command): bool
{
    return false !== exec("{$command} 2>/dev/null");
}

/** A piece in four voices and drums, as a MIDI file. */
function piece(): string
{
    $length = static function (int $n): string {
        $bytes = chr($n & 127);
        while ($n >>= 7) {
            $bytes = chr(($n & 127) | 128).$bytes;
        }

        return $bytes;
    };
    $events = [];
    $note = static function (int $at, int $long, int $channel, int $note, int $loud) use (&$events): void {
        $events[] = [$at, chr(0x90 | $channel).chr($note).chr($loud)];
        $events[] = [$at + $long, chr(0x80 | $channel).chr($note).chr(0)];
    };
    $beat = 96;
    $perMinute = mt_rand(60, 150);
    foreach ([mt_rand(0, 7), mt_rand(24, 31), mt_rand(32, 39), pick([48, 40, 42, 52, 73, 65, 56, 80, 88, 11, 16, 21])] as $channel => $instrument) {
        $events[] = [0, chr(0xC0 | $channel).chr($instrument)];
    }
    $roots = array_map(static fn (): int => mt_rand(36, 47), range(1, 4));
    [$third, $drums, $broken, $tune] = [mt_rand(3, 4), mt_rand(0, 2) > 0, mt_rand(0, 1), mt_rand(0, 3) > 0];
    for ($bar = 0, $bars = (int) (62 * $perMinute / 240); $bar < $bars; ++$bar) {
        [$at, $root] = [$bar * 4 * $beat, $roots[$bar % 4]];
        $chord = [$root + 12, $root + 12 + $third, $root + 19, $root + 24];
        $note($at, 2 * $beat - 5, 2, $root, 90);
        $note($at + 2 * $beat, 2 * $beat - 5, 2, $root + 7 * mt_rand(0, 1), 85);
        for ($k = 0; $k < 8; ++$k) {
            $broken && $note($at + intdiv($k * $beat, 2), $beat, 0, pick($chord) + 12 * mt_rand(0, 1), mt_rand(55, 90));
            $drums && $note($at + intdiv($k * $beat, 2), 20, 9, 0 === $k % 4 ? 36 : (2 === $k % 4 ? 38 : 42), mt_rand(60, 100));
        }
        foreach ($broken ? [] : $chord as $one) {
            $note($at, 4 * $beat - 8, 1, $one, 70);
        }
        for ($k = 0; $tune && $k < 4; ++$k) {
            mt_rand(0, 2) > 0 && $note($at + $k * $beat, intdiv(mt_rand(1, 4) * $beat, 2), 3, $root + 24 + pick([0, 2, 3, 5, 7, 8, 10, 12]), mt_rand(60, 110));
        }
    }
    usort($events, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
    $track = "\0\xFF\x51\x03".substr(pack('N', intdiv(60_000_000, $perMinute)), 1);
    $last = 0;
    foreach ($events as [$at, $bytes]) {
        $track .= $length($at - $last).$bytes;
        $last = $at;
    }
    $track .= "\0\xFF\x2F\0";

    return 'MThd'.pack('Nnnn', 6, 0, 1, $beat).'MTrk'.pack('N', strlen($track)).$track;
}

mt_srand(7);
foreach (['train', 'check'] as $set) {
    $voices = [
        ...array_map(static fn (string $v): array => [$v, static fn (string $text, string $to): bool => run('echo '.escapeshellarg($text)." | timeout 30 text2wave -eval '(voice_{$v})' -o {$to}")], FESTIVAL[$set]),
        ...array_map(static fn (string $v): array => ["flite_{$v}", static fn (string $text, string $to): bool => run("flite -voice {$v} -t ".escapeshellarg($text)." -o {$to}")], FLITE[$set]),
        ...array_map(static fn (string $v): array => ['espeak_'.strtr($v, '+', '_'), static fn (string $text, string $to): bool => run("espeak-ng -v {$v} -p ".mt_rand(35, 65)." -w {$to} ".escapeshellarg($text))], ESPEAK[$set]),
    ];
    foreach ($voices as [$name, $say]) {
        for ($i = 0; $i < UTTERANCES; ++$i) {
            $raw = "{$dir}/raw.wav";
            // The first three are a word each.
            $say(sentence($i < 3 ? 1 : mt_rand(3, 12)), $raw);
            is_file($raw) && run("sox {$raw} -b 16 -c 1 -r 48000 {$dir}/say/{$set}-{$name}-{$i}.wav gain -1 tempo -s ".mt_rand(85, 120) / 100);
            @unlink($raw);
        }
    }
    for ($i = 0; $i < ('train' === $set ? 64 : 8); ++$i) {
        file_put_contents("{$dir}/piece.mid", piece());
        run("fluidsynth -q -ni -g 0.6 -r 48000 -F {$dir}/raw.wav /usr/share/sounds/sf2/FluidR3_GM.sf2 {$dir}/piece.mid");
        run("sox {$dir}/raw.wav -b 16 -c 1 -r 48000 {$dir}/music/{$set}-{$i}.wav norm -6 trim 0 60");
    }
}
