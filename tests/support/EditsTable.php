<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/** The table of edits in docs/formats.md, written from docs/edits.yaml. */
final readonly class EditsTable
{
    public const FILE = __DIR__.'/../../docs/formats.md';
    /** Told once, above the table. */
    private const COMMON = ['Time', 'Length', 'RampLength', 'SaidLevel', 'Later', 'NewId', 'Name', 'Clips', 'Tracks', 'Ids', 'Stem', 'Side'];
    private const PLACE = '/(?<=<!-- from edits\.yaml: php tools\/edits-table\.php -->\n).*?(?=<!-- end -->)/s';

    public function __construct(private Catalogue $catalogue)
    {
    }

    /** @return string docs/formats.md with the table as it has to be */
    public function inPlace(): string
    {
        return (string) preg_replace_callback(self::PLACE, fn (): string => $this->table(), (string) file_get_contents(self::FILE));
    }

    private function table(): string
    {
        $rows = '';
        foreach ($this->catalogue->rooms() as $room) {
            $rows .= '| **'.strtolower(substr($room, 0, -4))."** | | |\n";
            foreach ($this->catalogue->kinds($room) as $kind) {
                $rows .= "| `{$kind}` | {$this->catalogue->description($kind)} | {$this->fields($kind)} |\n";
            }
        }

        return "| edit | what it does | fields; ? where they may be missing |\n|---|---|---|\n{$rows}";
    }

    private function fields(string $kind): string
    {
        $required = $this->catalogue->required($kind);
        $told = [];
        foreach ($this->catalogue->fields($kind) as $name => $schema) {
            $words = $this->words($schema);
            $told[] = "`{$name}`".(\in_array($name, $required, true) ? '' : '?').('' === $words ? '' : " ({$words})");
        }
        $shares = $this->catalogue->shares($kind);

        return implode('; ', array_filter([$shares, implode(', ', $told)]));
    }

    /** @param array<mixed> $schema */
    private function words(array $schema): string
    {
        if (!isset($schema['description']) && \in_array(substr(\is_string($schema['$ref'] ?? null) ? $schema['$ref'] : '', 2), self::COMMON, true)) {
            return '';
        }
        $schema = $this->catalogue->resolved($schema);
        $words = \is_string($schema['description'] ?? null) ? $schema['description'] : '';
        $choices = array_map(static fn (mixed $choice): string => \is_string($choice) ? "`{$choice}`" : '', (array) ($schema['enum'] ?? []));
        [$min, $max] = [$schema['minimum'] ?? null, $schema['maximum'] ?? null];
        $bounds = match (true) {
            str_contains($words, '…') => '',
            is_numeric($min) && is_numeric($max) => "{$min} … {$max}",
            is_numeric($schema['maxItems'] ?? null) => $schema['maxItems'].' at most',
            default => '',
        };

        return implode('; ', array_filter([str_contains($words, '`') ? '' : implode(', ', $choices), $words, str_replace('-', '−', $bounds)]));
    }
}
