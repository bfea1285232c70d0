<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** How labels name several clips, and ranges of time. */
final class Naming
{
    /** @param non-empty-list<string> $ids */
    public static function clips(Mix $mix, array $ids): string
    {
        return 1 === \count($ids) ? $mix->clip($ids[0])->name : \sprintf('%d clips', \count($ids));
    }

    public static function span(Mix $mix, Span $span): string
    {
        return Timecode::clock($span->from, $mix->rate).'–'.Timecode::clock($span->to, $mix->rate);
    }
}
