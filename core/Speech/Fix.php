<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Timeline\Mix;

/** What it takes to bring one buried stretch to the wanted clearance: as much as its worst moment needs, and no more. */
final readonly class Fix
{
    /** dB; a deeper dip takes the sound away rather than making room. */
    public const DEEPEST = -40.0;

    /** dB; more would bring up the background of the recording, and its peaks. */
    public const HIGHEST = 12.0;

    /** dB on top, so that what is worked out every 100 ms still holds in the render. */
    private const MARGIN = 0.3;

    /**
     * @param non-empty-array<int, float> $speech power by moment
     * @param array<string, non-empty-array<int, float>> $rest the same of each other track, by id
     */
    public function __construct(private Mix $mix, private float $wanted, private array $speech, private array $rest)
    {
    }

    /** The track with the most power in the stretch. */
    public function covering(): ?string
    {
        $id = array_key_first($this->byPower());

        return null === $id ? null : (string) $id;
    }

    /**
     * Lowers the fewest tracks that do, the one that covers most first; locked ones are let alone.
     *
     * @return array{list<string>, ?float} tracks, dB; null where no depth within the limit does
     */
    public function dip(): array
    {
        $free = array_filter($this->byPower(), fn (string $id): bool => !$this->mix->track($id)->locked, \ARRAY_FILTER_USE_KEY);
        $lowered = [];
        foreach (array_keys($free) as $id) {
            $lowered[] = $id;
            $dip = $this->depth($lowered);
            if (null !== $dip) {
                return [$lowered, $dip];
            }
        }

        return [$lowered, null];
    }

    public function lift(): ?float
    {
        $needed = 0.0;
        foreach ($this->speech as $k => $power) {
            $rest = array_sum(array_column($this->rest, $k));
            $needed = $rest > 0.0 ? max($needed, $power > 0.0 ? $this->wanted - 10.0 * log10($power / $rest) : \INF) : $needed;
        }
        $lift = $needed + self::MARGIN;

        return $lift <= self::HIGHEST ? $lift : null;
    }

    /**
     * @param list<string> $lowered tracks
     *
     * @return ?float dB, never above 0; null where no depth within the limit does
     */
    public function depth(array $lowered): ?float
    {
        $ratio = 1.0;
        foreach ($this->speech as $k => $power) {
            $room = $power / 10.0 ** (($this->wanted + self::MARGIN) / 10.0);
            $given = 0.0;
            foreach ($this->rest as $id => $row) {
                if (\in_array((string) $id, $lowered, true)) {
                    $given += $row[$k];
                } else {
                    $room -= $row[$k];
                }
            }
            if ($given > 0.0) {
                $ratio = min($ratio, $room / $given);
            } elseif ($room < 0.0) {
                return null;
            }
        }
        $dip = $ratio > 0.0 ? 10.0 * log10($ratio) : -\INF;

        return $dip >= self::DEEPEST ? $dip : null;
    }

    /** @return array<string, float> power of each track over the stretch, most first; silent ones left out */
    private function byPower(): array
    {
        $powers = array_filter(array_map(array_sum(...), $this->rest), static fn (float|int $power): bool => $power > 0.0);
        arsort($powers);

        return $powers;
    }
}
