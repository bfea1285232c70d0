<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** What a decoder found wrong in a file that it could read all the same. */
final class Complaints
{
    private int $number = 0;

    /** @param string $text as the decoder writes it, in pieces of any length */
    public function add(string $text): void
    {
        $this->number += substr_count($text, "\n");
    }

    /** For people; null when nothing was wrong. */
    public function sentence(): ?string
    {
        return match ($this->number) {
            0 => null,
            1 => 'The file is damaged in one place, or ends badly. Listen to it before you use it, or export it again.',
            default => "The file is damaged: reading it met {$this->number} errors. Parts of its sound may be missing or wrong. Listen to it before you use it, or export it again.",
        };
    }
}
