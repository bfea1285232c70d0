<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Media\MediaStore;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixPower;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Differences;
use Wattage\Core\Timeline\Mix;

/** Two states of a project side by side. */
final readonly class Comparison
{
    public function __construct(private History $history, private EntityManagerInterface $entities, private MediaStore $store)
    {
    }

    /** @return array{changes: list<string>, loudness: array{?float, ?float}} what changed on the way, and the loudness of both in LUFS, over the same moments */
    public function between(Project $project, int $from, int $to): array
    {
        $a = MixDocument::decode($this->history->revision($project, $from)->mix);
        $b = MixDocument::decode($this->history->revision($project, $to)->mix);
        $blocks = $this->blocks($project);

        return ['changes' => Differences::between($a, $b), 'loudness' => Gating::sideBySide($this->power($a, $blocks), $this->power($b, $blocks))];
    }

    /**
     * @param Closure(string): ?SourceBlocks $blocks
     *
     * @return list<float> of each 100 ms
     */
    private function power(Mix $mix, Closure $blocks): array
    {
        $length = $mix->length();

        return 0 === $length ? [] : MixPower::of($mix, $blocks, Span::of(0, $length));
    }

    /** @return Closure(string): ?SourceBlocks each source read once */
    private function blocks(Project $project): Closure
    {
        $known = [];

        return function (string $id) use ($project, &$known): ?SourceBlocks {
            if (!\array_key_exists($id, $known)) {
                $source = Uuid::isValid($id) ? $this->entities->getRepository(Source::class)->findOneBy(['id' => $id, 'project' => $project]) : null;
                $known[$id] = null === $source ? null : $this->store->blocks($source);
            }

            return $known[$id];
        };
    }
}
