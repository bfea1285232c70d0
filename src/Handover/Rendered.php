<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Generator;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** A span of a mix, rendered as it is gone through. */
final readonly class Rendered implements Sound
{
    /** @param array<string, PcmSource> $sounds by source id */
    public function __construct(private Mix $mix, private array $sounds, private Span $span)
    {
    }

    public function frames(): int
    {
        return $this->span->length();
    }

    public function pieces(): Generator
    {
        return (new Renderer($this->mix, $this->sounds))->render($this->span);
    }
}
