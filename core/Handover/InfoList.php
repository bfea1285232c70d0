<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/**
 * Tags in a WAV file: a list of texts.
 *
 * Source: Microsoft/IBM, Multimedia Programming Interface and Data Specifications 1.0 (1991), INFO list chunk [M].
 */
final readonly class InfoList
{
    public static function chunk(Tags $tags, string $date): string
    {
        $body = 'INFO';
        foreach (['INAM' => $tags->title, 'IPRD' => $tags->programme, 'IPRT' => $tags->episode, 'IART' => $tags->author, 'ICRD' => $date] as $id => $text) {
            if ('' !== $text) {
                $body .= $id.pack('V', \strlen($text) + 1).$text."\0".(\strlen($text) % 2 ? '' : "\0");
            }
        }

        return 'LIST'.pack('V', \strlen($body)).$body;
    }
}
