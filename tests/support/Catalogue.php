<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Symfony\Component\Yaml\Yaml;

/** docs/edits.yaml, every kind of edit with its fields, and docs/openapi.yaml, to which it points. */
final readonly class Catalogue
{
    private const DOCS = __DIR__.'/../../docs/';

    /**
     * @param array<string, array<mixed>> $schemas
     * @param array<mixed> $api
     */
    private function __construct(private array $schemas, private array $api)
    {
    }

    public static function read(): self
    {
        $schemas = $api = [];
        foreach ((array) Yaml::parseFile(self::DOCS.'edits.yaml') as $name => $schema) {
            $schemas[(string) $name] = (array) $schema;
        }
        foreach ((array) Yaml::parseFile(self::DOCS.'openapi.yaml') as $name => $part) {
            $api[$name] = $part;
        }

        return new self($schemas, $api);
    }

    /** @return list<string> rooms of core/Edit, as the schema names them */
    public function rooms(): array
    {
        return array_map(self::nameOf(...), $this->listed('Edit'));
    }

    /** @return list<string> */
    public function kinds(?string $room = null): array
    {
        return null === $room ? array_merge(...array_map($this->kinds(...), $this->rooms())) : array_map(self::nameOf(...), $this->listed($room));
    }

    public function description(string $kind): string
    {
        return self::text($this->schemas[$kind]['description'] ?? '');
    }

    /** @return list<array<string, mixed>> */
    public function examples(string $kind): array
    {
        $examples = [];
        foreach ((array) ($this->schemas[$kind]['examples'] ?? []) as $i => $example) {
            foreach ((array) $example as $field => $value) {
                $examples[(int) $i][(string) $field] = $value;
            }
        }

        return array_values($examples);
    }

    /**
     * Fields of its own, "edit" left out, each with its schema; what it shares with others is named by {@see shares()}.
     *
     * @return array<string, array<mixed>>
     */
    public function fields(string $kind): array
    {
        $fields = [];
        foreach ((array) ($this->own($kind)['properties'] ?? []) as $name => $schema) {
            $fields[(string) $name] = (array) $schema;
        }
        unset($fields['edit']);

        return $fields;
    }

    /** @return list<string> those of its own that must be there */
    public function required(string $kind): array
    {
        return array_values(array_diff(array_map(self::text(...), (array) ($this->own($kind)['required'] ?? [])), ['edit']));
    }

    /** What is said of the fields that it shares with other edits; empty where it shares none. */
    public function shares(string $kind): string
    {
        $shared = $this->schemas[$kind]['allOf'] ?? null;

        return \is_array($shared) && \is_array($shared[0]) ? self::text($this->resolved($shared[0])['description'] ?? '') : '';
    }

    /**
     * What a schema says, with that to which it points; what stands beside the reference goes first.
     *
     * @param array<mixed> $schema
     *
     * @return array<mixed>
     */
    public function resolved(array $schema): array
    {
        $reference = $schema['$ref'] ?? null;
        if (!\is_string($reference)) {
            return $schema;
        }
        $path = explode('/', substr((string) strstr($reference, '#'), 2));
        $found = str_starts_with($reference, '#') ? $this->schemas : $this->api;
        foreach ($path as $name) {
            $found = (array) ($found[$name] ?? []);
        }

        return [...$this->resolved($found), ...array_diff_key($schema, ['$ref' => 1])];
    }

    /** @return array<mixed> what is wrong with a value, by place; none where it is as a schema says */
    public static function faults(mixed $value, string $reference): array
    {
        $validator = new Validator();
        foreach (['edits', 'openapi'] as $file) {
            $schema = json_decode((string) json_encode(Yaml::parseFile(self::DOCS."{$file}.yaml")));
            \is_object($schema) && $validator->resolver()?->registerRaw($schema, "https://wattage.example/{$file}.yaml");
        }
        $error = $validator->validate(json_decode((string) json_encode($value)), "https://wattage.example/{$reference}")->error();

        return null === $error ? [] : (new ErrorFormatter())->format($error);
    }

    /** @return array<mixed> */
    private function own(string $kind): array
    {
        $parts = $this->schemas[$kind]['allOf'] ?? null;

        return \is_array($parts) ? (array) $parts[1] : $this->schemas[$kind];
    }

    /** @return list<mixed> */
    private function listed(string $name): array
    {
        return array_values((array) ($this->schemas[$name]['oneOf'] ?? []));
    }

    private static function nameOf(mixed $schema): string
    {
        return \is_array($schema) ? substr(self::text($schema['$ref'] ?? ''), 2) : '';
    }

    private static function text(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '';
    }
}
