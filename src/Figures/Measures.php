<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Media\MediaStore;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** What the sources of a project were measured at; each is read once. */
final readonly class Measures
{
    private const REMEMBERED_SECONDS = 7 * 86_400;

    public function __construct(private EntityManagerInterface $entities, private MediaStore $store, private CacheInterface $cache, private CacheItemPoolInterface $pool)
    {
    }

    /** @return Closure(string): ?SourceTenths by the id that the mix calls a source by */
    public function tenthsOf(Project $project): Closure
    {
        $known = [];

        return function (string $id) use ($project, &$known): ?SourceTenths {
            if (!\array_key_exists($id, $known)) {
                $source = $this->source($project, $id);
                $known[$id] = null === $source ? null : $this->store->tenths($source)->withBands(fn (): SourceBands => $this->store->bands($source));
            }

            return $known[$id];
        };
    }

    /** @return Closure(string): ?SourceBands by the id that the mix calls a source by */
    public function bandsOf(Project $project): Closure
    {
        $known = [];

        return function (string $id) use ($project, &$known): ?SourceBands {
            if (!\array_key_exists($id, $known)) {
                $source = $this->source($project, $id);
                $known[$id] = null === $source ? null : $this->store->bands($source);
            }

            return $known[$id];
        };
    }

    /** @return Closure(string): list<Span> when somebody speaks, in source samples and as it was put right by hand, by the id that the mix calls a source by */
    public function activityOf(Project $project, Mix $mix, float $sensitivity): Closure
    {
        $known = [];

        return function (string $id) use ($project, $mix, $sensitivity, &$known): array {
            if (!\array_key_exists($id, $known)) {
                $source = $this->source($project, $id);
                $found = null === $source ? [] : $this->activity($source, $mix->rate, $sensitivity);
                $known[$id] = isset($mix->sources[$id]) ? $mix->sources[$id]->marks->applied($found) : $found;
            }

            return $known[$id];
        };
    }

    /**
     * A source's sound never changes, so that what was found once holds.
     *
     * @return list<Span>
     */
    public function activity(Source $source, int $rate, float $sensitivity): array
    {
        $spans = $this->cache->get(\sprintf('speech-%s-%d-%.2f', $source->id, $rate, $sensitivity), fn (): array => array_map(
            static fn (Span $span): array => [$span->from, $span->to],
            Activity::in($this->store->speechLevels($source), $rate, $sensitivity, $this->store->speechChance($source)),
        ));

        return array_map(static fn (array $span): Span => Span::of(...$span), $spans);
    }

    /**
     * What was worked out last for a part of a project, where that part is still the same; only the newest is kept.
     *
     * @template T
     *
     * @param string $part such as a track
     * @param string $state all that the result depends on
     * @param Closure(): T $make
     *
     * @return T
     */
    public function remembered(Project $project, string $part, string $state, Closure $make): mixed
    {
        $item = $this->pool->getItem("worked-out-{$project->id}-".hash('xxh128', $part));
        /** @var ?array{string, T} $known */
        $known = $item->get();
        $state = hash('xxh128', $state);
        if (null === $known || $known[0] !== $state) {
            $known = [$state, $make()];
            $this->pool->save($item->set($known)->expiresAfter(self::REMEMBERED_SECONDS));
        }

        return $known[1];
    }

    /**
     * The same for many small parts together, of which an edit changes a few: kept as one.
     *
     * @template K of array-key
     * @template T
     *
     * @param array<K, string> $states by part: all that its result depends on
     * @param Closure(list<K>): array<K, T> $make of the parts that are not known
     *
     * @return array<K, T> in the order of the states
     */
    public function rememberedEach(Project $project, string $parts, array $states, Closure $make): array
    {
        $item = $this->pool->getItem("worked-out-{$project->id}-".hash('xxh128', $parts));
        /** @var array<K, array{string, T}> $known */
        $known = $item->get() ?? [];
        $states = array_map(static fn (string $state): string => hash('xxh128', $state), $states);
        $missing = array_keys(array_filter($states, static fn (string $state, string|int $part): bool => ($known[$part][0] ?? '') !== $state, \ARRAY_FILTER_USE_BOTH));
        if ([] !== $missing) {
            $known = array_intersect_key($known, $states);
            foreach ($make($missing) as $part => $result) {
                $known[$part] = [$states[$part], $result];
            }
            $this->pool->save($item->set($known)->expiresAfter(self::REMEMBERED_SECONDS));
        }

        $results = [];
        foreach (array_keys($states) as $part) {
            $results[$part] = $known[$part][1];
        }

        return $results;
    }

    public function source(Project $project, string $id): ?Source
    {
        return Uuid::isValid($id) ? $this->entities->getRepository(Source::class)->findOneBy(['id' => $id, 'project' => $project]) : null;
    }
}
