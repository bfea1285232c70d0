<?php

/*
 * Makes scenes of thirty seconds, and keeps what the core measures of them beside what is known: scenes.php DIR SET FROM TO. See README.md.
 */

declare(strict_types=1);

require dirname(__DIR__, 2).'/vendor/autoload.php';

use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

ini_set('memory_limit', '3G');
const RATE = 48_000;
const SECONDS = 30;
const BLOCK = 960;

/** @return list<float> */
function sound(string $file): array
{
    $bytes = (string) file_get_contents($file);
    $data = substr($bytes, (int) strpos($bytes, 'data') + 8);

    return array_map(static fn (int $x): float => ($x < 32_768 ? $x : $x - 65_536) / 32_768, array_values(unpack('v*', $data) ?: []));
}

final class Scene
{
    private readonly Random $random;
    private readonly Noise $noise;
    /** @var list<float> */
    private array $sound;

    public function __construct(private readonly string $dir, private readonly string $set, int $seed)
    {
        $this->random = new Random($seed);
        $this->noise = new Noise($this->random);
        $this->sound = array_fill(0, SECONDS * RATE, 0.0);
    }

    /** @return array{list<float>, string, array<string, mixed>} the sound, for each 20 ms whether somebody speaks, and what it is */
    public function made(): array
    {
        $frames = SECONDS * RATE;
        $talks = $this->chance(0.65);
        $level = 10.0 ** (-$this->random->float(12, 40) / 20);
        $about = ['kind' => $talks ? 'talk' : 'other', 'voice' => null, 'noise' => $this->pick([...Noise::KINDS, 'none']), 'over' => (float) $this->pick([60, 40, 30, 20, 15, 10, 5, 5, 0, 0]), 'music' => null];
        $labels = str_repeat('0', intdiv($frames, BLOCK));
        if ($talks) {
            [$about['voice'], $said] = $this->talk();
            $labels = self::labels($said);
            $said = $this->coloured($said);
            $this->add($said, 0, $level / self::activeRms($said));
        }
        $about['over'] = 'none' === $about['noise'] ? 60.0 : $about['over'];
        $this->add($this->noise->steady('none' === $about['noise'] ? 'pink' : $about['noise'], $frames, $level * 10.0 ** (-('none' === $about['noise'] ? $this->random->float(45, 65) : $about['over']) / 20)), 0, 1.0);
        // What is hardest is learned more of.
        $more = 'train' === $this->set ? 0.15 : 0.0;
        if ($this->chance($more + ($talks ? 0.4 : 0.45))) {
            $about['music'] = (float) $this->pick([25, 20, 15, 10, 5, 5, 0, 0]);
            $rms = $level * 10.0 ** (-$about['music'] / 20);
            $music = $this->chance(0.75) ? sound($this->pick(glob("{$this->dir}/music/{$this->set}-*.wav") ?: [])) : $this->noise->music($frames, 0.1);
            $this->add(Noise::scaled(array_slice($music, $this->random->int(0, max(0, count($music) - $frames)), $frames), $rms), 0, 1.0);
        }
        if ($this->chance($talks ? 0.4 : 0.65)) {
            for ($n = $this->random->int(1, $talks ? 8 : 14); $n > 0; --$n) {
                $this->add($this->noise->event($this->pick(Noise::EVENTS), 2.0 * $level * 10.0 ** ($this->random->float(-10, 16) / 20)), $this->random->int(0, $frames - RATE), 1.0);
            }
        }
        $peak = max(1e-9, max($this->sound), -min($this->sound));
        $gain = min(1.0, 0.98 / $peak);

        return [array_map(static fn (float $x): float => $x * $gain, $this->sound), $labels, $about];
    }

    /** @return array{string, list<float>} */
    private function talk(): array
    {
        $all = glob("{$this->dir}/say/{$this->set}-*.wav") ?: [];
        $voice = (string) preg_replace('/-\d+\.wav$/', '', $this->pick($all));
        $files = array_values(array_filter($all, static fn (string $file): bool => str_starts_with($file, "{$voice}-")));
        // Now and then others answer. In training, voices are made deeper and higher, too.
        $files = $this->chance(0.2) ? [...$files, ...array_slice($all, $this->random->int(0, max(0, count($all) - 28)), 28)] : $files;
        $speed = 'train' === $this->set && $this->chance(0.6) ? $this->random->float(0.78, 1.28) : 1.0;
        $pauses = $this->random->float(0.5, 2.0);
        $said = array_fill(0, SECONDS * RATE, 0.0);
        for ($at = (int) (RATE * $this->random->float(0, 2)); $at < SECONDS * RATE;) {
            $words = self::faster(sound($this->pick($files)), $speed);
            $gain = 10.0 ** ($this->random->float(-4, 4) / 20);
            foreach ($words as $i => $x) {
                if (isset($said[$at + $i])) {
                    $said[$at + $i] += $gain * $x;
                }
            }
            $at += count($words) + (int) (RATE * ($this->chance(0.5) ? $this->random->float(0.2, 0.8) : $this->random->float(0.5, 3.5) / $pauses));
        }

        return [basename($voice), $said];
    }

    /**
     * Dull, thin or narrow microphones, and rooms.
     *
     * @param list<float> $sound
     *
     * @return list<float>
     */
    private function coloured(array $sound): array
    {
        [$low, $high] = [$this->chance(0.35) ? $this->random->float(0.3, 0.8) : 0.0, $this->chance(0.3) ? $this->random->float(0.7, 0.98) : 1.0];
        $y = $z = $before = 0.0;
        foreach ($sound as $i => $x) {
            $z = 1.0 === $high ? $x : $high * ($z + $x - $before);
            $before = $x;
            $y = $low * $y + (1.0 - $low) * $z;
            $sound[$i] = $y;
        }
        if (!$this->chance(0.4)) {
            return $sound;
        }
        [$wet, $back] = [$this->random->float(0.04, 0.24), $this->random->float(0.6, 0.85)];
        $room = $sound;
        foreach ([1557, 1877, 2399, 3011] as $delay) {
            $line = array_fill(0, (int) ($delay * $this->random->float(0.6, 1.6)), 0.0);
            $k = 0;
            foreach ($sound as $i => $x) {
                $late = $line[$k];
                $line[$k] = $x + $back * $late;
                $k = $k + 1 < count($line) ? $k + 1 : 0;
                $room[$i] += $wet * $late;
            }
        }

        return array_values($room);
    }

    /**
     * Where the clean voice is within 33 dB of its loud parts; gaps of a quarter second are part of it.
     *
     * @param list<float> $said
     */
    private static function labels(array $said): string
    {
        $powers = self::powers($said);
        $sorted = $powers;
        rsort($sorted);
        $threshold = max(1e-9, ($sorted[intdiv(count($sorted), 20)] ?? 0.0) * 10.0 ** -3.3);
        $labels = implode('', array_map(static fn (float $power): string => $power > $threshold ? '1' : '0', $powers));
        $labels = (string) preg_replace_callback('/(?<=1)0{1,12}(?=1)/', static fn (array $gap): string => str_repeat('1', strlen($gap[0])), $labels);

        return (string) preg_replace_callback('/(?<!1)1{1,2}(?!1)/', static fn (array $run): string => str_repeat('0', strlen($run[0])), $labels);
    }

    /** @param list<float> $said */
    private static function activeRms(array $said): float
    {
        $powers = self::powers($said);
        $least = 1e-3 * max([0.0, ...$powers]);
        $loud = array_filter($powers, static fn (float $power): bool => $power > $least);

        return sqrt(max(1e-12, array_sum($loud) / max(1, count($loud))));
    }

    /**
     * @param list<float> $sound
     *
     * @return list<float> mean square of each 20 ms
     */
    private static function powers(array $sound): array
    {
        $powers = [];
        for ($at = 0, $n = count($sound); $at + BLOCK <= $n; $at += BLOCK) {
            $sum = 0.0;
            for ($i = $at; $i < $at + BLOCK; $i += 2) {
                $sum += $sound[$i] * $sound[$i];
            }
            $powers[] = 2.0 * $sum / BLOCK;
        }

        return $powers;
    }

    /**
     * @param list<float> $sound
     *
     * @return list<float>
     */
    private static function faster(array $sound, float $by): array
    {
        $faster = [];
        for ($at = 0.0, $last = count($sound) - 1; $at < $last; $at += $by) {
            $i = (int) $at;
            $faster[] = $sound[$i] + ($at - $i) * ($sound[$i + 1] - $sound[$i]);
        }

        return $faster;
    }

    /** @param list<float> $sound */
    private function add(array $sound, int $at, float $gain): void
    {
        foreach ($sound as $i => $x) {
            if (isset($this->sound[$at + $i])) {
                $this->sound[$at + $i] += $gain * $x;
            }
        }
    }

    private function chance(float $of): bool
    {
        return $this->random->float(0, 1) < $of;
    }

    /**
     * @template T
     *
     * @param list<T> $from
     *
     * @return T
     */
    private function pick(array $from): mixed
    {
        return $from[$this->random->int(0, count($from) - 1)];
    }
}

[, $dir, $set, $from, $to] = $argv;
is_dir("{$dir}/scenes") || mkdir("{$dir}/scenes");
for ($seed = (int) $from; $seed < (int) $to; ++$seed) {
    $file = "{$dir}/scenes/{$set}-{$seed}";
    if (is_file($file)) {
        continue;
    }
    [$sound, $labels, $about] = (new Scene($dir, $set, 'check' === $set ? 1_000_000 + $seed : $seed))->made();
    $format = PcmFormat::of(1, 16);
    [$blocks, $records] = [Sound::memory(), Sound::memory()];
    $measurer = new SourceMeasurer($format, RATE, $blocks, Sound::memory(), new BandMeter($format, RATE, RATE, Sound::memory(), $records));
    foreach (array_chunk($sound, RATE) as $second) {
        $measurer->push(Sound::pcm16($second));
    }
    $measurer->finish();
    file_put_contents($file, serialize(['records' => Sound::contents($records), 'blocks' => Sound::contents($blocks), 'labels' => $labels, 'about' => $about]));
}
