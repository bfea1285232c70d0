<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Time\Span;

/** A stretch of speech that is less clear than wanted: where the speech is covered, and by which track. */
final readonly class Covered
{
    /** A band belongs to what is covered if it loses so much of what the worst one does. */
    private const SHARE = 0.5;

    /**
     * @param int $worst lowest clarity in it, 0 … 100
     * @param ?string $track that covers it most; null where no track does, but the room, or the speech is too soft
     * @param int $fromHz nominal centre of the lowest covered band
     * @param int $toHz of the highest
     */
    private function __construct(public Span $span, public int $worst, public ?string $track, public int $fromHz, public int $toHz)
    {
    }

    /** @param array{array<int, float>, array<string, array<int, float>>} $means powers by band: of the speech, and of every other track */
    public static function of(Span $span, int $worst, array $means, Ear $ear): self
    {
        [$speech, $rest] = $means;
        $silence = array_fill(0, ThirdOctaves::COUNT, 0.0);
        $together = $silence;
        foreach ($rest as $row) {
            foreach ($row as $band => $power) {
                $together[$band] += $power;
            }
        }
        $alone = $ear->parts($speech, $silence);
        $heard = $ear->parts($speech, $together);
        $lost = array_map(static fn (float $without, float $with): float => $without - $with, $alone, $heard);
        [$low, $high] = self::around($lost);
        $cover = array_filter(array_map(static fn (array $row): float => array_sum(\array_slice($row, $low, $high - $low + 1)), $rest));
        arsort($cover);
        // Where nothing is lost to other tracks, it is what speech lacks anyway.
        $isCovered = max([0.0, ...$lost]) > 0.002;
        [$low, $high] = $isCovered ? [$low, $high] : self::around(array_map(static fn (float $importance, float $part): float => $importance - $part, SpeechIndex::IMPORTANCE, $alone));

        return new self($span, $worst, $isCovered && [] !== $cover ? (string) array_key_first($cover) : null, ThirdOctaves::CENTRES[$low], ThirdOctaves::CENTRES[$high]);
    }

    /**
     * @param list<float> $lost
     *
     * @return array{int, int} the bands around the worst that lose nearly as much
     */
    private static function around(array $lost): array
    {
        $worst = (int) array_search(max([0.0, ...$lost]), $lost, true);
        $low = $high = $worst;
        while ($low > 0 && $lost[$low - 1] >= self::SHARE * $lost[$worst]) {
            --$low;
        }
        while ($high < ThirdOctaves::COUNT - 1 && $lost[$high + 1] >= self::SHARE * $lost[$worst]) {
            ++$high;
        }

        return [$low, $high];
    }
}
