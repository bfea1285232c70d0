<?php

declare(strict_types=1);

namespace Wattage\Core\Fade;

/**
 * The fade at one end of a clip. Length 0 is no fade; its shape is then what a crossfade there takes. Whole fades use the window
 * 0…1 of their shape; other windows arise when a clip is split within its fade, and keep both halves as they sounded.
 */
final readonly class Fade
{
    /**
     * @param int $length samples ≥ 0
     * @param float $windowFrom where in the shape it is at its silent end, 0…1
     * @param float $windowTo where in the shape it is at its loud end, $windowFrom…1
     */
    private function __construct(public int $length, public FadeShape $shape, public float $windowFrom = 0.0, public float $windowTo = 1.0)
    {
    }

    public static function none(): self
    {
        return new self(0, FadeShape::EqualPower);
    }

    /** @throws InvalidFade when negative, or the window is reversed */
    public static function of(int $length, FadeShape $shape = FadeShape::EqualPower, float $windowFrom = 0.0, float $windowTo = 1.0): self
    {
        $windowFrom >= 0.0 && $windowFrom < $windowTo && $windowTo <= 1.0 || throw InvalidFade::badWindow();

        return $length >= 0 ? new self($length, $shape, $windowFrom, $windowTo) : throw InvalidFade::negative();
    }

    public function isWhole(): bool
    {
        return 0.0 === $this->windowFrom && 1.0 === $this->windowTo;
    }

    public function isUsual(): bool
    {
        return 0 === $this->length && FadeShape::EqualPower === $this->shape;
    }

    public function noLongerThan(int $length): self
    {
        return $this->length <= $length ? $this : new self(max(0, $length), $this->shape, $this->windowFrom, $this->windowTo);
    }

    /**
     * What of the fade lies within the first $length samples from its silent end, and what beyond.
     *
     * @return array{self, self}
     */
    public function cutAt(int $length): array
    {
        if ($length >= $this->length) {
            return [$this, new self(0, $this->shape)];
        }
        $middle = $this->windowFrom + ($this->windowTo - $this->windowFrom) * $length / $this->length;

        return [new self($length, $this->shape, $this->windowFrom, $middle), new self($this->length - $length, $this->shape, $middle, $this->windowTo)];
    }

    /** Whether $next takes up the shape where this one leaves it, as the halves of a cut fade do. */
    public function goesOnIn(self $next): bool
    {
        return $this->length > 0 && $next->length > 0 && $this->shape === $next->shape && $this->windowTo === $next->windowFrom;
    }

    public function joinedWith(self $next): self
    {
        return new self($this->length + $next->length, $this->shape, $this->windowFrom, $next->windowTo);
    }
}
