<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** Ids for the clips and pictures that an edit makes: that of the one they come from, with a number behind it. */
final class FreshIds
{
    /** @var array<string, true> */
    private array $taken;

    /** @var array<string, int> the number to try first, by what stands before it */
    private array $next = [];

    public function __construct(Mix $mix)
    {
        $this->taken = array_fill_keys(array_keys($mix->pictures), true);
        foreach ($mix->tracks as $track) {
            $this->taken += array_fill_keys(array_keys($track->clips), true);
        }
    }

    public function after(string $id): string
    {
        $stem = substr((string) preg_replace('/-n\d+$/', '', $id), 0, 54);
        for ($n = $this->next[$stem] ?? 2; isset($this->taken["{$stem}-n{$n}"]); ++$n) {
        }
        $this->taken["{$stem}-n{$n}"] = true;
        $this->next[$stem] = $n + 1;

        return "{$stem}-n{$n}";
    }
}
