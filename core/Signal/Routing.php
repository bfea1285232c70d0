<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** How much of each input channel reaches each output channel, as gains. A mono input is the same sound on both inputs. */
final readonly class Routing
{
    public function __construct(public float $leftToLeft, public float $rightToLeft, public float $leftToRight, public float $rightToRight)
    {
    }

    public static function straight(): self
    {
        return new self(1.0, 0.0, 0.0, 1.0);
    }

    /** What comes out when the channels of the input are made louder or softer first. */
    public function afterGains(float $left, float $right): self
    {
        return new self($this->leftToLeft * $left, $this->rightToLeft * $right, $this->leftToRight * $left, $this->rightToRight * $right);
    }

    /** This routing, and $next after it. */
    public function then(self $next): self
    {
        if ($next->isStraight()) {
            return $this;
        }

        return new self(
            $next->leftToLeft * $this->leftToLeft + $next->rightToLeft * $this->leftToRight,
            $next->leftToLeft * $this->rightToLeft + $next->rightToLeft * $this->rightToRight,
            $next->leftToRight * $this->leftToLeft + $next->rightToRight * $this->leftToRight,
            $next->leftToRight * $this->rightToLeft + $next->rightToRight * $this->rightToRight,
        );
    }

    public function isStraight(): bool
    {
        return 1.0 === $this->leftToLeft && 0.0 === $this->rightToLeft && 0.0 === $this->leftToRight && 1.0 === $this->rightToRight;
    }
}
