<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Media\MediaStore;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/**
 * The highest sample of each 100 ms of the programme. What was measured of the sources only bounds it, since a notch may lie on the
 * very sample; so where the bound is above what matters, those moments are rendered, as long as they are few.
 */
final readonly class ProgrammePeaks
{
    /** Clips that are rendered for 100 ms at most after an edit, in all moments together; each takes about a third of a millisecond. */
    private const MOST = 240;

    public function __construct(private EntityManagerInterface $entities, private Measures $measures, private MediaStore $store)
    {
    }

    /**
     * @param array<string, string> $states by track: all that its sound depends on
     * @param float $limit dBFS above which a bound is not good enough
     *
     * @return array{list<float>, bool} full scale is 1; and whether the highest of them, and all above full scale, are exact
     */
    public function of(Project $project, Mix $mix, MixFigures $figures, array $states, float $limit): array
    {
        $peaks = $figures->peaks();
        $bounds = array_filter($peaks, static fn (float $peak): bool => $peak > 10.0 ** ($limit / 20.0));
        if ([] === $bounds) {
            return [$peaks, true];
        }
        arsort($bounds);
        // The highest bounds first: once a peak is found that no other bound passes, it is the highest of all.
        $count = self::affordable($mix, array_keys($bounds));
        $above = \array_slice(array_keys($bounds), 0, $count);
        sort($above);
        $next = array_values($bounds)[$count] ?? 0.0;
        $state = implode(' ', $states)." {$limit} ".$mix->faders->programme->db;
        $exact = $this->measures->remembered($project, 'peaks', $state, fn (): array => $this->rendered($mix, $above));
        foreach ($exact as $k => $peak) {
            $peaks[$k] = min($peaks[$k], $peak);
        }

        return [array_values($peaks), $next <= min(1.0, [] === $exact ? 0.0 : max($exact))];
    }

    /**
     * How many of some moments can be rendered at once.
     *
     * @param list<int> $tenths those that matter most first
     */
    private static function affordable(Mix $mix, array $tenths): int
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $spans = [];
        foreach ($mix->tracks as $track) {
            foreach ($track->isSilent() ? [] : $track->clips as $clip) {
                $spans[] = [intdiv($clip->at, $frames), intdiv($clip->end() - 1, $frames)];
            }
        }
        $taken = 0;
        foreach ($tenths as $i => $k) {
            $taken += \count(array_filter($spans, static fn (array $span): bool => $k >= $span[0] && $k <= $span[1]));
            if ($taken > self::MOST) {
                return $i;
            }
        }

        return \count($tenths);
    }

    /**
     * @param list<int> $tenths rising
     *
     * @return array<int, float>
     */
    private function rendered(Mix $mix, array $tenths): array
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $spans = array_map(static fn (int $k): Span => Span::of($k * $frames, min(($k + 1) * $frames, $mix->length())), $tenths);
        $sounds = [];
        foreach (array_map(strval(...), array_keys($mix->sources)) as $id) {
            $source = Uuid::isValid($id) ? $this->entities->find(Source::class, $id) : null;
            if (null !== $source) {
                $sounds[$id] = $this->store->sound($source);
            }
        }
        $peaks = array_fill_keys($tenths, 0.0);
        foreach ((new Renderer($mix, $sounds))->render(...$spans) as $from => $samples) {
            $k = intdiv($from, $frames);
            $peaks[$k] = max($peaks[$k] ?? 0.0, [] === $samples ? 0.0 : max(max($samples), -min($samples)));
        }

        return $peaks;
    }
}
