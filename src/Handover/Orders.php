<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\User;
use Wattage\App\Media\Quotas;
use Wattage\App\Media\Refused;
use Wattage\App\Project\History;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\NamePattern;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Interchange\OrderDocument;
use Wattage\Core\Problem;

/** Takes orders for files: all of a handover, or none of it. */
final readonly class Orders
{
    public function __construct(private EntityManagerInterface $entities, private History $history, private Quotas $quotas)
    {
    }

    /**
     * @param int $revision what was seen when it was asked for, whatever others do meanwhile
     * @param non-empty-list<FileOrder> $files
     *
     * @return Uuid that all of them share
     *
     * @throws Problem|Refused
     */
    public function take(Project $project, User $by, int $revision, array $files, NamePattern $pattern, string $recipe = '', Tags $tags = new Tags()): Uuid
    {
        $mix = $this->history->mixAt($project, $revision);
        $handover = Uuid::v7();
        $this->quotas->render($by, \count($files));
        foreach ($files as $order) {
            $span = $order->excerpt->span($mix);
            $order->excerpt->of($mix);
            $this->entities->persist(new Delivery($project, $revision, OrderDocument::toArray($order), $handover, $recipe, $pattern->text, $tags->toArray(), $by, intdiv($span->length(), $mix->rate)));
        }
        $this->entities->flush();

        return $handover;
    }
}
