<?php

declare(strict_types=1);

namespace Wattage\Core\Captions;

use Wattage\Core\Time\Span;

/** Captions as a file. Sources: W3C WebVTT; SubRip as it is commonly described [M]. */
final readonly class CaptionWriter
{
    /**
     * @param list<Cue> $cues in the order of time
     * @param Span $span of the timeline that the file holds
     */
    public static function vtt(array $cues, Span $span, int $rate): string
    {
        $text = "WEBVTT\n";
        foreach (self::within($cues, $span) as [$from, $to, $cue]) {
            $text .= "\n".self::clock($from / $rate).' --> '.self::clock($to / $rate)."\n".htmlspecialchars(self::lines($cue), \ENT_NOQUOTES)."\n";
        }

        return $text;
    }

    /**
     * @param list<Cue> $cues in the order of time
     * @param Span $span of the timeline that the file holds
     */
    public static function srt(array $cues, Span $span, int $rate): string
    {
        $text = '';
        foreach (self::within($cues, $span) as $i => [$from, $to, $cue]) {
            $text .= ($i + 1)."\n".strtr(self::clock($from / $rate).' --> '.self::clock($to / $rate), '.', ',')."\n".self::lines($cue)."\n\n";
        }

        return $text;
    }

    /** A blank line would end it. */
    private static function lines(Cue $cue): string
    {
        return (string) preg_replace('/\R+/u', "\n", trim($cue->text));
    }

    /**
     * @param list<Cue> $cues
     *
     * @return list<array{int, int, Cue}> from and to in samples of the file
     */
    private static function within(array $cues, Span $span): array
    {
        $within = [];
        foreach ($cues as $cue) {
            $part = $cue->span->within($span);
            if (null !== $part) {
                $within[] = [$part->from - $span->from, $part->to - $span->from, $cue];
            }
        }

        return $within;
    }

    private static function clock(float $seconds): string
    {
        $ms = (int) round(1000 * $seconds);

        return \sprintf('%02d:%02d:%02d.%03d', intdiv($ms, 3_600_000), intdiv($ms, 60_000) % 60, intdiv($ms, 1000) % 60, $ms % 1000);
    }
}
