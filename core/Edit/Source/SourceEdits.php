<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Source;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;

/** Edits of sources, heard in every clip of them. */
final class SourceEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'set-source-gain' => static fn (EditFields $read): Edit => new SetSourceGain($read->source(), $read->fields->level('gain'), $read->side()),
            'set-source-gains' => static fn (EditFields $read): Edit => new SetSourceGains(self::sourceGains($read)),
            'level-source' => static fn (EditFields $read): Edit => new LevelSource($read->source(), $read->fields->float('average', -200, 24), $read->fields->float('target', -60, 0)),
            'link-source' => static fn (EditFields $read): Edit => new LinkSource($read->source(), $read->fields->bool('linked')),
        ];
    }

    /** @return non-empty-list<SetSourceGain> */
    private static function sourceGains(EditFields $read): array
    {
        $gains = array_map(static fn (Fields $gain): SetSourceGain => new SetSourceGain($read->source($gain), $gain->level('gain')), $read->fields->objects('gains', EditFields::MAX_AT_ONCE));

        return [] === $gains ? throw InvalidDocument::wrongType('gains', 'a list with at least one entry') : $gains;
    }
}
