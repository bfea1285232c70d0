<?php

/*
 * wattage:measure with true peak against ffmpeg's ebur128=peak=true: whole processes, by turns, on the same files.
 * Run with bench/run, which sets PHP and the environment up.
 */

declare(strict_types=1);

const TIMES = 3;

$root = dirname(__DIR__);
$dir = sys_get_temp_dir().'/wattage-measure-'.getmypid();
mkdir($dir);
register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($dir)));
$php = [\PHP_BINARY, '-d', 'opcache.enable_cli=1', '-d', 'opcache.jit_buffer_size=64M', '-d', 'opcache.jit=tracing', '-d', 'opcache.file_update_protection=0', '-d', 'memory_limit=64M'];

/**
 * @param list<string> $command
 *
 * @return array{float, string} seconds, what it printed
 */
function timed(array $command): array
{
    $begun = microtime(true);
    $process = proc_open($command, [1 => ['pipe', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes);
    $printed = is_resource($process) ? (string) stream_get_contents($pipes[1]) : '';
    if (!is_resource($process) || 0 !== proc_close($process)) {
        throw new RuntimeException('Failed: '.implode(' ', $command).$printed);
    }

    return [microtime(true) - $begun, $printed];
}

$seconds = 600;
$media = "{$root}/demo/media";
$sounds = [
    'music' => ['must ≤ 0.8', ['-stream_loop', '20', '-i', "{$media}/departure.mp3"], 'aformat=channel_layouts=stereo'],
    'speech' => ['must ≤ 0.8', ['-stream_loop', '30', '-i', "{$media}/narrator.ogg"], 'aformat=channel_layouts=stereo'],
    'limited noise' => ['must ≤ 1.5', ['-f', 'lavfi', '-i', "anoisesrc=r=48000:a=1:c=white:d={$seconds}"], 'volume=6,asoftclip=type=hard,aformat=channel_layouts=stereo'],
    'sine of 11 kHz' => ['must ≤ 2.0', ['-f', 'lavfi', '-i', "sine=f=11000:r=48000:d={$seconds}"], 'volume=7,aformat=channel_layouts=stereo'],
];
foreach ($sounds as $name => [$must, $input, $filter]) {
    $file = "{$dir}/sound.wav";
    timed(['ffmpeg', '-v', 'error', '-y', ...$input, '-t', (string) $seconds, '-af', $filter, '-ar', '48000', '-c:a', 'pcm_s16le', $file]);
    $ours = $theirs = [];
    for ($i = 0; $i < TIMES; ++$i) {
        $theirs[] = timed(['ffmpeg', '-nostdin', '-hide_banner', '-i', $file, '-af', 'ebur128=peak=true', '-f', 'null', '-'])[0];
        [$ours[], $printed] = timed([...$php, "{$root}/bin/console", 'wattage:measure', $file, '--json']);
    }
    sort($ours);
    sort($theirs);
    printf("measure 10 min of %-16s %5.2f s, ffmpeg %5.2f s, ratio %.2f   (%s)   %s\n", $name, $ours[1], $theirs[1], $ours[1] / $theirs[1], $must, trim($printed));
}
