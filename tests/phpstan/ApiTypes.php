<?php

declare(strict_types=1);

namespace Wattage\Tests\phpstan;

use LogicException;
use PHPStan\Type\Accessory\AccessoryArrayListType;
use PHPStan\Type\ArrayType;
use PHPStan\Type\BenevolentUnionType;
use PHPStan\Type\BooleanType;
use PHPStan\Type\Constant\ConstantArrayTypeBuilder;
use PHPStan\Type\Constant\ConstantIntegerType;
use PHPStan\Type\Constant\ConstantStringType;
use PHPStan\Type\FloatType;
use PHPStan\Type\IntegerType;
use PHPStan\Type\MixedType;
use PHPStan\Type\NullType;
use PHPStan\Type\StringType;
use PHPStan\Type\Type;
use PHPStan\Type\TypeCombinator;
use PHPStan\Type\UnionType;
use Symfony\Component\Yaml\Yaml;

/**
 * What docs/openapi.yaml promises, as PHPStan's types: a test that asks an answer for what no answer has is found before it runs. A field that may be missing is there and may be
 * null; of several shapes an answer has the fields of all, since a test says itself which it expects.
 *
 * @phpstan-type Schema array<array-key, mixed>
 */
final class ApiTypes
{
    public const DESCRIPTION = __DIR__.'/../../docs/openapi.yaml';
    /** What it points to. */
    public const EDITS = __DIR__.'/../../docs/edits.yaml';

    /** @var array<string, array<string, Schema>> */
    private array $paths;
    /** @var array<string, array<string, Schema>> */
    private array $components;
    /** @var array<string, Schema> */
    private array $edits;
    /** @var array<string, Type> */
    private array $known = [];

    public function __construct()
    {
        /** @var array<string, Schema> $edits */
        $edits = Yaml::parseFile(self::EDITS);
        $this->edits = $edits;
        /** @var array{paths: array<string, array<string, Schema>>, components: array<string, array<string, Schema>>} $description */
        $description = Yaml::parseFile(self::DESCRIPTION);
        ['paths' => $this->paths, 'components' => $this->components] = $description;
    }

    /** @param string $path with anything in place of what varies */
    public function answer(string $method, string $path): ?Type
    {
        $path = explode('?', $path)[0];
        foreach ($this->paths as $template => $operations) {
            if (isset($operations[strtolower($method)]) && 1 === preg_match('#^'.preg_replace('/\\\{\w+\\\}/', '[^/]+', preg_quote($template, '#')).'$#', $path)) {
                return $this->orProblem($this->success($operations[strtolower($method)]));
            }
        }

        return null;
    }

    public function schema(string $name): Type
    {
        if (!isset($this->known[$name])) {
            // What holds its like is known to one depth.
            $this->known[$name] = new MixedType(true);
            $this->known[$name] = $this->of($this->components['schemas'][$name] ?? throw new LogicException("There is no schema {$name}."));
        }

        return $this->known[$name];
    }

    /** @param Schema $operation */
    private function success(array $operation): Type
    {
        foreach (self::part($operation, 'responses') as $code => $response) {
            if (!str_starts_with((string) $code, '2') || !\is_array($response)) {
                continue;
            }
            if (\is_string($response['$ref'] ?? null)) {
                $response = $this->components['responses'][basename($response['$ref'])];
            }
            $json = self::part($response, 'content')['application/json'] ?? null;
            if (\is_array($json)) {
                return $this->of(self::part($json, 'schema'));
            }
        }

        return self::anything();
    }

    /** The answer where all is well, with the fields of a problem beside. */
    public function orProblem(Type $type): Type
    {
        $fields = $this->schema('Problem')->getConstantArrays()[0] ?? null;
        $shape = $type->getConstantArrays()[0] ?? null;
        if (null === $fields || null === $shape) {
            return $type;
        }
        $built = ConstantArrayTypeBuilder::createFromConstantArray($shape);
        foreach ($fields->getKeyTypes() as $i => $key) {
            if ($shape->hasOffsetValueType($key)->no()) {
                $built->setOffsetValueType($key, self::orNull([$fields->getValueTypes()[$i], new NullType()]));
            }
        }

        return $built->getArray();
    }

    /** An edit is anything; what it is made of is in the catalogue. */
    private function ofEdits(string $name): Type
    {
        return 'Edit' === $name || !isset($this->edits[$name]) ? self::anything() : $this->of($this->edits[$name]);
    }

    /** @param Schema $schema */
    private function of(array $schema): Type
    {
        if (\is_string($schema['$ref'] ?? null)) {
            [$file, $at] = explode('#/', $schema['$ref']);

            return '' === $file ? $this->schema(basename($at)) : $this->ofEdits($at);
        }
        if (isset($schema['oneOf'])) {
            return self::together(array_map($this->of(...), self::schemas($schema, 'oneOf')));
        }
        $values = $schema['enum'] ?? (isset($schema['const']) ? [$schema['const']] : []);
        $types = (array) ($schema['type'] ?? array_unique(array_map(self::kind(...), (array) $values)));

        return [] === $types ? new MixedType(true) : self::orNull(array_map(fn (mixed $type): Type => match ($type) {
            'null' => new NullType(),
            'boolean' => new BooleanType(),
            'integer' => new IntegerType(),
            'number' => TypeCombinator::union(new IntegerType(), new FloatType()),
            'string' => new StringType(),
            'array' => $this->list($schema),
            'object' => $this->shape($schema),
            default => throw new LogicException('A type without a counterpart.'),
        }, $types));
    }

    /** @param Schema $schema */
    private function list(array $schema): Type
    {
        if (isset($schema['prefixItems'])) {
            $built = ConstantArrayTypeBuilder::createEmpty();
            foreach (self::schemas($schema, 'prefixItems') as $i => $item) {
                $built->setOffsetValueType(new ConstantIntegerType($i), $this->of($item));
            }

            return $built->getArray();
        }
        $item = \is_array($schema['items'] ?? null) ? $this->of($schema['items']) : new MixedType(true);

        return TypeCombinator::intersect(new ArrayType(new IntegerType(), $item), new AccessoryArrayListType());
    }

    /** @param Schema $schema */
    private function shape(array $schema): Type
    {
        $fields = self::part($schema, 'properties');
        if ([] === $fields) {
            return \is_array($schema['additionalProperties'] ?? null) ? new ArrayType(new StringType(), $this->of($schema['additionalProperties'])) : self::anything();
        }
        $built = ConstantArrayTypeBuilder::createEmpty();
        foreach ($fields as $name => $field) {
            $type = \is_array($field) ? $this->of($field) : new MixedType(true);
            $always = \in_array($name, (array) ($schema['required'] ?? []), true);
            $built->setOffsetValueType(new ConstantStringType((string) $name), $always ? $type : self::orNull([$type, new NullType()]));
        }

        return $built->getArray();
    }

    /**
     * Shapes become one with the fields of all.
     *
     * @param list<Type> $types
     */
    private static function together(array $types): Type
    {
        $shapes = array_merge(...array_map(static fn (Type $type): array => $type->getConstantArrays(), $types));
        $named = array_filter($shapes, static fn (Type $shape): bool => $shape->isList()->no());
        if (\count($named) < 2) {
            return self::orNull($types);
        }
        $fields = [];
        foreach ($named as $shape) {
            foreach ($shape->getKeyTypes() as $i => $key) {
                $fields[$key->getValue()][] = $shape->getValueTypes()[$i];
            }
        }
        $built = ConstantArrayTypeBuilder::createEmpty();
        foreach ($fields as $name => $values) {
            $built->setOffsetValueType(new ConstantStringType((string) $name), TypeCombinator::union(...$values));
        }

        return self::orNull([$built->getArray(), ...array_filter($types, static fn (Type $type): bool => [] === $type->getConstantArrays())]);
    }

    /**
     * Where nothing may be instead, tests need not ask first: they fail by themselves where it is.
     *
     * @param array<Type> $types
     */
    private static function orNull(array $types): Type
    {
        $union = TypeCombinator::union(...$types);

        return $union instanceof UnionType && TypeCombinator::containsNull($union) ? new BenevolentUnionType($union->getTypes()) : $union;
    }

    private static function kind(mixed $value): string
    {
        return ['NULL' => 'null', 'double' => 'number'][\gettype($value)] ?? \gettype($value);
    }

    private static function anything(): Type
    {
        return new ArrayType(new StringType(), new MixedType(true));
    }

    /**
     * @param Schema $schema
     *
     * @return Schema
     */
    private static function part(array $schema, string $name): array
    {
        $part = $schema[$name] ?? [];

        return \is_array($part) ? $part : [];
    }

    /**
     * @param Schema $schema
     *
     * @return list<Schema>
     */
    private static function schemas(array $schema, string $name): array
    {
        return array_values(array_filter(self::part($schema, $name), is_array(...)));
    }
}
