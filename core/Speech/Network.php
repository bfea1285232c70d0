<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

/** A neural network with one hidden layer and one answer between 0 and 1. */
final readonly class Network
{
    /** A weight is a whole number of so many parts. */
    private const PARTS = 1024;

    /**
     * @param list<list<float>> $hidden of each unit: a weight for each input, and last what it begins with
     * @param list<float> $output a weight for each unit
     */
    private function __construct(private array $hidden, private array $output, private float $bias)
    {
    }

    /** @param string $packed base64 of int16, little-endian, in 1/1024: the hidden units one after another, each with its bias last, then the output's */
    public static function unpacked(string $packed, int $units): self
    {
        /** @var array<int, int> $words */
        $words = unpack('v*', (string) base64_decode($packed, true)) ?: [];
        $weights = array_map(static fn (int $word): float => ($word < 32_768 ? $word : $word - 65_536) / self::PARTS, array_values($words));
        $output = array_splice($weights, -$units - 1);

        return new self(array_chunk($weights, max(1, intdiv(\count($weights), max(1, $units)))), \array_slice($output, 0, $units), $output[$units]);
    }

    /**
     * Four rows at a time, so that each weight is looked up once for all four.
     *
     * @param list<list<float>> $rows inputs
     *
     * @return list<float>
     */
    public function answers(array $rows): array
    {
        $answers = [];
        for ($i = 0, $n = \count($rows); $i < $n; $i += 4) {
            array_push($answers, ...$this->four($rows[$i], $rows[$i + 1] ?? $rows[$i], $rows[$i + 2] ?? $rows[$i], $rows[$i + 3] ?? $rows[$i]));
        }

        return \array_slice($answers, 0, $n);
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     * @param list<float> $c
     * @param list<float> $d
     *
     * @return array{float, float, float, float}
     */
    private function four(array $a, array $b, array $c, array $d): array
    {
        $n = \count($a);
        $first = $second = $third = $fourth = $this->bias;
        foreach ($this->hidden as $unit => $weights) {
            $p = $q = $r = $s = $weights[$n];
            for ($i = 0; $i < $n; ++$i) {
                $weight = $weights[$i];
                $p += $weight * $a[$i];
                $q += $weight * $b[$i];
                $r += $weight * $c[$i];
                $s += $weight * $d[$i];
            }
            $out = $this->output[$unit];
            $first += $out * tanh($p);
            $second += $out * tanh($q);
            $third += $out * tanh($r);
            $fourth += $out * tanh($s);
        }

        return [1.0 / (1.0 + exp(-$first)), 1.0 / (1.0 + exp(-$second)), 1.0 / (1.0 + exp(-$third)), 1.0 / (1.0 + exp(-$fourth))];
    }
}
