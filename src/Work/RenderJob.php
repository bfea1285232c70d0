<?php

declare(strict_types=1);

namespace Wattage\App\Work;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Job;
use Wattage\App\Handover\DeliveryMaker;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Lease;

/** Renders a delivery. One that was cancelled stays as a line in the list. */
final readonly class RenderJob implements Work
{
    public function __construct(private EntityManagerInterface $entities, private DeliveryMaker $maker)
    {
    }

    public function run(Job $job, Lease $lease): Closure
    {
        return $this->maker->run($this->delivery($job) ?? throw new Cancelled(), $lease);
    }

    public function tidy(Job $job): void
    {
    }

    public function cancel(Job $job): void
    {
    }

    public function fail(Job $job, string $problem): void
    {
    }

    public function discard(Job $job): void
    {
        $delivery = $this->delivery($job);
        null === $delivery || $this->maker->discard($delivery);
    }

    private function delivery(Job $job): ?Delivery
    {
        return $this->entities->getRepository(Delivery::class)->findOneBy(['job' => $job]);
    }
}
