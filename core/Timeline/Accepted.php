<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Time\Span;

/** A stretch of buried speech that somebody wants as it is, and why. */
final readonly class Accepted
{
    public string $note;

    /**
     * @param Span $span timeline samples
     *
     * @throws InvalidMix
     */
    public function __construct(public Span $span, string $note)
    {
        $this->note = '' === trim($note) ? '' : Name::check($note, 'note');
    }
}
