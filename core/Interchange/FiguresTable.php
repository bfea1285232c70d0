<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Generator;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Windows;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Timeline\Stem;

/** The figures of a mix as a table for other programs, one row per 100 ms. docs/formats.md explains the columns. */
final readonly class FiguresTable
{
    public const COLUMNS = ['seconds', 'momentary_lufs', 'short_term_lufs', 'speech_momentary_lufs', 'rest_momentary_lufs', 'clearance_lu'];

    public function __construct(private MixFigures $figures, private Clearance $clearance)
    {
    }

    /** @return Generator<list<?float>> in the order of COLUMNS; null where there is nothing but silence, no whole window yet, or nobody speaks */
    public function rows(): Generator
    {
        $all = $this->figures->powers();
        $momentary = Windows::momentary($all);
        $shortTerm = Windows::shortTerm($all);
        $speech = Windows::momentary($this->figures->powersOf(Stem::Speech));
        $rest = Windows::momentary($this->figures->powersOf(Stem::Speech, others: true));
        for ($k = 0; $k < $this->figures->count; ++$k) {
            $clearance = $this->clearance->values[$k] ?? null;
            $m = $k - Windows::MOMENTARY + 1;
            yield [
                ($k + 1) / 10,
                self::lufs($momentary[$m] ?? 0.0),
                self::lufs($shortTerm[$k - Windows::SHORT_TERM + 1] ?? 0.0),
                self::lufs($speech[$m] ?? 0.0),
                self::lufs($rest[$m] ?? 0.0),
                null === $clearance ? null : round($clearance, 2),
            ];
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
