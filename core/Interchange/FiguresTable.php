<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Generator;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\Windows;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Timeline\Stem;

/** The figures of a mix as a table for other programs, one row per 100 ms. docs/formats.md explains the columns. */
final readonly class FiguresTable
{
    /** Ten minutes. */
    private const ROWS_AT_ONCE = 6000;
    public const COLUMNS = ['seconds', 'momentary_lufs', 'short_term_lufs', 'speech_momentary_lufs', 'rest_momentary_lufs', 'clearance_lu'];

    public function __construct(private MixFigures $figures, private Clearance $clearance)
    {
    }

    /** @return Generator<list<?float>> in the order of COLUMNS; null where there is nothing but silence, no whole window yet, or nobody speaks */
    public function rows(): Generator
    {
        $all = $this->figures->powers();
        $speech = $this->figures->powersOf(Stem::Speech);
        $rest = $this->figures->powersOf(Stem::Speech, others: true);
        for ($from = 0; $from < $this->figures->count; $from += self::ROWS_AT_ONCE) {
            $window = static fn (Series $row, int $length): array => Windows::ending($row, $length, $from, self::ROWS_AT_ONCE);
            [$momentary, $shortTerm] = [$window($all, Windows::MOMENTARY), $window($all, Windows::SHORT_TERM)];
            [$ofSpeech, $ofRest] = [$window($speech, Windows::MOMENTARY), $window($rest, Windows::MOMENTARY)];
            for ($k = $from, $end = min($this->figures->count, $from + self::ROWS_AT_ONCE); $k < $end; ++$k) {
                $clearance = $this->clearance->at($k);
                yield [
                    ($k + 1) / 10,
                    self::lufs($momentary[$k] ?? 0.0),
                    self::lufs($shortTerm[$k] ?? 0.0),
                    self::lufs($ofSpeech[$k] ?? 0.0),
                    self::lufs($ofRest[$k] ?? 0.0),
                    null === $clearance ? null : round($clearance, 2),
                ];
            }
        }
    }

    /** @return Generator<string> lines of CSV (RFC 4180), the first with the names of the columns; empty where a row has null */
    public function csv(): Generator
    {
        yield implode(',', self::COLUMNS)."\r\n";
        foreach ($this->rows() as $row) {
            yield implode(',', array_map(static fn (?float $value): string => null === $value ? '' : (string) $value, $row))."\r\n";
        }
    }

    private static function lufs(float $power): ?float
    {
        return $power > 1e-9 ? round(Gating::loudness($power), 2) : null;
    }
}
