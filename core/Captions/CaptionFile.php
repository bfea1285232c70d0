<?php

declare(strict_types=1);

namespace Wattage\Core\Captions;

use Wattage\Core\Time\Span;

/**
 * Reads captions: WebVTT as the W3C defines it, and SubRip (SRT), which has no standard, as it is commonly written. As WebVTT
 * wants it, a cue that is broken is left out and the rest is used.
 */
final readonly class CaptionFile
{
    public const MAX_BYTES = 1_000_000;
    public const MAX_CUES = 20_000;

    private const TIME = '(?:(\d{1,3}):)?([0-5]\d):([0-5]\d)[.,](\d{3})';
    private const ENTITIES = ['&lt;' => '<', '&gt;' => '>', '&nbsp;' => ' ', '&lrm;' => '', '&rlm;' => '', '&amp;' => '&'];

    /**
     * @param list<Cue> $cues in the order of time; they may overlap
     * @param list<string> $leftOut why, a cue each
     */
    private function __construct(public array $cues, public array $leftOut)
    {
    }

    /**
     * @param int $rate samples per second
     *
     * @throws InvalidCaptions when there is nothing to use
     */
    public static function read(string $text, int $rate): self
    {
        \strlen($text) <= self::MAX_BYTES || throw InvalidCaptions::tooLarge(self::MAX_BYTES);
        mb_check_encoding($text, 'UTF-8') || throw InvalidCaptions::notUtf8();
        $lines = preg_split('/\r\n|\r|\n/', (string) preg_replace('/^\x{FEFF}/u', '', $text)) ?: [];
        $isVtt = str_starts_with($lines[0] ?? '', 'WEBVTT');
        $cues = $leftOut = [];
        foreach (self::blocks($lines) as $first => $block) {
            if (1 === preg_match('/^(WEBVTT|NOTE|STYLE|REGION)\b/', $block[0]) && $isVtt) {
                continue;
            }
            // A cue may have a name of its own on the line before its times.
            $timing = str_contains($block[0], '-->') ? 0 : 1;
            $line = $first + $timing + 1;
            $span = self::span($block[$timing] ?? '', $rate);
            if (!$span instanceof Span) {
                $leftOut[] = "line {$line}: {$span}";
                continue;
            }
            $said = self::plain(implode(' ', \array_slice($block, $timing + 1)));
            if ('' === $said) {
                continue;
            }
            $cues[] = new Cue($span, $said);
        }[] !== $cues || throw InvalidCaptions::none($leftOut[0] ?? 'it is empty');
        \count($cues) <= self::MAX_CUES || throw InvalidCaptions::tooMany(self::MAX_CUES);
        usort($cues, static fn (Cue $a, Cue $b): int => $a->span->from <=> $b->span->from);

        return new self($cues, $leftOut);
    }

    /**
     * @param array<int, string> $lines
     *
     * @return array<int, non-empty-list<string>> lines that belong together, by the number of the first
     */
    private static function blocks(array $lines): array
    {
        $blocks = [];
        $start = null;
        foreach ($lines as $number => $line) {
            if ('' === trim($line)) {
                $start = null;
                continue;
            }
            $start ??= $number;
            $blocks[$start][] = $line;
        }

        return $blocks;
    }

    /** @return Span|string samples, or what is wrong */
    private static function span(string $line, int $rate): Span|string
    {
        if (1 !== preg_match('/^\s*'.self::TIME.'\s*-->\s*'.self::TIME.'(\s|$)/', $line, $t)) {
            return 'no times like 00:00:01.000 --> 00:00:02.500';
        }
        $from = self::samples([$t[1], $t[2], $t[3], $t[4]], $rate);
        $to = self::samples([$t[5], $t[6], $t[7], $t[8]], $rate);

        return $to > $from ? Span::of($from, $to) : 'it ends before it begins';
    }

    /** @param array{string, string, string, string} $time hours, minutes, seconds, milliseconds */
    private static function samples(array $time, int $rate): int
    {
        return intdiv((((int) $time[0] * 60 + (int) $time[1]) * 60 + (int) $time[2]) * 1000 * $rate + (int) $time[3] * $rate, 1000);
    }

    private static function plain(string $text): string
    {
        $bare = (string) preg_replace(['/<[^>]*>/', '/\{\\\\[^}]*\}/'], '', $text);

        return trim((string) preg_replace('/[\s\p{Cc}]+/u', ' ', strtr($bare, self::ENTITIES)));
    }
}
