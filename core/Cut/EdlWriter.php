<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/**
 * Writes a mix as an edit decision list of the CMX 3600 form: an event for each clip, on A, A2, A3 … by its track, whole frames, the programme from
 * 01:00:00:00 on, files by name in comments, markers as locators. Of the levels nothing is in it.
 *
 * Source: as {@see EdlReader}.
 */
final readonly class EdlWriter
{
    private function __construct(private Mix $mix, private int $hour)
    {
    }

    /** @param array<string, string> $files names of files by source id */
    public static function write(Mix $mix, string $name, array $files): string
    {
        $writer = new self($mix, Timecode::parse('01:00:00:00', $mix->rate, $mix->frameRate));
        $lines = ['TITLE: '.self::plain($name), 'FCM: '.($mix->frameRate->dropsFrames() ? 'DROP FRAME' : 'NON-DROP FRAME'), ''];
        $number = 0;
        foreach (array_values($mix->tracks) as $i => $track) {
            $lines[] = '* TRACK '.($i + 1).': '.self::plain($track->name);
            $clips = $track->inOrder();
            foreach ($clips as $c => $clip) {
                array_push($lines, ...$writer->event(++$number, 0 === $i ? 'A' : 'A'.($i + 1), $clip, $clips[$c - 1] ?? null, $clips[$c + 1] ?? null, $files));
            }
        }
        foreach ($mix->markers as $marker) {
            $lines[] = "* LOC: {$writer->time($writer->hour + $marker->at)} WHITE   ".self::plain($marker->name);
        }

        return implode("\r\n", $lines)."\r\n";
    }

    /**
     * @param array<string, string> $files
     *
     * @return list<string>
     */
    private function event(int $number, string $channel, Clip $clip, ?Clip $before, ?Clip $next, array $files): array
    {
        // What reaches into the next ends here where that begins: its dissolve takes it on.
        $to = min($clip->end(), max($clip->at, $next->at ?? \PHP_INT_MAX));
        $over = null === $before ? 0 : $this->frame(min($before->end(), $to)) - $this->frame($clip->at);
        $line = fn (Clip $of, string $how, int $from, int $until): string => \sprintf('%03d  %s %-5s %s %s %s %s %s', $number, $this->reel($of, $files), $channel, str_pad($how, 8), $this->time($of->toSource($from)), $this->time($of->toSource($until)), $this->time($this->hour + $from), $this->time($this->hour + $until));
        $name = '* FROM CLIP NAME:  '.self::plain($clip->name);

        return [
            ...($over > 0 ? [$line($before, 'C', $clip->at, $clip->at), $line($clip, \sprintf('D    %03d', $over), $clip->at, $to), '* FROM CLIP NAME:  '.self::plain($before->name), '* TO CLIP NAME:  '.self::plain($clip->name)] : [$line($clip, 'C', $clip->at, $to), $name]),
            '* SOURCE FILE: '.self::plain($files[$clip->source] ?? $this->mix->sources[$clip->source]->name),
        ];
    }

    /** @param array<string, string> $files @return string eight characters */
    private function reel(Clip $clip, array $files): string
    {
        $file = pathinfo($files[$clip->source] ?? $this->mix->sources[$clip->source]->name, \PATHINFO_FILENAME);

        return str_pad(substr(strtoupper((string) preg_replace('/[^A-Za-z0-9]+/', '', $file)) ?: 'AX', 0, 8), 8);
    }

    private function frame(int $sample): int
    {
        return $this->mix->frameRate->frameAt($sample, $this->mix->rate);
    }

    private function time(int $sample): string
    {
        return Timecode::format($sample, $this->mix->rate, $this->mix->frameRate);
    }

    private static function plain(string $text): string
    {
        return (string) preg_replace('/[\p{Cc}]+/u', ' ', $text);
    }
}
