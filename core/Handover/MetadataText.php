<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/** Tags and chapters as the text that ffmpeg reads them from, for files that it codes. */
final readonly class MetadataText
{
    /**
     * @param list<Chapter> $chapters
     * @param int $rate samples per second of the file
     * @param int $frames how long it is
     * @param bool $asTags whether the format has no chapters of its own, so that they are written as tags, in the way of Ogg
     */
    public static function of(Tags $tags, string $date, array $chapters, int $rate, int $frames, bool $asTags): string
    {
        $text = ";FFMETADATA1\n";
        foreach (['title' => $tags->title, 'album' => $tags->programme, 'track' => $tags->episode, 'artist' => $tags->author, 'date' => $date] as $name => $value) {
            $text .= '' === $value ? '' : "{$name}=".self::escaped($value)."\n";
        }
        foreach ($chapters as $i => $chapter) {
            $end = isset($chapters[$i + 1]) ? $chapters[$i + 1]->at : $frames;
            $text .= $asTags
                ? \sprintf("CHAPTER%03d=%s\nCHAPTER%03dNAME=%s\n", $i + 1, self::clock($chapter->at / $rate), $i + 1, self::escaped($chapter->name))
                : "[CHAPTER]\nTIMEBASE=1/{$rate}\nSTART={$chapter->at}\nEND={$end}\ntitle=".self::escaped($chapter->name)."\n";
        }

        return $text;
    }

    private static function clock(float $seconds): string
    {
        return \sprintf('%02d:%02d:%06.3f', (int) ($seconds / 3600), (int) ($seconds / 60) % 60, fmod($seconds, 60.0));
    }

    private static function escaped(string $text): string
    {
        return addcslashes(str_replace(["\r", "\n", "\0"], ' ', $text), '=;#\\');
    }
}
