<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/**
 * Markers in a WAV file: a cue chunk with their positions, and a list of their names.
 *
 * Source: Microsoft/IBM, Multimedia Programming Interface and Data Specifications 1.0 (1991), cue-ck and assoc-data-list [M].
 */
final readonly class CuePoints
{
    /** Positions are 32 bits wide. */
    private const LAST = 0xFFFFFFFF;

    /** @param list<Chapter> $chapters */
    public static function chunks(array $chapters): string
    {
        $chapters = array_values(array_filter($chapters, static fn (Chapter $chapter): bool => $chapter->at <= self::LAST));
        if ([] === $chapters) {
            return '';
        }
        $cues = pack('V', \count($chapters));
        $labels = 'adtl';
        foreach ($chapters as $i => $chapter) {
            $cues .= pack('VVa4VVV', $i + 1, $chapter->at, 'data', 0, 0, $chapter->at);
            $text = $chapter->name."\0";
            $labels .= 'labl'.pack('VV', 4 + \strlen($text), $i + 1).$text.(\strlen($text) % 2 ? "\0" : '');
        }

        return 'cue '.pack('V', \strlen($cues)).$cues.'LIST'.pack('V', \strlen($labels)).$labels;
    }
}
