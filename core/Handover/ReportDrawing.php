<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/** Loudness along a file, drawn in SVG: against the target, with what was buried beneath, and where the peak guard acted above. */
final readonly class ReportDrawing
{
    private const WIDTH = 1000;
    private const HEIGHT = 220;
    private const LOUD = 0.0;
    private const SOFT = -48.0;

    /** Where the strip for what was buried begins. */
    private const STRIP = self::HEIGHT - 16;

    /**
     * @param float $seconds how long the file is
     * @param int $every seconds between two values
     * @param list<?float> $lufs short-term loudness from the third second on; null for silence
     * @param list<array{float, float}> $buried seconds from and to
     * @param list<float> $guarded seconds
     */
    public static function svg(float $seconds, int $every, array $lufs, ?float $target, array $buried, array $guarded): string
    {
        $x = static fn (float $second): string => self::number(self::WIDTH * $second / max(0.001, $seconds));
        $y = static fn (float $value): string => self::number((self::STRIP - 6) * (self::LOUD - min(self::LOUD, max(self::SOFT, $value))) / (self::LOUD - self::SOFT));
        $line = '';
        foreach ($lufs as $i => $value) {
            $line .= ('' === $line ? 'M' : 'L').$x(3.0 + $i * $every - 1.5).' '.$y($value ?? self::SOFT);
        }
        $marks = '';
        for ($level = -12.0; $level > self::SOFT; $level -= 12.0) {
            $marks .= \sprintf('<line x1="0" x2="%d" y1="%s" y2="%2$s" stroke="#d9d2c3" stroke-width="1"/><text x="4" y="%s" font-size="11" fill="#6b6459">−%.0f</text>', self::WIDTH, $y($level), self::number((float) $y($level) - 3.0), -$level);
        }
        foreach ($buried as [$from, $to]) {
            $marks .= \sprintf('<rect x="%s" y="%d" width="%s" height="10" fill="#a3211d"/>', $x($from), self::STRIP + 2, self::number(max(2.0, self::WIDTH * ($to - $from) / max(0.001, $seconds))));
        }
        foreach ($guarded as $second) {
            $marks .= \sprintf('<path d="M%s 10l-4 -9h8z" fill="#a3211d"/>', $x($second));
        }
        if (null !== $target) {
            $marks .= \sprintf('<line x1="0" x2="%d" y1="%s" y2="%2$s" stroke="#b5531c" stroke-width="2" stroke-dasharray="7 5"/>', self::WIDTH, $y($target));
        }

        return \sprintf('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" width="%1$d" height="%2$d" role="img" aria-label="Loudness along the file">%s<path d="%s" fill="none" stroke="#1f4e5f" stroke-width="2"/></svg>', self::WIDTH, self::HEIGHT, $marks, $line);
    }

    private static function number(float $value): string
    {
        return (string) round($value, 1);
    }
}
