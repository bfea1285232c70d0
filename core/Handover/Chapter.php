<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** A marker of the programme, as a place in the file that is handed over. */
final readonly class Chapter
{
    /** @param int $at frames from the beginning of the file, at its rate */
    public function __construct(public int $at, public string $name)
    {
    }

    /**
     * @param Span $span of the programme that the file holds
     * @param int $rate samples per second of the file
     *
     * @return list<self> in the order of time
     */
    public static function of(Mix $mix, Span $span, int $rate): array
    {
        $chapters = [];
        foreach ($mix->markers as $marker) {
            if ($marker->at >= $span->from && $marker->at < $span->to) {
                $chapters[] = new self((int) round(($marker->at - $span->from) * $rate / $mix->rate), $marker->name);
            }
        }
        usort($chapters, static fn (self $a, self $b): int => $a->at <=> $b->at);

        return $chapters;
    }
}
