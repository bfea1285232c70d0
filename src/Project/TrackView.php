<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\View\FilterView;
use Wattage\App\View\StretchView;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Render\TrackMoves;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** A track as the browser gets it: with what its lanes do over time. */
final class TrackView
{
    /** @return array<string, mixed> */
    public static function of(Track $track, Mix $mix): array
    {
        $span = Span::of(0, max(1, $mix->length()));
        $levels = TrackMoves::level($track, $span);
        $ducking = TrackMoves::ducking($track, $span);
        $band = TrackMoves::band($track, $span);

        return [
            ...MixDocument::trackToArray($track),
            ...(null === $levels ? [] : ['levels' => array_map(StretchView::of(...), $levels)]),
            ...(null === $ducking ? [] : ['duckingLevels' => array_map(StretchView::of(...), $ducking)]),
            ...(null === $band ? [] : ['bandLevels' => array_map(StretchView::of(...), $band)]),
            ...($track->colour->isNone() ? [] : ['filters' => FilterView::of($track->colour)]),
        ];
    }
}
