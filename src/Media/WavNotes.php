<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use SimpleXMLElement;

/**
 * What a WAV file says about itself besides its sound: the names that a recorder gave its tracks, and cue points.
 *
 * Sources: the iXML specification (TRACK_LIST, TRACK, INTERLEAVE_INDEX or CHANNEL_INDEX, NAME) [M]; cue and labl chunks of RIFF [M].
 */
final readonly class WavNotes
{
    private const MAX_CUES = 2000;
    private const MAX_XML = 1_000_000;

    /**
     * @param array<int, string> $tracks names by the number of the channel, from 1
     * @param list<array{float, string}> $cues seconds and name, in the order of time
     */
    private function __construct(public array $tracks, public array $cues)
    {
    }

    public static function of(string $file): self
    {
        $chunks = WavChunks::of($file, ['fmt ' => 16, 'iXML' => self::MAX_XML, 'cue ' => 4 + 24 * self::MAX_CUES, 'LISTadtl' => self::MAX_XML]);
        $rate = WavChunks::number($chunks?->body('fmt ') ?? '', 4);

        return null === $chunks ? new self([], []) : new self(self::tracks($chunks->body('iXML')), $rate > 0 ? self::cues($chunks->body('cue '), self::labels($chunks->body('LISTadtl')), $rate) : []);
    }

    /** @return array<int, string> */
    private static function tracks(string $xml): array
    {
        // Neither a document type nor anything from elsewhere: such a file asks for more than names.
        if ('' === $xml || false !== stripos($xml, '<!DOCTYPE') || false !== stripos($xml, '<!ENTITY')) {
            return [];
        }
        $before = libxml_use_internal_errors(true);
        $document = simplexml_load_string(rtrim($xml, "\0 \r\n\t"), options: \LIBXML_NONET);
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        $tracks = [];
        foreach ($document instanceof SimpleXMLElement ? $document->xpath('//TRACK_LIST/TRACK') ?: [] : [] as $track) {
            $number = (int) ((string) $track->INTERLEAVE_INDEX ?: (string) $track->CHANNEL_INDEX);
            $name = self::clean((string) $track->NAME);
            $number >= 1 && '' !== $name && $tracks[$number] = $name;
        }

        return $tracks;
    }

    /**
     * @param array<int, string> $labels by the id of the cue point
     *
     * @return list<array{float, string}>
     */
    private static function cues(string $bytes, array $labels, int $rate): array
    {
        $cues = [];
        for ($i = 0, $n = min(self::MAX_CUES, WavChunks::number($bytes, 0)); $i < $n && \strlen($bytes) >= 28 + 24 * $i; ++$i) {
            $id = WavChunks::number($bytes, 4 + 24 * $i);
            $cues[] = [WavChunks::number($bytes, 24 + 24 * $i) / $rate, ($labels[$id] ?? '') ?: 'Cue '.($i + 1)];
        }
        usort($cues, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return $cues;
    }

    /** @return array<int, string> */
    private static function labels(string $bytes): array
    {
        $labels = [];
        for ($at = 0; $at + 12 <= \strlen($bytes); $at += 8 + $size + ($size & 1)) {
            $size = WavChunks::number($bytes, $at + 4);
            if ('labl' === substr($bytes, $at, 4) && $size > 4) {
                $labels[WavChunks::number($bytes, $at + 8)] = self::clean(substr($bytes, $at + 12, $size - 4));
            }
        }

        return $labels;
    }

    private static function clean(string $text): string
    {
        return trim(mb_substr((string) preg_replace('/[\p{Cc}\p{Cf}]+/u', ' ', mb_scrub(rtrim($text, "\0"))), 0, 100));
    }
}
