<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;

/** What differs between two states of a mix, to be stored in place of the second. */
final class MixDifference
{
    /** As JSON. What is the very same object in both is not even looked at. */
    public static function between(Mix $before, Mix $after): string
    {
        $difference = Difference::between(MixDocument::toArray($before, but: $after), MixDocument::toArray($after, but: $before));

        return MixDocument::json($difference);
    }

    /**
     * @param string $first mix JSON
     * @param list<string> $differences one after the other
     *
     * @return mixed mix JSON of the last state, taken apart
     *
     * @throws Problem
     */
    public static function applied(string $first, array $differences): mixed
    {
        $document = MixDocument::parsed($first);
        foreach ($differences as $difference) {
            $parsed = MixDocument::parsed($difference);
            $document = Difference::applied($document, \is_array($parsed) ? $parsed : null);
        }

        return $document;
    }
}
