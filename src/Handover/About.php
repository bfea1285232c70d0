<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use DateTimeImmutable;
use Wattage\Core\Handover\Tags;

/** What is said about a file in the file. */
final readonly class About
{
    /**
     * @param string $reference a name of its own for this file, at most 32 letters
     * @param ?string $cover path of a JPEG file
     */
    public function __construct(public Tags $tags, public string $description, public string $reference, public DateTimeImmutable $made, public ?string $cover = null)
    {
    }
}
