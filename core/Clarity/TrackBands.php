<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Closure;
use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Loudness\Filtering;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * What lies in each third-octave band of a track, every 100 ms: the bands of the clip that sounds there, as much louder or softer as the track is than the clip's
 * source. So every gain on the way is in it, whatever its kind, and only moving a byte up or down is left to do. Where two clips cross over, the spectrum
 * changes from one to the other in the middle.
 */
final class TrackBands
{
    /** Powers below this are silence. */
    private const SILENCE = 1e-12;

    /**
     * @param Series $powers of the track, every 100 ms: see {@see TrackPower}
     * @param Closure(string): ?SourceTenths $tenthsOf by source id
     * @param Closure(string): ?SourceBands $bandsOf by source id
     *
     * @return string a row of {@see ThirdOctaves::COUNT} bytes for each 100 ms, left and right added: see {@see BandLevel}
     */
    public static function of(Mix $mix, Track $track, Series $powers, Closure $tenthsOf, Closure $bandsOf): string
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $count = $powers->count();
        $rows = '';
        $done = 0;
        foreach ($track->isSilent() ? [] : self::inTurn($track) as [$clip, $from, $to]) {
            [$tenths, $bands] = [$tenthsOf($clip->source), $bandsOf($clip->source)];
            $first = max($done, intdiv($from, $frames));
            $end = min($count, intdiv($to + $frames - 1, $frames));
            if (null === $tenths || null === $bands || $first >= $end || $clip->muted) {
                continue;
            }
            $filters = Filtering::of($mix, $track, $clip);
            $source = $filters?->rows(self::rowsOf($clip, $bands)) ?? self::rowsOf($clip, $bands);
            $rows .= str_repeat("\0", ($first - $done) * ThirdOctaves::COUNT).self::moved($clip, $source, $filters?->tenths($tenths) ?? $tenths, $powers, $first, $end, $frames);
            $done = $end;
        }

        return $rows.str_repeat("\0", ($count - $done) * ThirdOctaves::COUNT);
    }

    /** @return list<array{Clip, int, int}> clips in the order of time, and the samples of the timeline at which each is the one that counts */
    private static function inTurn(Track $track): array
    {
        $clips = array_values($track->clips);
        usort($clips, static fn (Clip $a, Clip $b): int => $a->at <=> $b->at);
        $turns = [];
        $from = 0;
        foreach ($clips as $i => $clip) {
            $end = $clip->at + $clip->length;
            $next = $clips[$i + 1]->at ?? $end;
            $to = $next < $end ? intdiv($next + $end, 2) : $end;
            $turns[] = [$clip, max($from, $clip->at), $to];
            $from = $to;
        }

        return $turns;
    }

    private static function rowsOf(Clip $clip, SourceBands $bands): string
    {
        return match ($clip->channels->mode) {
            ChannelMode::Left => $bands->of(0),
            ChannelMode::Right => $bands->of(1),
            default => $bands->together(),
        };
    }

    /** Rows of a source, each moved by what the track is louder; those that are moved alike at once. */
    private static function moved(Clip $clip, string $source, SourceTenths $tenths, Series $powers, int $first, int $end, int $frames): string
    {
        $skipped = max(0, intdiv($first * $frames - $clip->at + $clip->in, $frames));
        $wanted = $end - $first + 1;
        $alone = self::mean($clip, $tenths, $skipped, $wanted);
        $rows = '';
        $begin = $skipped;
        $moved = null;
        foreach ($powers->slice($first, $end - $first) as $k => $power) {
            $place = $skipped + $k;
            $of = $alone[$k] ?? 0.0;
            $by = $power > self::SILENCE && $of > self::SILENCE ? (int) round(10.0 * log10($power / $of) / BandLevel::STEP) : -255;
            if ($by !== $moved) {
                $rows .= self::shifted(substr($source, $begin * ThirdOctaves::COUNT, ($place - $begin) * ThirdOctaves::COUNT), $moved ?? 0);
                [$begin, $moved] = [$place, $by];
            }
        }
        $rows .= self::shifted(substr($source, $begin * ThirdOctaves::COUNT, ($skipped + $end - $first - $begin) * ThirdOctaves::COUNT), $moved ?? 0);

        return str_pad($rows, ($end - $first) * ThirdOctaves::COUNT, "\0");
    }

    /** @return array<int, float> mean over the channels that sound */
    private static function mean(Clip $clip, SourceTenths $tenths, int $from, int $count): array
    {
        $left = $tenths->powers[0]->slice($from, $count);
        if (1 === $tenths->channels() || ChannelMode::Left === $clip->channels->mode) {
            return $left;
        }
        $right = $tenths->powers[1]->slice($from, $count);

        return ChannelMode::Right === $clip->channels->mode ? $right : array_map(static fn (float $a, float $b): float => 0.5 * ($a + $b), $left, $right);
    }

    private static function shifted(string $rows, int $by): string
    {
        /** @var array<int, array{string, string}> $tables */
        static $tables = [];
        if ('' === $rows || 0 === $by) {
            return $rows;
        }
        if (!isset($tables[$by])) {
            $from = $to = '';
            for ($byte = 1; $byte < 256; ++$byte) {
                $from .= \chr($byte);
                $to .= \chr(max(0, min(255, $byte + $by)));
            }
            $tables[$by] = [$from, $to];
        }

        return strtr($rows, ...$tables[$by]);
    }
}
