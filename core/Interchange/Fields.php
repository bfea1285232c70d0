<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use BackedEnum;
use Closure;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Level\LevelText;
use Wattage\Core\Problem;

/** Reads the fields of one decoded JSON object, each with its type and limits; errors name the whole path of the field. */
final readonly class Fields
{
    /** Positions beyond this are refused: 200 hours at 96 kHz. */
    private const MAX_POSITION = 200 * 3600 * 96_000;

    /** @param array<array-key, mixed> $values */
    private function __construct(private array $values, private string $path, private ?AskedFields $asked = null)
    {
    }

    /**
     * One of which {@see nothingElse()} can tell what nobody asked for.
     *
     * @throws InvalidDocument when $value is not an object
     */
    public static function watched(mixed $value): self
    {
        return new self(self::of($value)->values, '', new AskedFields());
    }

    /** @throws InvalidDocument when $value is not an object */
    public static function of(mixed $value, string $path = ''): self
    {
        if (!\is_array($value) || ([] !== $value && array_is_list($value))) {
            throw InvalidDocument::wrongType('' === $path ? 'document' : $path, 'an object');
        }

        return new self($value, $path);
    }

    public function has(string $name): bool
    {
        return null !== $this->value($name) || \array_key_exists($name, $this->values);
    }

    /** @throws InvalidDocument when there are fields besides the known ones, which may be typing errors */
    public function onlyHave(string ...$known): void
    {
        foreach (array_keys($this->values) as $name) {
            \in_array($name, $known, true) || throw InvalidDocument::unknownField($this->path((string) $name));
        }
    }

    /**
     * Once all has been read that there is to read: what is left over may be a typing error, or a field of a newer version.
     *
     * @throws InvalidDocument naming the first field that nobody asked for, here or in an object within
     */
    public function nothingElse(): void
    {
        foreach (array_keys($this->values) as $name) {
            isset($this->asked->names[$name]) || throw InvalidDocument::unknownField($this->path((string) $name));
        }
        foreach ($this->asked->within ?? [] as $object) {
            $object->nothingElse();
        }
    }

    public function string(string $name, ?string $default = null): string
    {
        $value = $this->value($name) ?? $default ?? throw InvalidDocument::missing($this->path($name));

        return \is_string($value) ? $value : throw InvalidDocument::wrongType($this->path($name), 'text');
    }

    public function bool(string $name, ?bool $default = null): bool
    {
        $value = $this->value($name) ?? $default ?? throw InvalidDocument::missing($this->path($name));

        return \is_bool($value) ? $value : throw InvalidDocument::wrongType($this->path($name), 'true or false');
    }

    public function int(string $name, int $min = 0, int $max = self::MAX_POSITION, ?int $default = null): int
    {
        $value = $this->value($name) ?? $default ?? throw InvalidDocument::missing($this->path($name));
        if (\is_float($value) && floor($value) === $value && abs($value) < 2 ** 53) {
            $value = (int) $value; // JSON writers may write 480 as 480.0
        }
        if (!\is_int($value) || $value < $min || $value > $max) {
            throw InvalidDocument::wrongType($this->path($name), \sprintf('a whole number from %d to %d', $min, $max));
        }

        return $value;
    }

    public function float(string $name, float $min, float $max, ?float $default = null): float
    {
        $value = $this->value($name) ?? $default ?? throw InvalidDocument::missing($this->path($name));
        if ((!\is_int($value) && !\is_float($value)) || !($value >= $min && $value <= $max)) {
            throw InvalidDocument::wrongType($this->path($name), \sprintf('a number from %s to %s', $min, $max));
        }

        return (float) $value;
    }

    /**
     * A level: a number of dB, or text as people type it ("-6 dB", "80%", "silence").
     *
     * @throws Problem
     */
    public function level(string $name, float $limit = Decibels::MAX_CLIP, ?Decibels $default = null): Decibels
    {
        $value = $this->value($name);
        if (null === $value && null !== $default) {
            return $default;
        }
        try {
            return match (true) {
                \is_int($value), \is_float($value) => Decibels::of((float) $value)->atMost($limit),
                \is_string($value) => LevelText::parse($value)->atMost($limit),
                null === $value => throw InvalidDocument::missing($this->path($name)),
                default => throw InvalidDocument::wrongType($this->path($name), 'a level: a number of dB or text such as "-6 dB"'),
            };
        } catch (\Wattage\Core\Level\InvalidLevel $problem) {
            throw $problem->about($this->path($name));
        }
    }

    /**
     * One of an enumeration's words.
     *
     * @template T of BackedEnum
     *
     * @param class-string<T> $enum
     * @param ?T $default
     *
     * @return T
     */
    public function choice(string $name, string $enum, ?BackedEnum $default = null): BackedEnum
    {
        if (null !== $default && !$this->has($name)) {
            return $default;
        }

        return $enum::tryFrom($this->string($name)) ?? throw InvalidDocument::wrongType($this->path($name), implode(', ', array_column($enum::cases(), 'value')));
    }

    /**
     * @param int $most how many there may be
     *
     * @return list<self>
     */
    public function objects(string $name, int $most = \PHP_INT_MAX): array
    {
        $objects = [];
        foreach ($this->list($name, $most) as $i => $value) {
            $objects[] = $this->within($value, $this->path($name)."[{$i}]");
        }

        return $objects;
    }

    public function object(string $name): self
    {
        return $this->within($this->value($name) ?? throw InvalidDocument::missing($this->path($name)), $this->path($name));
    }

    /** A document of its own, as it is: who reads it says what belongs into it. */
    public function document(string $name): mixed
    {
        return $this->value($name) ?? throw InvalidDocument::missing($this->path($name));
    }

    /** @return non-empty-list<string> */
    public function strings(string $name): array
    {
        $strings = [];
        foreach ($this->list($name) as $value) {
            $strings[] = \is_string($value) ? $value : throw InvalidDocument::wrongType($this->path($name), 'a list of texts');
        }

        return [] === $strings ? throw InvalidDocument::wrongType($this->path($name), 'a list with at least one entry') : $strings;
    }

    /** @return list<string> texts, each once; may be none */
    public function names(string $name): array
    {
        return [] === $this->list($name) ? [] : array_values(array_unique($this->strings($name)));
    }

    /** @return non-empty-list<int> */
    public function ints(string $name): array
    {
        $ints = [];
        foreach ($this->list($name) as $value) {
            $ints[] = \is_int($value) ? $value : throw InvalidDocument::wrongType($this->path($name), 'a list of whole numbers');
        }

        return [] === $ints ? throw InvalidDocument::wrongType($this->path($name), 'a list with at least one entry') : $ints;
    }

    public function isNumber(string $name): bool
    {
        return \is_int($this->value($name)) || \is_float($this->value($name));
    }

    public function isText(string $name): bool
    {
        return \is_string($this->value($name));
    }

    public function path(string $name): string
    {
        return '' === $this->path ? $name : "{$this->path}.{$name}";
    }

    /**
     * @param int $most how many there may be
     *
     * @return list<mixed>
     */
    public function list(string $name, int $most = \PHP_INT_MAX): array
    {
        $value = $this->value($name) ?? throw InvalidDocument::missing($this->path($name));

        \is_array($value) && array_is_list($value) || throw InvalidDocument::wrongType($this->path($name), 'a list');

        return \count($value) <= $most ? $value : throw InvalidDocument::tooMany($this->path($name), $most);
    }

    private function within(mixed $value, string $path): self
    {
        $fields = new self(self::of($value, $path)->values, $path, null === $this->asked ? null : new AskedFields());
        if (null !== $this->asked) {
            $this->asked->within[] = $fields;
        }

        return $fields;
    }

    private function value(string $name): mixed
    {
        if (null !== $this->asked) {
            $this->asked->names[$name] = true;
        }

        return $this->values[$name] ?? null;
    }

    /**
     * What is wrong with what is made of these is said with where they stand.
     *
     * @template T
     *
     * @param Closure(): T $make
     *
     * @return T
     */
    public function located(Closure $make): mixed
    {
        try {
            return $make();
        } catch (InvalidDocument $problem) {
            throw $problem;
        } catch (Problem $problem) {
            $field = $problem->field();
            throw InvalidDocument::at(str_starts_with($field, $this->path('')) ? $field : $this->path($field), $problem);
        }
    }
}
