<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Source;
use Wattage\App\Media\MediaStore;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Loudness\Peaks;
use Wattage\Core\Problem;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;

/** Looks for loud moments in clips: the sound comes from the store, what to do about them from the core. */
final readonly class PeakSearch
{
    /** The outline of 20 ms points. */
    private const OUTLINE = 'overview-1';

    public function __construct(private EntityManagerInterface $entities, private MediaStore $store)
    {
    }

    /**
     * @param Fields $wanted clips, ceiling in dBFS, and if wanted from and to on the timeline
     *
     * @return list<array<string, mixed>> worst first
     *
     * @throws Problem
     */
    public function in(Mix $mix, Fields $wanted): array
    {
        $ceiling = $wanted->float('ceiling', -60, 24);
        $range = $wanted->has('from') ? Span::of($wanted->int('from'), $wanted->int('to')) : null;
        $searches = [];
        foreach ($wanted->strings('clips') as $id) {
            $clip = $mix->clip($id);
            $span = null === $range ? $clip->heard() : $range->shifted($clip->in - $clip->at)->within($clip->heard());
            $search = null === $span ? null : $this->search($mix, $clip, $span, $ceiling);
            null === $search || $searches[$id] = $search;
        }
        Peaks::areFew(array_values($searches));
        $found = [];
        foreach ($searches as $id => $search) {
            foreach ($search->found() as $peak) {
                $found[] = [
                    'clip' => (string) $id,
                    'at' => $peak->notch->at,
                    'time' => $mix->clip((string) $id)->toTimeline($peak->notch->at),
                    'db' => $peak->db,
                    'by' => $peak->notch->by,
                    'before' => $peak->notch->before,
                    'after' => $peak->notch->after,
                    'hold' => $peak->notch->hold,
                ];
            }
        }
        usort($found, static fn (array $a, array $b): int => $b['db'] <=> $a['db'] ?: $a['time'] <=> $b['time']);

        return $found;
    }

    private function search(Mix $mix, Clip $clip, Span $span, float $ceiling): ?Peaks
    {
        $source = Uuid::isValid($clip->source) ? $this->entities->find(Source::class, $clip->source) : null;
        if (null === $source) {
            return null;
        }
        $parts = GainSchedule::parts($mix, $clip, Fades::of($mix->trackOf($clip->id)));

        return Peaks::above($parts, $this->store->bytes($source, self::OUTLINE), $this->store->sound($source), $span, $ceiling, $mix->rate, $clip->colour->biquads($mix->rate));
    }
}
