<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Closure;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\KernelEvents;

/** Does what an answer must not wait for, or must not tell by how long it takes, once it has been sent. */
#[AsEventListener(KernelEvents::TERMINATE)]
final class Later
{
    /** @var list<Closure(): void> */
    private array $waiting = [];

    /** @param Closure(): void $do */
    public function run(Closure $do): void
    {
        $this->waiting[] = $do;
    }

    public function __invoke(): void
    {
        $waiting = $this->waiting;
        $this->waiting = [];
        array_map(static fn (Closure $do) => $do(), $waiting);
    }
}
