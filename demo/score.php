<?php

/*
 * Writes one of the demo's two tunes as a standard MIDI file (format 0) to standard output.
 * php score.php slow|departure
 */

declare(strict_types=1);

const TICKS = 480;

/** @return string a number as MIDI writes it, seven bits a byte */
function variable(int $value): string
{
    $bytes = chr($value & 0x7F);
    while (($value >>= 7) > 0) {
        $bytes = chr(($value & 0x7F) | 0x80).$bytes;
    }

    return $bytes;
}

/**
 * @param list<array{int, int, int, int, int}> $notes channel, start and length in ticks, pitch, velocity
 * @param array<int, int> $programs
 */
function midi(array $notes, int $bpm, array $programs): string
{
    $events = [];
    foreach ($notes as [$channel, $start, $length, $pitch, $velocity]) {
        $events[] = [$start, 1, chr(0x90 | $channel).chr($pitch).chr($velocity)];
        $events[] = [$start + $length, 0, chr(0x80 | $channel).chr($pitch).chr(0)];
    }
    sort($events);
    $track = variable(0)."\xFF\x51\x03".substr(pack('N', intdiv(60_000_000, $bpm)), 1);
    foreach ($programs as $channel => $program) {
        $track .= variable(0).chr(0xC0 | $channel).chr($program);
    }
    $now = 0;
    foreach ($events as [$at, , $bytes]) {
        $track .= variable($at - $now).$bytes;
        $now = $at;
    }
    $track .= variable(2 * TICKS)."\xFF\x2F\x00";

    return 'MThd'.pack('Nnnn', 6, 0, 1, TICKS).'MTrk'.pack('N', strlen($track)).$track;
}

$tune = $argv[1] ?? 'slow';
$notes = [];
if ('slow' === $tune) {
    // A minor, three in a bar: accordion melody over held chords and a low string.
    $chords = [[57, 60, 64], [53, 57, 60], [55, 59, 62], [52, 55, 59]];
    $melody = [[76, 74, 72], [69, 72, 77], [74, 71, 67], [71, 67, 64]];
    for ($bar = 0; $bar < 52; ++$bar) {
        $start = $bar * 3 * TICKS;
        foreach ($chords[$bar % 4] as $pitch) {
            $notes[] = [0, $start, 3 * TICKS - 40, $pitch, 62 + 8 * (intdiv($bar, 4) % 2)];
        }
        $notes[] = [1, $start, 3 * TICKS - 20, $chords[$bar % 4][0] - 24, 70];
        foreach ($melody[($bar + intdiv($bar, 8)) % 4] as $beat => $pitch) {
            if ($bar >= 4 && (0 !== $bar % 8 || 2 !== $beat)) {
                $notes[] = [2, $start + $beat * TICKS, TICKS - 30, $pitch, 78 + 6 * $beat];
            }
        }
    }
    echo midi($notes, 72, [0 => 21, 1 => 48, 2 => 21]);
} else {
    // D minor, four in a bar: plucked bass, strings, accordion in eighths.
    $chords = [[50, 53, 57], [50, 53, 57], [46, 50, 53], [48, 52, 55]];
    for ($bar = 0; $bar < 36; ++$bar) {
        $start = $bar * 4 * TICKS;
        $chord = $chords[$bar % 4];
        for ($eighth = 0; $eighth < 8; ++$eighth) {
            $notes[] = [0, $start + $eighth * 240, 200, $chord[$eighth % 3] + ($eighth % 4 < 2 ? 12 : 24), 70 + ($eighth % 2 ? 0 : 16)];
        }
        foreach ([0, 2] as $beat) {
            $notes[] = [1, $start + $beat * TICKS, TICKS - 40, $chord[0] - 12, 92];
        }
        foreach ($chord as $pitch) {
            $notes[] = [2, $start, 4 * TICKS - 20, $pitch + 12, 58];
        }
    }
    echo midi($notes, 118, [0 => 21, 1 => 32, 2 => 48]);
}
