<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Level\InvalidLevel;
use Wattage\Core\Level\LevelText;
use Wattage\Core\Problem;
use Wattage\Core\Time\Duration;
use Wattage\Core\Time\InvalidTime;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Lane;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Side;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\UnknownItem;
use Wattage\Core\Timeline\Wire;

/** The fields that edits have in common: clips, keyframes, times, lengths, as programs and people write them. */
final readonly class EditFields
{
    public const MAX_AT_ONCE = 10_000;

    /** @param array<string, Source> $sources what may be placed besides the sources of the mix, by id */
    public function __construct(public Fields $fields, public Mix $mix, public array $sources)
    {
    }

    public function source(?Fields $of = null): Source
    {
        $id = ($of ?? $this->fields)->string('source');

        return $this->mix->sources[$id] ?? $this->sources[$id] ?? throw UnknownItem::source();
    }

    /** @return non-empty-list<string> */
    public function names(string $field): array
    {
        $names = array_values(array_unique($this->fields->strings($field)));

        return \count($names) <= self::MAX_AT_ONCE ? $names : throw InvalidEdit::tooMany($field, self::MAX_AT_ONCE);
    }

    /** @return non-empty-list<string> */
    public function clips(): array
    {
        return $this->names('clips');
    }

    public function side(?Fields $fields = null): ?Side
    {
        $fields ??= $this->fields;

        return $fields->has('channel') ? $fields->choice('channel', Side::class) : null;
    }

    public function wire(?Fields $fields = null): Wire
    {
        $fields ??= $this->fields;

        return $fields->has('track')
            ? Wire::ofTrack($fields->string('track'), $fields->choice('lane', Lane::class))
            : Wire::ofClip($fields->string('clip'), $this->side($fields));
    }

    /** @return non-empty-list<Wire> of the clips named, all of them or their channels; or the lane of a track */
    public function wires(): array
    {
        if ($this->fields->has('track')) {
            return [$this->wire()];
        }
        $side = $this->side();

        return array_map(static fn (string $clip): Wire => Wire::ofClip($clip, $side), $this->clips());
    }

    /**
     * Keyframes of one clip, {"clip", "keyframes"}, or of several, {"chosen": [{"clip", "keyframes"}, …]}.
     *
     * @return non-empty-list<Chosen>
     */
    public function chosen(): array
    {
        if (!$this->fields->has('chosen')) {
            return [$this->oneChosen($this->fields)];
        }
        $chosen = array_map($this->oneChosen(...), $this->fields->objects('chosen', self::MAX_AT_ONCE));
        $count = array_sum(array_map(static fn (Chosen $c): int => \count($c->keyframes), $chosen));
        $count <= self::MAX_AT_ONCE || throw InvalidEdit::tooMany('chosen', self::MAX_AT_ONCE);

        return [] === $chosen ? throw InvalidDocument::wrongType('chosen', 'a list with at least one entry') : $chosen;
    }

    public function span(): Span
    {
        try {
            return Span::of($this->time('from'), $this->time('to'));
        } catch (InvalidTime $problem) {
            throw '' === $problem->field() ? $problem->about('to') : $problem;
        }
    }

    /** A timeline position: samples, or text as people type it ("0:58.2", "00:00:58:05"). */
    public function time(string $name): int
    {
        if (!$this->fields->isText($name)) {
            return $this->fields->int($name);
        }
        try {
            return Timecode::parse($this->fields->string($name), $this->mix->rate, $this->mix->frameRate);
        } catch (InvalidTime $problem) {
            throw $problem->about($name);
        }
    }

    /** A length: samples, or text ("0.5 s", "12 f"). */
    public function length(string $name, int $min = 0, int $max = Mix::MAX_HOURS * 3600 * 96_000, ?int $default = null): int
    {
        if (!$this->fields->isText($name)) {
            return $this->fields->int($name, $min, $max, $default);
        }
        try {
            $length = Duration::parse($this->fields->string($name), $this->mix->rate, $this->mix->frameRate);
        } catch (InvalidTime $problem) {
            throw $problem->about($name);
        }

        return $length >= $min && $length <= $max ? $length : throw InvalidDocument::wrongType($this->fields->path($name), \sprintf('between %.3f and %.0f s', $min / $this->mix->rate, $max / $this->mix->rate));
    }

    /** A way in time, later or earlier, in samples. */
    public function later(string $name = 'later'): int
    {
        return $this->fields->int($name, -Mix::MAX_HOURS * 3600 * 96_000);
    }

    /** A difference: a number of dB, or text: "-3 dB", or "80%" to multiply the gain. */
    public function difference(string $name, float $min = -144.0, float $max = 144.0): Decibels
    {
        if (!$this->fields->isText($name)) {
            return Decibels::of($this->fields->float($name, $min, $max));
        }
        try {
            $by = LevelText::parse($this->fields->string($name));
        } catch (InvalidLevel $problem) {
            throw $problem->about($name);
        }

        return $by->db >= $min && $by->db <= $max ? $by : throw InvalidDocument::wrongType($this->fields->path($name), \sprintf('a difference from %s to %s dB', $min, $max));
    }

    public function tracks(): OnTracks
    {
        return new OnTracks($this->fields->has('tracks') ? $this->names('tracks') : []);
    }

    /** @throws Problem */
    private function oneChosen(Fields $fields): Chosen
    {
        $keyframes = array_values(array_unique($fields->ints('keyframes')));

        return \count($keyframes) <= self::MAX_AT_ONCE ? new Chosen($this->wire($fields), $keyframes) : throw InvalidEdit::tooMany('keyframes', self::MAX_AT_ONCE);
    }
}
