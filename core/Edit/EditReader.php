<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\InvalidTime;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\UnknownItem;

/** Makes edits from their JSON form, {"edit": "dip-range", …}; docs/formats.md lists them. */
final readonly class EditReader
{
    private const MAX_AT_ONCE = 10_000;

    /** @param array<string, Source> $sources what may be placed besides the sources of the mix, by id */
    public function __construct(private Mix $mix, private array $sources = [])
    {
    }

    /** @throws Problem naming the field that is wrong */
    public function read(mixed $json): Edit
    {
        $fields = Fields::of($json);

        return match ($kind = $fields->string('edit')) {
            'add-track' => new AddTrack(Name::checkId($fields->string('track'), 'track'), Name::check($fields->string('name')), $this->stem($fields)),
            'remove-track' => new RemoveTrack($fields->string('track')),
            'place-track' => new PlaceTrack($fields->string('track'), $fields->int('place', 0, Mix::MAX_TRACKS)),
            'rename-track' => new RenameTrack($fields->string('track'), Name::check($fields->string('name'))),
            'set-stem' => new SetStem($fields->string('track'), $this->stem($fields)),
            'set-fader' => new SetFader($fields->string('track'), $fields->level('fader', Decibels::MAX_FADER)),
            'set-pan' => new SetPan($fields->string('track'), $fields->float('pan', -1, 1)),
            'set-muted' => new SetMuted($fields->string('track'), $fields->bool('muted')),
            'set-frame-rate' => new SetFrameRate(FrameRate::named($fields->string('frameRate'))),
            'set-source-gain' => new SetSourceGain($this->source($fields), $fields->level('gain')),
            'add-clip' => $this->addClip($fields),
            'remove-clips' => new RemoveClips($this->clips($fields)),
            'move-clip' => new MoveClip($fields->string('clip'), $fields->string('track'), $this->time($fields, 'at')),
            'trim-clip' => new TrimClip($fields->string('clip'), $this->span($fields)),
            'set-clip-gain' => new SetClipGain($this->clips($fields), $fields->level('gain')),
            'change-clip-gain' => new ChangeClipGain($this->clips($fields), Decibels::of($fields->float('by', -144, 144))),
            'add-keyframe' => new AddKeyframe($fields->string('clip'), $this->time($fields, 'at'), $fields->has('level') ? $fields->level('level') : null),
            'set-keyframe' => $this->setKeyframe($fields),
            'move-keyframes' => new MoveKeyframes($fields->string('clip'), $this->keyframes($fields), $fields->int('later', -Mix::MAX_HOURS * 3600 * 96_000), Decibels::of($fields->float('by', -144, 144))),
            'remove-keyframes' => new RemoveKeyframes($fields->string('clip'), $this->keyframes($fields)),
            'dip-range' => new DipRange($this->clips($fields), $this->span($fields), Decibels::of($fields->float('by', -96, 48)), $fields->int('ramp', 0, 60 * 96_000), $fields->bool('inside', false)),
            default => throw InvalidEdit::unknownKind($kind),
        };
    }

    private function addClip(Fields $fields): AddClip
    {
        $source = $this->source($fields);
        $in = $fields->int('in', 0, $source->length - 1, 0);

        return new AddClip(
            $fields->string('track'),
            Name::checkId($fields->string('clip'), 'clip'),
            $source,
            $this->time($fields, 'at'),
            $in,
            $fields->int('length', 1, $source->length - $in, $source->length - $in),
        );
    }

    private function setKeyframe(Fields $fields): SetKeyframe
    {
        return new SetKeyframe(
            $fields->string('clip'),
            $fields->int('keyframe'),
            $fields->has('at') ? $this->time($fields, 'at') : null,
            $fields->has('level') ? $fields->level('level') : null,
            $fields->has('ramp') ? MixDocument::ramp($fields, 'ramp') : null,
        );
    }

    private function stem(Fields $fields): Stem
    {
        return Stem::tryFrom($fields->string('stem')) ?? throw InvalidDocument::wrongType('stem', 'speech, music, ambience or effects');
    }

    private function source(Fields $fields): Source
    {
        $id = $fields->string('source');

        return $this->mix->sources[$id] ?? $this->sources[$id] ?? throw UnknownItem::source($id);
    }

    /** @return non-empty-list<string> */
    private function clips(Fields $fields): array
    {
        $clips = $fields->strings('clips');

        return \count($clips) <= self::MAX_AT_ONCE ? $clips : throw InvalidEdit::tooMany('clips', self::MAX_AT_ONCE);
    }

    /** @return non-empty-list<int> */
    private function keyframes(Fields $fields): array
    {
        $keyframes = $fields->ints('keyframes');

        return \count($keyframes) <= self::MAX_AT_ONCE ? $keyframes : throw InvalidEdit::tooMany('keyframes', self::MAX_AT_ONCE);
    }

    private function span(Fields $fields): Span
    {
        try {
            return Span::of($this->time($fields, 'from'), $this->time($fields, 'to'));
        } catch (InvalidTime $problem) {
            throw '' === $problem->field() ? $problem->about('to') : $problem;
        }
    }

    /** A timeline position: samples, or text as people type it ("0:58.2", "00:00:58:05"). */
    private function time(Fields $fields, string $name): int
    {
        if (!$fields->isText($name)) {
            return $fields->int($name);
        }
        try {
            return Timecode::parse($fields->string($name), $this->mix->rate, $this->mix->frameRate);
        } catch (InvalidTime $problem) {
            throw $problem->about($name);
        }
    }
}
