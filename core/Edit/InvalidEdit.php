<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidEdit extends DomainException implements Problem
{
    use NamesField;

    public static function unknownKind(string $kind): self
    {
        return new self(\sprintf('“%s” is not an edit that Wattage knows.', mb_strimwidth($kind, 0, 40, '…')), 'edit');
    }

    public static function beyondSource(string $name, string $field = 'from'): self
    {
        return new self(\sprintf('“%s” has no more sound there. Stay within the source.', $name), $field);
    }

    public static function beyondPicture(string $name): self
    {
        return new self(\sprintf('“%s” has no more picture there. Stay within the recording.', $name), 'from');
    }

    public static function notOverAnyClip(): self
    {
        return new self('The range touches none of the clips. Select a range over a clip.', 'from');
    }

    public static function keyframeOutsideClip(string $name): self
    {
        return new self(\sprintf('That moment lies outside “%s”. Keyframes stand within their clip.', $name), 'at');
    }

    public static function tooMany(string $field, int $limit): self
    {
        return new self(\sprintf('At most %d at once.', $limit), $field);
    }

    public static function tooMuchAtOnce(string $field): self
    {
        return new self('This is more than one edit can do. Do it in several steps, for fewer at a time.', $field);
    }

    public static function tooLongToSteady(int $hours): self
    {
        return new self(\sprintf('At most %d hours are steadied at once. Split the clip, or choose fewer.', $hours), 'clips');
    }

    public static function keyframesCross(): self
    {
        return new self('Keyframes keep their order: a keyframe cannot pass its neighbour. Choose a time between the two next to it.', 'at');
    }

    public static function noNeighbour(bool $previous): self
    {
        return new self(\sprintf('There is no %s keyframe to take the level from.', $previous ? 'previous' : 'next'), 'keyframes');
    }

    public static function clipIsSilent(string $name): self
    {
        return new self(\sprintf('“%s” is silent: its gain is −∞. Set its gain first.', $name), 'level');
    }

    public static function passOfNoLength(string $field): self
    {
        return new self('A pass ends after it begins.', $field);
    }

    public static function noSuchConversion(): self
    {
        return new self('Ducking and the level lane can become clip keyframes, and both of those can become the level lane; nothing else.', 'to');
    }

    public static function clipsOverlap(string $track): self
    {
        return new self(\sprintf('Clips on “%s” cross over, so that their curves cannot be one lane. Take the crossfade out first.', $track), 'track');
    }

    public static function peakOutsideClip(string $name): self
    {
        return new self(\sprintf('That peak is not heard in “%s” any more. List the peaks again.', $name), 'notches');
    }

    public static function noCut(string $first, string $second): self
    {
        return new self(\sprintf('“%s” and “%s” do not meet. Move them together on one track first.', $first, $second), 'clips');
    }

    public static function noSoundForCrossing(string $first, string $second, float $seconds): self
    {
        return new self(\sprintf('“%s” and “%s” have only enough sound beyond the cut to cross over for %.2f s. Choose a shorter length.', $first, $second, max(0.0, $seconds)), 'length');
    }

    public static function channelsAreLinked(string $name): self
    {
        return new self(\sprintf('The channels of “%s” are linked. Unlink them to set each by itself.', $name), 'channel');
    }

    public static function splitAtEdge(string $name): self
    {
        return new self(\sprintf('“%s” cannot be split at its edge. Put the playhead inside the clip.', $name), 'at');
    }

    public static function splitInCrossing(string $name): self
    {
        return new self(\sprintf('“%s” crosses over with another clip there. Split it outside the crossfade.', $name), 'at');
    }

    public static function joinAcrossTracks(): self
    {
        return new self('Only clips on one track can be joined.', 'clips');
    }

    public static function nothingToJoin(): self
    {
        return new self('Joining takes two clips that follow one another. Select both.', 'clips');
    }

    public static function joinOfOtherSource(string $first, string $second): self
    {
        return new self(\sprintf('“%s” and “%s” come from different sources and cannot become one clip.', $first, $second), 'clips');
    }

    public static function joinWithGap(string $first, string $second): self
    {
        return new self(\sprintf('“%s” and “%s” do not follow one another without a gap, on the timeline and in their source.', $first, $second), 'clips');
    }

    public static function nothingSounds(): self
    {
        return new self('Nothing sounds there. Select a range over a clip.', 'from');
    }

    public static function noColour(string $clip): self
    {
        return new self(\sprintf('“%s” is silent, or not measured yet, so there is no colour to go by. Choose another clip.', $clip), 'to');
    }

    public static function joinOfOtherColour(string $first, string $second): self
    {
        return new self(\sprintf('“%s” and “%s” have another colour. Make them alike first.', $first, $second), 'clips');
    }

    public static function joinOfOtherChannels(string $first, string $second): self
    {
        return new self(\sprintf('“%s” and “%s” use their channels differently. Make them alike first.', $first, $second), 'clips');
    }

    public static function joinWithSilence(string $first, string $second): self
    {
        return new self(\sprintf('One of “%s” and “%s” is silent by its gain. Set both gains first.', $first, $second), 'clips');
    }

    public static function loopTooShort(string $name): self
    {
        return new self(\sprintf('“%s” lasts until there already. Choose a later end.', $name), 'until');
    }

    public static function overlapTooLong(string $name, float $seconds): self
    {
        return new self(\sprintf('Turns of “%s” can cross over by at most half its length, %.2f s.', $name, $seconds), 'overlap');
    }

    public static function trackIsLocked(string $name): self
    {
        return new self(\sprintf('“%s” is locked. Unlock the track to change its clips.', $name), 'track');
    }

    public static function coversAnother(string $clip, string $other, string $track): self
    {
        return new self(\sprintf('“%s” would lie wholly within “%s” on %s. Put it on another track, or move it so that one begins and ends later.', $clip, $other, $track), 'at');
    }

    public static function nothingToSet(string $fields): self
    {
        return new self(\sprintf('Nothing is said to be set. Give at least one of: %s.', $fields), 'edit');
    }

    public static function tooQuietToLevel(string $name, float $gain): self
    {
        return new self(\sprintf('“%s” would need %.1f dB more, and a source can get at most %d. Choose a lower target.', $name, $gain, (int) \Wattage\Core\Level\Decibels::MAX_CLIP), 'target');
    }
}
