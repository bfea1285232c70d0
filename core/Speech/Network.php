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

    /** @param list<float> $inputs */
    public function answer(array $inputs): float
    {
        $sum = $this->bias;
        foreach ($this->hidden as $unit => $weights) {
            $in = $weights[\count($inputs)];
            foreach ($inputs as $i => $input) {
                $in += $weights[$i] * $input;
            }
            $sum += $this->output[$unit] * tanh($in);
        }

        return 1.0 / (1.0 + exp(-$sum));
    }
}
