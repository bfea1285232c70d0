<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use ArrayAccess;
use Countable;
use Generator;
use IteratorAggregate;
use LogicException;
use Wattage\Core\Signal\FloatDecoder;

/**
 * A row of numbers, one for every 100 ms, kept as 32-bit floats: a day of them takes 3.5 MB so, and 14 MB as an array. What goes through all of it
 * does so a piece at a time.
 *
 * @implements ArrayAccess<int, float>
 * @implements IteratorAggregate<int, float>
 */
final readonly class Series implements ArrayAccess, Countable, IteratorAggregate
{
    /** Numbers to look at together: an hour. */
    public const AT_ONCE = 36_000;
    private const BYTES = 4;

    private int $count;

    private function __construct(private string $packed)
    {
        $this->count = intdiv(\strlen($packed), self::BYTES);
    }

    /** @param string $bytes float32, little-endian */
    public static function fromBytes(string $bytes): self
    {
        return new self($bytes);
    }

    /** @param array<int, float> $values in order */
    public static function of(array $values): self
    {
        return new self(self::packed($values));
    }

    /** @param array<int, float> $values in order. @return string as {@see fromBytes()} takes it */
    public static function packed(array $values): string
    {
        return [] === $values ? '' : pack('g*', ...$values);
    }

    /**
     * @param list<array{self, float}> $terms rows, and by how much each is multiplied
     * @param int $count of the sum; what a row lacks is 0
     */
    public static function sum(array $terms, int $count): self
    {
        if (1 === \count($terms) && 1.0 === $terms[0][1] && $terms[0][0]->count === $count) {
            return $terms[0][0]; // most faders of stems stand at 0 dB, and most sums begin with one track
        }
        $packed = '';
        for ($from = 0; $from < $count; $from += self::AT_ONCE) {
            $sum = array_fill(0, min(self::AT_ONCE, $count - $from), 0.0);
            foreach ($terms as [$row, $factor]) {
                foreach ($row->slice($from, self::AT_ONCE) as $k => $value) {
                    $sum[$k] += $factor * $value;
                }
            }
            $packed .= self::packed($sum);
        }

        return new self($packed);
    }

    /** @param array<int, float> $values in place of those from a number on */
    public function replaced(int $from, array $values): self
    {
        return [] === $values ? $this : new self(substr_replace($this->packed, self::packed($values), self::BYTES * $from, self::BYTES * \count($values)));
    }

    public function toBytes(): string
    {
        return $this->packed;
    }

    public function count(): int
    {
        return max(0, $this->count);
    }

    /** @return array<int, float> numbered from 0; fewer only at the end */
    public function slice(int $from, int $count): array
    {
        return FloatDecoder::decode(substr($this->packed, self::BYTES * $from, self::BYTES * $count));
    }

    /** @return Generator<int, array<int, float>> by the number of the first of each, numbered from 0 */
    public function pieces(): Generator
    {
        for ($from = 0; $from < $this->count; $from += self::AT_ONCE) {
            yield $from => $this->slice($from, self::AT_ONCE);
        }
    }

    /** @return array<int, float> all of it, where it is known to be short */
    public function values(): array
    {
        return FloatDecoder::decode($this->packed);
    }

    /** @return float 0 where there is nothing */
    public function highest(): float
    {
        $highest = 0.0;
        foreach ($this->pieces() as $piece) {
            $highest = max($highest, ...$piece);
        }

        return $highest;
    }

    public function offsetExists(mixed $offset): bool
    {
        return $offset >= 0 && $offset < $this->count;
    }

    public function offsetGet(mixed $offset): float
    {
        return $this->slice($offset, 1)[0];
    }

    public function offsetSet(mixed $offset, mixed $value): never
    {
        throw new LogicException('A series does not change.');
    }

    public function offsetUnset(mixed $offset): never
    {
        throw new LogicException('A series does not change.');
    }

    public function getIterator(): Generator
    {
        foreach ($this->pieces() as $from => $piece) {
            foreach ($piece as $k => $value) {
                yield $from + $k => $value;
            }
        }
    }
}
