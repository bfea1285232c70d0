<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Timeline\Mix;

/** What became of a mix when the new version of its cut was laid. */
final readonly class Relaid
{
    /**
     * @param int $kept clips of the new cut that were known again
     * @param list<array{name: string, at: int}> $new clips that were not there; timeline samples
     * @param list<array{name: string, at: int}> $gone clips that are no longer there, and where they were
     * @param list<array{name: string, at: int}> $changed clips that were known again, but begin or end elsewhere in their source
     */
    public function __construct(public Mix $mix, public int $kept, public array $new, public array $gone, public array $changed)
    {
    }
}
