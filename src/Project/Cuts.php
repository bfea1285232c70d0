<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\Core\Cut\Carried;
use Wattage\Core\Cut\Cut;
use Wattage\Core\Cut\EdlReader;
use Wattage\Core\Cut\EdlWriter;
use Wattage\Core\Cut\InvalidCut;
use Wattage\Core\Cut\Laid;
use Wattage\Core\Cut\OtioReader;
use Wattage\Core\Cut\OtioWriter;
use Wattage\Core\Cut\Together;
use Wattage\Core\Edit\Cut\ChangeCut;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source as MixSource;
use Wattage\Core\Timeline\Track;
use Wattage\Core\Timeline\UnknownItem;

/** Cuts in and out: what of one that was made elsewhere can be laid with the sources of a project, and the mix as one for others. */
final readonly class Cuts
{
    /** Entries of a list of what is new or gone; the counts beside it are of all. */
    private const LISTED = 200;

    /** Cuts on the timeline that it may be a new version of. */
    private const MOST_VERSIONS = 3;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @return array<string, mixed>
     *
     * @throws InvalidCut
     */
    public function look(Project $project, Mix $mix, string $text): array
    {
        $cut = self::read($text, $mix);
        $sources = $this->sources($project, $mix);
        $laid = Laid::of($cut, $sources, $mix, self::key());
        $whole = Carried::in($text, $sources);

        return [
            'name' => $cut->name,
            'tracks' => \count($cut->tracks),
            'clips' => $cut->clips(),
            'found' => $laid->found,
            'missing' => array_map(static fn (array $one): array => [...$one, 'seconds' => round($one['seconds'], 1)], $laid->missing),
            'short' => $laid->short,
            'left' => $cut->left,
            'edit' => $laid->edit,
            'versions' => null === $laid->edit ? [] : $this->versions($mix, $laid->edit, array_column(array_column($sources, 1), null, 'id')),
            'whole' => null === $whole ? null : ['edit' => 'take-mix', 'name' => '' === $cut->name ? 'a cut' : $cut->name, 'mix' => $whole],
        ];
    }

    /**
     * @param list<string> $ids of sources
     *
     * @return array<string, mixed> the edit that lays them, each on a track of its own
     *
     * @throws Problem when there are none, or one does not say when it was recorded
     */
    public function together(Project $project, Mix $mix, array $ids, int $at, bool $byTime): array
    {
        $sources = [];
        foreach ($this->ready($project) as $source) {
            $placeable = $mix->sources[(string) $source->id] ?? $source->toMixSource();
            \in_array((string) $source->id, $ids, true) && null !== $placeable && $sources[] = ['name' => $source->name, 'source' => $placeable, 'began' => $source->beganAt, 'marks' => $source->marks];
        }[] === $ids || \count($sources) < \count($ids) && throw UnknownItem::source();
        $cut = Together::of($sources, $at, $byTime, $mix);

        return Laid::of($cut, array_map(static fn (array $one): array => [$one['source']->id, $one['source']], $sources), $mix, self::key())->edit ?? throw UnknownItem::source();
    }

    /** The mix as a cut for other programs. */
    public function otio(Project $project, Mix $mix): string
    {
        return OtioWriter::write($mix, $project->name, $this->files($project));
    }

    public function edl(Project $project, Mix $mix): string
    {
        return EdlWriter::write($mix, $project->name, $this->files($project));
    }

    private static function key(): string
    {
        return 'cut-'.substr(Uuid::v4()->toBase58(), 0, 10);
    }

    private static function read(string $text, Mix $mix): Cut
    {
        return match (true) {
            1 === preg_match('/^\s*[\[{]/', $text) => OtioReader::read($text, $mix->rate),
            EdlReader::looksLike($text) => EdlReader::read($text, $mix->rate, $mix->frameRate),
            default => throw InvalidCut::notACut(),
        };
    }

    /**
     * What it would be as a new version of each cut that lies on the timeline, the likeliest first.
     *
     * @param array<string, mixed> $edit that lays it
     * @param array<string, MixSource> $sources by id
     *
     * @return list<array<string, mixed>>
     */
    private function versions(Mix $mix, array $edit, array $sources): array
    {
        $cuts = [];
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                null === $clip->cutPart || $cuts[$clip->cutPart->cut][$track->name] = true;
            }
        }
        $versions = [];
        foreach ([] === $cuts ? ['' => array_fill_keys(array_map(static fn (Track $track): string => $track->name, array_values($mix->tracks)), true)] : $cuts as $id => $tracks) {
            $change = [...$edit, 'edit' => 'change-cut', ...('' === $id ? [] : ['instead' => (string) $id])];
            try {
                $read = (new EditReader($mix, $sources))->read($change);
                $relaid = $read instanceof ChangeCut ? $read->relaid($mix) : null;
            } catch (Problem) {
                continue;
            }
            if (null !== $relaid && $relaid->kept > 0) {
                $versions[] = [
                    'tracks' => array_keys($tracks),
                    'kept' => $relaid->kept,
                    'counts' => ['new' => \count($relaid->new), 'gone' => \count($relaid->gone), 'changed' => \count($relaid->changed)],
                    'new' => \array_slice($relaid->new, 0, self::LISTED),
                    'gone' => \array_slice($relaid->gone, 0, self::LISTED),
                    'changed' => \array_slice($relaid->changed, 0, self::LISTED),
                    'edit' => $change,
                ];
            }
        }
        usort($versions, static fn (array $a, array $b): int => $b['kept'] <=> $a['kept']);

        return \array_slice($versions, 0, self::MOST_VERSIONS);
    }

    /** @return list<array{string, MixSource}> what may be placed, with the names of the files that they were */
    private function sources(Project $project, Mix $mix): array
    {
        $sources = [];
        foreach ($this->ready($project) as $source) {
            $placeable = $mix->sources[(string) $source->id] ?? $source->toMixSource();
            null === $placeable || $sources[] = [$source->fileName(), $placeable];
        }

        return $sources;
    }

    /** @return list<Source> */
    private function ready(Project $project): array
    {
        return $this->entities->getRepository(Source::class)->findBy(['project' => $project, 'state' => SourceState::Ready], ['name' => 'ASC', 'id' => 'ASC']);
    }

    /** @return array<string, string> names of files by the id of the source */
    private function files(Project $project): array
    {
        $files = [];
        foreach ($this->entities->getRepository(Source::class)->findBy(['project' => $project]) as $source) {
            $files[(string) $source->id] = $source->fileName();
        }

        return $files;
    }
}
