<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** What a clip does with the channels of its source: which it takes, and, when opened, how loud each is by itself. */
final readonly class Channels
{
    private function __construct(public ChannelMode $mode, public ?ChannelLevel $left, public ?ChannelLevel $right)
    {
    }

    public static function usual(): self
    {
        return new self(ChannelMode::Stereo, null, null);
    }

    public static function closed(ChannelMode $mode): self
    {
        return new self($mode, null, null);
    }

    public static function opened(ChannelMode $mode, ChannelLevel $left, ChannelLevel $right): self
    {
        return new self($mode, $left, $right);
    }

    public function isOpen(): bool
    {
        return null !== $this->left;
    }

    public function isUsual(): bool
    {
        return ChannelMode::Stereo === $this->mode && !$this->isOpen();
    }

    /** @throws InvalidMix when the clip is not opened */
    public function of(Side $side): ChannelLevel
    {
        return (Side::Left === $side ? $this->left : $this->right) ?? throw InvalidMix::notOpened();
    }

    public function withMode(ChannelMode $mode): self
    {
        return new self($mode, $this->left, $this->right);
    }

    /** @throws InvalidMix when the clip is not opened */
    public function with(Side $side, ChannelLevel $level): self
    {
        $this->of($side);

        return new self($this->mode, Side::Left === $side ? $level : $this->left, Side::Right === $side ? $level : $this->right);
    }
}
