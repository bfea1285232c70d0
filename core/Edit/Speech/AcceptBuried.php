<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Accepted;
use Wattage\Core\Timeline\Mix;

/** Takes a buried stretch of speech as it is, with a note; or not any more. */
final readonly class AcceptBuried implements Edit
{
    /**
     * @param Span $span timeline samples
     * @param ?string $note null to call it buried again
     */
    public function __construct(private Span $span, private ?string $note)
    {
    }

    public function label(Mix $before): string
    {
        return (null === $this->note ? 'Look again at buried speech, ' : 'Accept buried speech, ').Naming::span($before, $this->span);
    }

    public function apply(Mix $before): Mix
    {
        $others = array_values(array_filter($before->aim->accepted, fn (Accepted $a): bool => !$a->span->meets($this->span)));
        $accepted = null === $this->note ? $others : [...$others, new Accepted($this->span, $this->note)];
        usort($accepted, static fn (Accepted $a, Accepted $b): int => $a->span->from <=> $b->span->from);

        return $accepted == $before->aim->accepted ? $before : $before->withAim($before->aim->with(accepted: $accepted));
    }
}
