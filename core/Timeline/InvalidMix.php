<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidMix extends DomainException implements Problem
{
    use NamesField;

    public static function badId(string $field): self
    {
        return new self('An id is 1 to 64 letters, digits, “-” or “_”, and not only digits.', $field);
    }

    public static function badName(string $field): self
    {
        return new self(\sprintf('A name needs 1 to %d characters, none of them control characters.', Name::MAX), $field);
    }

    public static function idTaken(string $id, string $field): self
    {
        return new self(\sprintf('The id %s is in use already.', $id), $field);
    }

    public static function clipPastSource(string $clip, string $source): self
    {
        return new self(\sprintf('Clip “%s” would reach past the end of its source “%s”.', $clip, $source), 'length');
    }

    public static function negativeTime(string $field): self
    {
        return new self('A clip cannot start before the timeline or before its source does.', $field);
    }

    public static function emptyClip(): self
    {
        return new self('A clip must be at least one sample long.', 'length');
    }

    public static function panOutOfRange(): self
    {
        return new self('Pan goes from -1 (left) to 1 (right).', 'pan');
    }

    public static function unsupportedChannels(): self
    {
        return new self('A source has one channel or two.', 'channels');
    }

    public static function unsupportedRate(): self
    {
        return new self('The mix rate is 48000 or 96000 samples per second.', 'rate');
    }

    public static function tooLong(string $field): self
    {
        return new self(\sprintf('A mix lasts at most %d hours.', Mix::MAX_HOURS), $field);
    }

    public static function tooMany(string $what, int $limit): self
    {
        return new self(\sprintf('A mix holds at most %d %s.', $limit, $what), $what);
    }

    public static function tooManyPoints(int $limit): self
    {
        return new self(\sprintf('All curves and lanes of a mix have at most %s points together. Thin some of them, or change fewer clips.', number_format($limit)), 'keyframes');
    }

    public static function ruleWithoutTarget(): self
    {
        return new self('A rule needs at least one track that gives way.', 'targets');
    }

    public static function turnsOfOne(): self
    {
        return new self('Taking turns needs at least two tracks.', 'targets');
    }

    public static function ruleDucksItself(): self
    {
        return new self('A track cannot give way to itself. Take it out of the triggers or out of the targets.', 'targets');
    }

    public static function notRising(string $lane): self
    {
        return new self('The points of this lane must follow one another in time.', $lane);
    }

    public static function emptyZone(float $low, float $high): self
    {
        return new self(\sprintf('Nothing lies between %.1f and %.1f dBFS. Put the upper end above the lower one.', $low, $high), 'high');
    }

    public static function oneChannel(string $name): self
    {
        return new self(\sprintf('“%s” has one channel; there is nothing to open or unlink.', $name), 'channels');
    }

    public static function notOpened(): self
    {
        return new self('The channels of this clip are not opened. Open them first.', 'channel');
    }

    public static function noPicture(string $name): self
    {
        return new self(\sprintf('“%s” has no picture.', $name), 'source');
    }
}
