<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use DateTimeImmutable;
use Wattage\Core\Loudness\Loudness;

/**
 * The chunk with which a WAV file says what it is to a broadcaster: who made it when, where on the clock it begins, and its loudness.
 *
 * Source: EBU Tech 3285, version 2; text there is ASCII, so that other letters are put into the nearest of it.
 */
final readonly class BroadcastExtension
{
    private const VERSION = 2;

    /** What stands for a value that is not known. */
    private const UNKNOWN = 0x7FFF;

    /**
     * @param string $description what it is; cut after 256 letters
     * @param string $originator who made it; cut after 32
     * @param string $reference a name of its own for this file; cut after 32
     * @param int $timeReference samples since midnight at which it begins, at its own rate
     * @param string $history how it was coded, as Tech 3285 writes it
     */
    public function __construct(
        private string $description,
        private string $originator,
        private string $reference,
        private DateTimeImmutable $made,
        private int $timeReference,
        private ?Loudness $loudness,
        private string $history,
    ) {
    }

    /** The whole chunk. Its length does not depend on the loudness, which may be known later than the place of the samples. */
    public function chunk(): string
    {
        $history = self::ascii($this->history)."\r\n";
        $history .= \strlen($history) % 2 ? "\0" : '';
        $body = self::text($this->description, 256).self::text($this->originator, 32).self::text($this->reference, 32)
            .$this->made->format('Y-m-dH:i:s').pack('P', $this->timeReference).pack('v', self::VERSION).str_repeat("\0", 64)
            .pack('v5', ...array_map(self::hundredths(...), [$this->loudness?->integrated, $this->loudness?->range, $this->loudness?->truePeak, $this->loudness?->maxMomentary, $this->loudness?->maxShortTerm]))
            .str_repeat("\0", 180).$history;

        return 'bext'.pack('V', \strlen($body)).$body;
    }

    private static function hundredths(?float $value): int
    {
        return null === $value || abs($value) >= 327.0 ? self::UNKNOWN : ((int) round(100.0 * $value)) & 0xFFFF;
    }

    private static function text(string $text, int $length): string
    {
        return str_pad(substr(self::ascii($text), 0, $length), $length, "\0");
    }

    private static function ascii(string $text): string
    {
        return (string) preg_replace('/[^\x20-\x7E]/', '', (string) iconv('UTF-8', 'ASCII//TRANSLIT//IGNORE', $text));
    }
}
