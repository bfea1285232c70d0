<?php

/*
 * What is found of the speech in the scenes of the check, and what else is taken for it: check.php DIR. See README.md.
 */

declare(strict_types=1);

require dirname(__DIR__, 2).'/vendor/autoload.php';

use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Timeline\Aim;

ini_set('memory_limit', '2G');
const BLOCK = 960;

[, $dir] = $argv;
$found = $starts = [];
foreach (glob("{$dir}/scenes/check-*") ?: [] as $file) {
    /** @var array{records: string, blocks: string, labels: string, about: array{kind: string, voice: ?string, noise: string, over: float, music: ?float}} $scene as scenes.php writes it */
    $scene = unserialize((string) file_get_contents($file));
    ['records' => $records, 'blocks' => $blocks, 'labels' => $labels, 'about' => $about] = $scene;
    $spans = Activity::in(SpeechLevels::of(SourceBlocks::fromBytes($blocks, 1)), 48_000, Aim::USUAL_SENSITIVITY, SpeechChance::ofRecords([$records]));
    $said = str_repeat('0', strlen($labels));
    foreach ($spans as $span) {
        for ($i = intdiv($span->from, BLOCK), $end = min(strlen($said), intdiv($span->to, BLOCK)); $i < $end; ++$i) {
            $said[$i] = '1';
        }
    }
    $over = (int) min($about['over'], $about['music'] ?? 60.0);
    $kinds = 'talk' === $about['kind']
        ? [sprintf('speech, %s%s', $over >= 15 ? '15 dB and more over the rest' : sprintf('%2d dB over the rest', $over), null === $about['music'] ? '' : ', with music'), "  {$about['voice']}"]
        : [null === $about['music'] ? "no speech, {$about['noise']}" : 'no speech, music'];
    foreach ([...$kinds, 'talk' === $about['kind'] ? 'all with speech' : 'all without'] as $kind) {
        $found[$kind] ??= [0, 0, 0, 0];
        for ($i = 0, $n = strlen($labels); $i < $n; ++$i) {
            $speaks = '1' === $labels[$i];
            ++$found[$kind][$speaks ? 0 : 2];
            $found[$kind][$speaks ? 1 : 3] += (int) $said[$i];
        }
    }
    // Beginnings after a pause of 0.6 s and more.
    preg_match_all('/(?<=0{30})1/', 'talk' === $about['kind'] ? $labels : '', $begins, \PREG_OFFSET_CAPTURE);
    foreach ($begins[0] as [, $at]) {
        $off = min([99, ...array_map(static fn ($span): float => abs($span->from / BLOCK - $at), $spans)]);
        $starts[$over >= 20 ? '20 dB and more' : "{$over} dB"][] = $off <= 4 ? 1 : 0;
    }
}
ksort($found);
foreach ($found as $kind => [$speech, $heard, $rest, $wrong]) {
    printf("%-58s %s %s\n", $kind, $speech > 0 ? sprintf('found %5.1f %% of %6.1f s', 100 * $heard / $speech, $speech / 50) : str_repeat(' ', 24), $rest > 0 ? sprintf('  else taken for it %5.1f %% of %6.1f s', 100 * $wrong / $rest, $rest / 50) : '');
}
foreach ($starts as $over => $near) {
    printf("starts within 80 ms, %-37s %5.1f %% of %d\n", $over, 100 * array_sum($near) / count($near), count($near));
}
