<?php

declare(strict_types=1);

namespace Wattage\App\Intake;

use Wattage\App\Archive\Contents;

/** What came of a file that was sent: sources, and of an archive what else is in it. */
final readonly class Taken
{
    /**
     * @param list<Incoming> $incoming
     * @param array<string, string> $ids of sources here, by those in the archive
     */
    public function __construct(public array $incoming, public ?Contents $contents = null, public array $ids = [])
    {
    }
}
