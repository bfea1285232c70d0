<?php

/*
 * Trains both networks on the scenes and writes core/Speech/SpeechModel.php: train.php DIR [OUT]. See README.md.
 */

declare(strict_types=1);

require dirname(__DIR__, 2).'/vendor/autoload.php';

use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Core\Speech\SpeechFeatures;

ini_set('memory_limit', '8G');

/** A network with one hidden layer, trained by Adam (Kingma, Ba, 2015 [M]) on the logarithm of what it gets wrong. */
final class Trained
{
    private const BATCH = 64;
    private const RATE = 0.004;

    /** @var list<float> units one after another, each with its bias last; then the output's weights and bias */
    public array $weights = [];

    public function __construct(private readonly int $inputs, private readonly int $units)
    {
        for ($i = 0; $i < $units * ($inputs + 1); ++$i) {
            $this->weights[] = (mt_rand() / mt_getrandmax() - 0.5) * 2.0 / sqrt($inputs);
        }
        for ($i = 0; $i <= $units; ++$i) {
            $this->weights[] = (mt_rand() / mt_getrandmax() - 0.5) * 2.0 / sqrt($units);
        }
    }

    /**
     * @param string $rows see {@see kept()}, one after another
     * @param list<float> $answers 0 … 1
     */
    public function learn(string $rows, array $answers, int $epochs): void
    {
        [$inputs, $units, $w] = [$this->inputs, $this->units, $this->weights];
        $out = $units * ($inputs + 1);
        $n = count($w);
        $mean = $square = array_fill(0, $n, 0.0);
        $order = range(0, count($answers) - 1);
        $step = 0;
        for ($epoch = 0; $epoch < $epochs; ++$epoch) {
            shuffle($order);
            $rate = self::RATE * (0.5 + 0.5 * cos(\M_PI * $epoch / $epochs));
            $wrong = 0.0;
            for ($from = 0; $from + self::BATCH <= count($order); $from += self::BATCH) {
                $slope = array_fill(0, $n, 0.0);
                for ($k = $from; $k < $from + self::BATCH; ++$k) {
                    $row = self::unpacked($rows, $order[$k], $inputs);
                    $sum = $w[$n - 1];
                    $hidden = [];
                    for ($u = $at = 0; $u < $units; ++$u, $at += $inputs + 1) {
                        $in = $w[$at + $inputs];
                        for ($i = 0; $i < $inputs; ++$i) {
                            $in += $w[$at + $i] * $row[$i];
                        }
                        $hidden[] = $h = tanh($in);
                        $sum += $w[$out + $u] * $h;
                    }
                    $chance = 1.0 / (1.0 + exp(-$sum));
                    $answer = $answers[$order[$k]];
                    $wrong -= $answer * log($chance + 1e-9) + (1.0 - $answer) * log(1.0 - $chance + 1e-9);
                    $error = $chance - $answer;
                    $slope[$n - 1] += $error;
                    for ($u = $at = 0; $u < $units; ++$u, $at += $inputs + 1) {
                        $h = $hidden[$u];
                        $slope[$out + $u] += $error * $h;
                        $back = $error * $w[$out + $u] * (1.0 - $h * $h);
                        for ($i = 0; $i < $inputs; ++$i) {
                            $slope[$at + $i] += $back * $row[$i];
                        }
                        $slope[$at + $inputs] += $back;
                    }
                }
                ++$step;
                [$a, $b] = [1.0 - 0.9 ** $step, 1.0 - 0.999 ** $step];
                for ($i = 0; $i < $n; ++$i) {
                    $g = $slope[$i] / self::BATCH + 1e-5 * $w[$i];
                    $mean[$i] = 0.9 * $mean[$i] + 0.1 * $g;
                    $square[$i] = 0.999 * $square[$i] + 0.001 * $g * $g;
                    $w[$i] -= $rate * ($mean[$i] / $a) / (sqrt($square[$i] / $b) + 1e-8);
                }
            }
            fprintf(\STDERR, "epoch %d: %.4f\n", $epoch + 1, $wrong / count($order));
        }
        $this->weights = array_values($w);
    }

    /** @param list<float> $row */
    public function answer(array $row): float
    {
        $sum = $this->weights[count($this->weights) - 1];
        $out = $this->units * ($this->inputs + 1);
        for ($u = $at = 0; $u < $this->units; ++$u, $at += $this->inputs + 1) {
            $in = $this->weights[$at + $this->inputs];
            foreach ($row as $i => $x) {
                $in += $this->weights[$at + $i] * $x;
            }
            $sum += $this->weights[$out + $u] * tanh($in);
        }

        return 1.0 / (1.0 + exp(-$sum));
    }

    /** @param list<float> $row as float32 */
    public static function kept(array $row): string
    {
        return pack('g*', ...$row);
    }

    /** @return list<float> */
    public static function unpacked(string $rows, int $number, int $inputs): array
    {
        /** @var array<int, float> $row */
        $row = unpack("g{$inputs}", $rows, 4 * $inputs * $number);

        return array_values($row);
    }

    public function packed(): string
    {
        return base64_encode(pack('v*', ...array_map(static fn (float $w): int => (int) round(1024.0 * max(-31.99, min(31.99, $w))) & 0xFFFF, $this->weights)));
    }
}

function written(string $packed): string
{
    return implode("\n        .", array_map(static fn (string $line): string => "'{$line}'", str_split($packed, 150)));
}

[, $dir, $to] = [...$argv, dirname(__DIR__, 2).'/core/Speech/SpeechModel.php'];
const FIRST_UNITS = 40;
const SECOND_UNITS = 16;
mt_srand(5);
$rows = '';
$answers = $lengths = [];
$features = new SpeechFeatures();
foreach (glob("{$dir}/scenes/train-*") ?: [] as $file) {
    /** @var array{records: string, labels: string} $scene as scenes.php writes it */
    $scene = unserialize((string) file_get_contents($file));
    ['records' => $records, 'labels' => $labels] = $scene;
    $lengths[] = $count = intdiv(strlen($records), BandMeter::RECORD);
    for ($i = 0; $i < $count; ++$i) {
        $answers[] = (((int) ($labels[2 * $i] ?? 0)) + ((int) ($labels[2 * $i + 1] ?? 0))) / 2.0;
    }
    foreach ($features->of($records, 0, $count) as $row) {
        $rows .= Trained::kept($row);
    }
}
$first = new Trained(SpeechFeatures::COUNT, FIRST_UNITS);
$first->learn($rows, $answers, 22);
$around = '';
$inputs = $at = 0;
foreach ($lengths as $count) {
    $scene = array_map(static fn (int $i): array => Trained::unpacked($rows, $i, SpeechFeatures::COUNT), range($at, $at + $count - 1));
    $guesses = array_map($first->answer(...), $scene);
    foreach (array_keys($scene) as $i) {
        $inputs = count($row = SpeechChance::around($i, $guesses, $scene));
        $around .= Trained::kept($row);
    }
    $at += $count;
}
$second = new Trained($inputs, SECOND_UNITS);
$second->learn($around, $answers, 10);
[$one, $two] = [written($first->packed()), written($second->packed())];
[$firstUnits, $secondUnits] = [FIRST_UNITS, SECOND_UNITS];
file_put_contents($to, <<<PHP
    <?php

    declare(strict_types=1);

    namespace Wattage\\Core\\Speech;

    /**
     * What tools/speech-model learned from made scenes, with voices, music and noise that no test uses. Made by it; not to be changed by hand.
     */
    final class SpeechModel
    {
        /** From {@see SpeechFeatures} to a first guess. */
        public const FIRST_UNITS = {$firstUnits};
        public const FIRST = {$one};

        /** From the guesses around a moment to the second. */
        public const SECOND_UNITS = {$secondUnits};
        public const SECOND = {$two};
    }

    PHP);
