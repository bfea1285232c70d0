<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Media\MediaStore;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
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
     */
    public function of(Project $project, Mix $mix, MixFigures $figures, array $states, float $limit): KnownPeaks
    {
        $bounds = $figures->peaks();
        [$above, $next] = $this->worthKnowing($mix, $bounds, 10.0 ** ($limit / 20.0));
        $exact = $this->measures->rememberedEach($project, 'peaks', $this->statesAt($mix, $states, $above), fn (array $missing): array => $this->rendered($mix, array_map(intval(...), $missing)));
        $highest = 0.0;
        $over = [];
        foreach ($bounds->pieces() as $from => $piece) {
            foreach ($piece as $i => $bound) {
                $peak = isset($exact[$from + $i]) ? min($bound, $exact[$from + $i]) : $bound;
                $highest = max($highest, $peak);
                if ($peak > 1.0) {
                    $over[$from + $i] = $peak;
                }
            }
        }

        return new KnownPeaks($highest, $over, $next <= min(1.0, [] === $exact ? 0.0 : max($exact)) || [] === $above);
    }

    /**
     * What the sound of some moments depends on: the tracks that sound there, and the faders behind them.
     *
     * @param array<string, string> $states by track
     * @param list<int> $tenths
     *
     * @return array<int, string>
     */
    private function statesAt(Mix $mix, array $states, array $tenths): array
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $hashes = array_map(static fn (string $state): string => hash('xxh3', $state), $states);
        $at = array_fill_keys($tenths, "{$mix->length()} {$mix->faders->programme->db}");
        foreach ($mix->tracks as $id => $track) {
            foreach ($tenths as $k) {
                foreach ($track->clips as $clip) {
                    if ($clip->at < ($k + 1) * $frames && $clip->end() > $k * $frames) {
                        $at[$k] .= " {$hashes[$id]}";
                        break;
                    }
                }
            }
        }

        return $at;
    }

    /**
     * The highest bounds first: once a peak is found that no other bound passes, it is the highest of all.
     *
     * @param float $limit full scale is 1
     *
     * @return array{list<int>, float} the numbers of those 100 ms that can be rendered, rising, and the highest bound that cannot
     */
    private function worthKnowing(Mix $mix, Series $bounds, float $limit): array
    {
        $highest = [];
        foreach ($bounds->pieces() as $from => $piece) {
            foreach ($piece as $i => $bound) {
                if ($bound > $limit) {
                    $highest[$from + $i] = $bound;
                }
            }
            // One more than are rendered at most, so that what comes after them is known.
            arsort($highest);
            $highest = \array_slice($highest, 0, self::MOST + 1, true);
        }
        $count = self::affordable($mix, array_keys($highest));
        $above = \array_slice(array_keys($highest), 0, $count);
        sort($above);

        return [$above, array_values($highest)[$count] ?? 0.0];
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
