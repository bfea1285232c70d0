<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

/** Puts other sources in the place of those that a mix names, in its JSON: ids of sources are unlike anything else in it. */
final class SourceIds
{
    /** @param array<string, string> $ids the new ones, by those there are */
    public static function replaced(string $document, array $ids): string
    {
        $quoted = [];
        foreach ($ids as $from => $to) {
            $quoted[json_encode((string) $from, \JSON_THROW_ON_ERROR)] = json_encode($to, \JSON_THROW_ON_ERROR);
        }

        return [] === $quoted ? $document : strtr($document, $quoted);
    }
}
