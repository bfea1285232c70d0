<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\InvalidTime;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/**
 * Reads a cut from an edit decision list of the CMX 3600 form: events of sound with cuts and dissolves, the names of their files from comments, locators
 * as markers. What it cannot take over it says.
 *
 * A list names no frame rate; that of the project counts, and its "FCM" decides between drop and non-drop where the rate has both. Times of the
 * programme count from the whole hour in which it begins.
 *
 * Source: the form as it is commonly described (SMPTE 258M; event, reel, channels, transition, four timecodes, "M2", "* FROM CLIP NAME", "* LOC"),
 * recalled from memory [M].
 */
final class EdlReader
{
    private const EVENT = '/^(\d{1,6})\s+(\S+)\s+(\S+)\s+(C|D|W\w*|K\w*)(?:\s+(\d{1,4}))?\s+([\d:;.]{11})\s+([\d:;.]{11})\s+([\d:;.]{11})\s+([\d:;.]{11})$/i';
    private const MOST_LEFT = 200;

    /** @var list<string> */
    private array $left = [];

    /** @var list<array{int, string}> samples and name */
    private array $locators = [];

    /** @var list<EdlEvent> */
    private array $events = [];
    private string $title = '';

    private function __construct(private readonly int $rate, private FrameRate $frames)
    {
    }

    public static function looksLike(string $text): bool
    {
        return 1 === preg_match('/^\s*(TITLE:|FCM:|\d{1,6}\s+\S+\s+\S+\s+[CDWK])/im', substr($text, 0, 4000));
    }

    /**
     * @param int $rate samples per second of the timeline
     * @param FrameRate $frames of the project
     *
     * @throws InvalidCut
     */
    public static function read(string $text, int $rate, FrameRate $frames): Cut
    {
        \strlen($text) <= OtioReader::MOST_MEGABYTES * 1_000_000 || throw InvalidCut::tooLarge(OtioReader::MOST_MEGABYTES);
        $reader = new self($rate, $frames);
        foreach (preg_split('/\R/', mb_scrub($text)) ?: [] as $number => $line) {
            $reader->line(trim($line), $number + 1);
        }

        return $reader->cut();
    }

    private function line(string $line, int $number): void
    {
        $last = $this->events[\count($this->events) - 1] ?? null;
        if (1 === preg_match('/^TITLE:\s*(.*)$/i', $line, $found)) {
            $this->title = OtioReader::clean($found[1]);
        } elseif (1 === preg_match('/^FCM:\s*(NON[- ]?)?DROP/i', $line, $found)) {
            $this->count('' === ($found[1] ?? ''));
        } elseif (1 === preg_match(self::EVENT, $line, $found)) {
            \count($this->events) < 2 * Mix::MAX_CLIPS || throw InvalidCut::tooMany('events', 2 * Mix::MAX_CLIPS);
            $times = array_map(fn (string $time): int => $this->time($time, $number), \array_slice($found, 6, 4));
            $this->events[] = new EdlEvent($found[1], $found[2], strtoupper($found[3]), strtoupper($found[4][0]), (int) $found[5], $times[0], $times[1], $times[2], $times[3]);
        } elseif (1 === preg_match('/^\*\s*LOC:\s*([\d:;.]{11})\s+\w+\s*(.*)$/i', $line, $found)) {
            \count($this->locators) < Mix::MAX_MARKERS && $this->locators[] = [$this->time($found[1], $number), OtioReader::clean($found[2])];
        } elseif (null !== $last && 1 === preg_match('/^\*\s*(FROM CLIP NAME|TO CLIP NAME|SOURCE FILE|CLIP NAME)\s*:?\s+(.*)$/i', $line, $found)) {
            $last->named(strtoupper($found[1]), OtioReader::clean($found[2]));
        } elseif (null !== $last && 1 === preg_match('/^M2\s+\S+\s+(-?[\d.]+)/i', $line, $found)) {
            [$numerator, $denominator] = $this->frames->fraction();
            $last->otherSpeed = abs((float) $found[1] - $numerator / $denominator) > 0.01 && abs((float) $found[1] - $this->frames->nominal()) > 0.01;
        } elseif (null !== $last && 1 === preg_match('/^AUD\s+3(\s+4)?/i', $line)) {
            $last->channels .= ' A3';
        }
    }

    private function count(bool $drop): void
    {
        $other = match (true) {
            $drop && FrameRate::F2997 === $this->frames => FrameRate::F2997Drop,
            !$drop && FrameRate::F2997Drop === $this->frames => FrameRate::F2997,
            default => $this->frames,
        };
        $drop && !$other->dropsFrames() && throw InvalidCut::dropFrames($this->frames->value);
        $this->frames = $other;
    }

    /** @return int samples */
    private function time(string $text, int $line): int
    {
        try {
            return Timecode::parse(strtr($text, ['.' => ':']), $this->rate, $this->frames);
        } catch (InvalidTime) {
            throw InvalidCut::badTimecode($text, $line, $this->frames->value);
        }
    }

    private function cut(): Cut
    {
        [] === $this->events && throw InvalidCut::notEdl();
        $hour = $this->hour();
        $begins = intdiv(min(array_map(static fn (EdlEvent $event): int => $event->recordIn, $this->events)), $hour) * $hour;
        $begins > 0 && $this->leave('Its programme begins at '.Timecode::format($begins, $this->rate, $this->frames).'; that is where the timeline begins.');
        $tracks = [];
        foreach ($this->events as $i => $event) {
            foreach ($event->tracks() as $track) {
                $this->clip($tracks, $track, $event, $this->events[$i - 1] ?? null, $begins);
            }
        }[] === array_filter($tracks) && throw InvalidCut::noClips();
        ksort($tracks, \SORT_NATURAL);
        $markers = array_map(static fn (array $locator): array => [max(0, $locator[0] - $begins), '' === $locator[1] ? 'Marker' : $locator[1]], $this->locators);
        usort($markers, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return new Cut($this->title, array_map(static fn (string $name, array $clips): CutTrack => new CutTrack($name, $clips), array_keys($tracks), array_values($tracks)), $markers, $this->left);
    }

    /** @param array<string, list<CutClip>> $tracks */
    private function clip(array &$tracks, string $track, EdlEvent $event, ?EdlEvent $before, int $begins): void
    {
        $tracks[$track] ??= [];
        $at = $event->recordIn - $begins;
        $length = $event->recordOut - $event->recordIn;
        $over = 'C' === $event->transition ? 0 : $this->frames->sampleOf($event->frames, $this->rate);
        $last = array_key_last($tracks[$track]);
        if ($over > 0 && null !== $last && $tracks[$track][$last]->at + $tracks[$track][$last]->length === $at) {
            // The one before sounds on while this one comes; a dissolve to black is its fade.
            $tracks[$track][$last] = $event->isBlack() ? $tracks[$track][$last]->longer($over)->faded($over) : $tracks[$track][$last]->longer($over);
        }
        if ($event->isBlack() || $length <= 0 || $event->sourceOut <= $event->sourceIn) {
            return;
        }
        $name = $event->name($before);
        if ($event->otherSpeed) {
            $this->leave("“{$name}” runs at another speed, and was left out.");

            return;
        }
        \in_array($event->transition, ['C', 'D'], true) || $this->leave("“{$name}” comes with a wipe or a key; its sound is faded.");
        $tracks[$track][] = new CutClip($name, $event->file($before), $at, $event->sourceIn, $length, $over, 0, intdiv($event->sourceIn, $this->hour()) * $this->hour());
    }

    /** @return int samples that an hour of timecode takes */
    private function hour(): int
    {
        return Timecode::parse('01:00:00:00', $this->rate, $this->frames);
    }

    private function leave(string $sentence): void
    {
        \count($this->left) < self::MOST_LEFT && !\in_array($sentence, $this->left, true) && $this->left[] = $sentence;
    }
}
