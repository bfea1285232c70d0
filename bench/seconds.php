<?php

/* How commands are timed one after the other, for bench/core.php and bench/filters.php. */

declare(strict_types=1);

const RATE = 48_000;
const RUNS = 5;
const NOISE = 'anoisesrc=r=48000:a=0.25:c=pink:d=%d:seed=%d,aformat=channel_layouts=stereo,tremolo=f=0.3:d=0.8';
const PHP_AS_WORKERS = [\PHP_BINARY, '-d', 'opcache.enable_cli=1', '-d', 'opcache.jit_buffer_size=64M', '-d', 'opcache.jit=tracing', '-d', 'opcache.file_update_protection=0', '-d', 'memory_limit=256M'];

/** @return string a directory that goes when the script ends */
function directory(): string
{
    $dir = sys_get_temp_dir().'/wattage-bench-'.getmypid();
    mkdir($dir);
    register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($dir)));

    return $dir;
}

/**
 * @param int $of 0 for this process, 1 for those it has waited for
 *
 * @return float seconds of processor so far
 */
function used(int $of): float
{
    /** @var array<string, int> $used */
    $used = getrusage($of);

    return $used['ru_utime.tv_sec'] + $used['ru_stime.tv_sec'] + ($used['ru_utime.tv_usec'] + $used['ru_stime.tv_usec']) / 1e6;
}

/**
 * Runs a program.
 *
 * @param list<string> $command
 *
 * @return array{float, float, string} its wall and processor seconds, those of its own children too, and what it said
 */
function seconds(array $command): array
{
    $begun = microtime(true);
    $before = used(1);
    $process = proc_open($command, [1 => ['file', '/dev/null', 'w'], 2 => ['pipe', 'w']], $pipes);
    $said = is_resource($process) ? (string) stream_get_contents($pipes[2]) : '';
    if (!is_resource($process) || 0 !== proc_close($process)) {
        throw new RuntimeException('Failed: '.implode(' ', $command)."\n{$said}");
    }

    return [microtime(true) - $begun, used(1) - $before, $said];
}

/**
 * @param float $length seconds of sound
 * @param list<string> $ours
 * @param list<string> $theirs
 */
function row(string $what, float $length, array $ours, array $theirs, string $against): void
{
    $runs = [];
    for ($i = 0; $i < RUNS; ++$i) {
        [$their, $our] = [seconds($theirs), seconds($ours)];
        $runs[] = [$our[1] / $their[1], $our[0] / $their[0], $our[1], $our[2]];
    }
    $median = static function (int $column) use ($runs): float {
        $values = array_map(floatval(...), array_column($runs, $column));
        sort($values);

        return $values[intdiv(count($values), 2)];
    };
    $memory = is_numeric(trim((string) $runs[0][3])) ? sprintf(', %.0f MB', (float) $runs[0][3]) : '';
    $all = implode(' ', array_map(static fn (array $run): string => sprintf('%.2f', $run[0]), $runs));
    printf("%-46s processor %.2f, wall %.2f of %s; %.1f s, %.0f× real time%s   (%s)\n", $what, $median(0), $median(1), $against, $median(2), $length / $median(2), $memory, $all);
}

/** @return list<string> */
function job(string ...$arguments): array
{
    return [...PHP_AS_WORKERS, __DIR__.'/job.php', ...array_values($arguments)];
}
