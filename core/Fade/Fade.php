<?php

declare(strict_types=1);

namespace Wattage\Core\Fade;

/** The fade at one end of a clip. Length 0 is no fade; its shape is then what a crossfade there takes. */
final readonly class Fade
{
    /** @param int $length samples ≥ 0 */
    private function __construct(public int $length, public FadeShape $shape)
    {
    }

    public static function none(): self
    {
        return new self(0, FadeShape::EqualPower);
    }

    /** @throws InvalidFade when negative */
    public static function of(int $length, FadeShape $shape = FadeShape::EqualPower): self
    {
        return $length >= 0 ? new self($length, $shape) : throw InvalidFade::negative();
    }

    public function isUsual(): bool
    {
        return 0 === $this->length && FadeShape::EqualPower === $this->shape;
    }

    public function noLongerThan(int $length): self
    {
        return $this->length <= $length ? $this : new self(max(0, $length), $this->shape);
    }
}
