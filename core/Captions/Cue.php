<?php

declare(strict_types=1);

namespace Wattage\Core\Captions;

use Wattage\Core\Time\Span;

/** What is said, and when. */
final readonly class Cue
{
    public const MAX_TEXT = 1000;

    /** @param Span $span timeline samples */
    public function __construct(public Span $span, public string $text)
    {
        mb_strlen($text) <= self::MAX_TEXT || throw InvalidCaptions::text(self::MAX_TEXT);
    }
}
