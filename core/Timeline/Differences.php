<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Timecode;

/** What is otherwise in one state of a mix than in another, in words. */
final readonly class Differences
{
    /** @param list<string> $sentences */
    private function __construct(private Mix $a, private Mix $b, private array $sentences = [])
    {
    }

    /** @return list<string> what changed on the way from $a to $b, a sentence each; none where nothing did */
    public static function between(Mix $a, Mix $b): array
    {
        return (new self($a, $b))->sources()->tracks()->clips()->pictures()->markers()->aim()->sentences;
    }

    private function sources(): self
    {
        $said = [];
        foreach (array_intersect_key($this->b->sources, $this->a->sources) as $id => $source) {
            $old = $this->a->sources[$id];
            $said[] = self::level("Source {$source->name}", $old->gain, $source->gain);
            null === $old->right && null === $source->right || $said[] = self::level("Source {$source->name}, right,", $old->right ?? $old->gain, $source->right ?? $source->gain);
            $said[] = (null === $old->right) === (null === $source->right) ? null : "The channels of source {$source->name} ".(null === $source->right ? 'have one gain again.' : 'have a gain each.');
            $said[] = $old->marks == $source->marks ? null : "What is speech in source {$source->name} was put right by hand.";
        }

        return $this->with($said);
    }

    private function tracks(): self
    {
        $said = [];
        foreach ($this->b->tracks as $id => $track) {
            $old = $this->a->tracks[$id] ?? null;
            if (null === $old) {
                $said[] = "Track {$track->name} is new.";
                continue;
            }
            $said[] = $old->name === $track->name ? null : "Track {$old->name} is called {$track->name}.";
            $said[] = $old->stem === $track->stem ? null : "{$track->name} counts as {$track->stem->value} instead of {$old->stem->value}.";
            $said[] = self::level("The fader of {$track->name}", $old->fader, $track->fader);
            $said[] = $old->pan === $track->pan ? null : \sprintf('%s is panned %s instead of %s.', $track->name, self::pan($track->pan), self::pan($old->pan));
            $said[] = $old->lanes == $track->lanes ? null : "{$track->name} is ridden otherwise.";
            $said[] = $old->ducking == $track->ducking && $old->band == $track->band ? null : "The ducking of {$track->name} is another.";
            $said[] = $old->colour == $track->colour ? null : "The colour of {$track->name} is another.";
            $said[] = $old->locked === $track->locked ? null : "{$track->name} is ".($track->locked ? 'locked.' : 'not locked any more.');
            $said[] = $old->hue === $track->hue ? null : "{$track->name} has another ink.";
            $said[] = $old->muted === $track->muted ? null : ($track->muted ? "{$track->name} is muted." : "{$track->name} is not muted any more.");
        }
        foreach (array_diff_key($this->a->tracks, $this->b->tracks) as $track) {
            $said[] = "Track {$track->name} is gone.";
        }
        $order = static fn (Mix $mix, Mix $other): array => array_keys(array_intersect_key($mix->tracks, $other->tracks));
        $said[] = $order($this->a, $this->b) === $order($this->b, $this->a) ? null : 'The tracks stand in another order.';

        return $this->with($said);
    }

    private function clips(): self
    {
        $before = self::places($this->a);
        $after = self::places($this->b);
        $said = [];
        foreach ($after as $id => [$track, $clip]) {
            array_push($said, ...isset($before[$id]) ? $this->clip($before[$id], [$track, $clip]) : ["{$this->named($this->b, $clip)} on {$track} is new."]);
        }
        foreach (array_diff_key($before, $after) as [$track, $clip]) {
            $said[] = "{$this->named($this->a, $clip)} on {$track} is gone.";
        }

        return $this->with($said);
    }

    /**
     * @param array{string, Clip} $before
     * @param array{string, Clip} $after
     *
     * @return list<?string>
     */
    private function clip(array $before, array $after): array
    {
        [$oldTrack, $old] = $before;
        [$track, $clip] = $after;
        $name = $this->named($this->b, $clip);
        $slipped = $clip->at - $clip->in !== $old->at - $old->in;
        $moved = $clip->at !== $old->at && $clip->in === $old->in;

        return [
            $old->name === $clip->name ? null : "{$old->name} is called {$clip->name}.",
            $oldTrack === $track ? null : "{$name} is on {$track} instead of {$oldTrack}.",
            $moved ? \sprintf('%s starts %s instead of %s.', $name, $this->clock($clip->at), $this->clock($old->at)) : null,
            !$moved && $slipped ? "{$name} plays another part of its source." : null,
            $clip->length === $old->length ? null : \sprintf('%s lasts %.2f s instead of %.2f s.', $name, $clip->length / $this->b->rate, $old->length / $this->a->rate),
            $old->muted === $clip->muted ? null : $name.($clip->muted ? ' is muted.' : ' is heard again.'),
            $old->source === $clip->source ? null : "{$name} plays another recording.",
            self::level($name, $old->gain, $clip->gain),
            $old->colour == $clip->colour ? null : "The colour of {$name} is another.",
            $old->triggers === $clip->triggers ? null : $name.($clip->triggers ? ' ducks other tracks again.' : ' does not duck other tracks any more.'),
            $old->ducked === $clip->ducked ? null : $name.($clip->ducked ? ' gives way again.' : ' does not give way any more.'),
            $old->detached === $clip->detached ? null : $name.($clip->detached ? ' is detached from its picture.' : ' has its picture again.'),
            $this->curve($name, $old, $clip),
            $old->fadeIn == $clip->fadeIn ? null : \sprintf('%s fades in over %.2f s instead of %.2f s.', $name, $clip->fadeIn->length / $this->b->rate, $old->fadeIn->length / $this->a->rate),
            $old->fadeOut == $clip->fadeOut ? null : \sprintf('%s fades out over %.2f s instead of %.2f s.', $name, $clip->fadeOut->length / $this->b->rate, $old->fadeOut->length / $this->a->rate),
            $old->channels->mode === $clip->channels->mode ? null : "{$name} takes {$clip->channels->mode->label()} instead of {$old->channels->mode->label()}.",
            $old->channels->withMode($clip->channels->mode) == $clip->channels ? null : "The channels of {$name} have other levels.",
        ];
    }

    private function curve(string $name, Clip $old, Clip $new): ?string
    {
        if ($old->curve == $new->curve) {
            return null;
        }
        $largest = [0.0, $new->in];
        foreach ([...$old->curve->keyframes, ...$new->curve->keyframes] as $keyframe) {
            $difference = max(-60.0, $new->curve->levelAt($keyframe->position)->db) - max(-60.0, $old->curve->levelAt($keyframe->position)->db);
            $largest = abs($difference) > abs($largest[0]) ? [$difference, $keyframe->position] : $largest;
        }
        $count = \sprintf('%d keyframe%s instead of %d', \count($new->curve->keyframes), 1 === \count($new->curve->keyframes) ? '' : 's', \count($old->curve->keyframes));

        return 0.0 === $largest[0]
            ? "The curve of {$name} has {$count}."
            : \sprintf('The curve of %s differs by up to %s dB, at %s, with %s.', $name, self::signed($largest[0]), $this->clock(max(0, $new->toTimeline($largest[1]))), $count);
    }

    private function pictures(): self
    {
        $name = fn (Mix $mix, Picture $picture): string => 'The picture of '.($mix->sources[$picture->source]->name ?? $picture->source)." at {$this->clock($picture->at)}";
        $said = [];
        foreach ($this->b->pictures as $id => $picture) {
            $old = $this->a->pictures[$id] ?? null;
            $said[] = match (true) {
                null === $old => "{$name($this->b, $picture)} is new.",
                $old == $picture => null,
                $old->at - $old->in === $picture->at - $picture->in => "{$name($this->b, $picture)} begins or ends elsewhere.",
                default => "{$name($this->b, $picture)} lay at {$this->clock($old->at)}.",
            };
        }
        foreach (array_diff_key($this->a->pictures, $this->b->pictures) as $picture) {
            $said[] = "{$name($this->a, $picture)} is gone.";
        }

        return $this->with($said);
    }

    private function markers(): self
    {
        $said = [];
        foreach ($this->b->markers as $id => $marker) {
            $said[] = ($this->a->markers[$id] ?? null) == $marker ? null : (isset($this->a->markers[$id]) ? "Marker {$marker->name} has changed." : "Marker {$marker->name} is new.");
        }
        foreach (array_diff_key($this->a->markers, $this->b->markers) as $marker) {
            $said[] = "Marker {$marker->name} is gone.";
        }

        return $this->with($said);
    }

    private function aim(): self
    {
        [$a, $b] = [$this->a->aim, $this->b->aim];
        $number = static fn (string $what, float $old, float $new, string $unit): ?string => $old === $new ? null : \sprintf('%s is %s %s instead of %s.', $what, str_replace('-', '−', (string) $new), $unit, str_replace('-', '−', (string) $old));
        [$before, $after] = [\count($this->a->captions), \count($this->b->captions)];

        return $this->with([
            $number('The wanted clearance', $a->clearance, $b->clearance, 'LU'),
            $number('The loudness target', $a->loudness, $b->loudness, 'LUFS'),
            $number('The limit for peaks', $a->truePeak, $b->truePeak, 'dBTP'),
            $number('The sensitivity to speech', $a->sensitivity, $b->sensitivity, 'dB'),
            $number('The wanted clarity', $a->clarity, $b->clarity, 'of 100'),
            $a->room === $b->room ? null : "It is to be understood in {$b->room->label()} instead of {$a->room->label()}.",
            ...array_map(fn (Stem $stem): ?string => self::level("Stem {$stem->value}", $this->a->faders->of($stem), $this->b->faders->of($stem)), Stem::cases()),
            self::level('The programme', $this->a->faders->programme, $this->b->faders->programme),
            $this->a->frameRate === $this->b->frameRate ? null : "There are {$this->b->frameRate->value} frames a second instead of {$this->a->frameRate->value}.",
            $a->accepted == $b->accepted ? null : \sprintf('Buried speech that is wanted as it is: %d stretch%s instead of %d.', \count($b->accepted), 1 === \count($b->accepted) ? '' : 'es', \count($a->accepted)),
            $this->a->rules == $this->b->rules ? null : 'The rules of ducking are others.',
            ...array_map(static fn (Stem $stem): ?string => $a->zone($stem) == $b->zone($stem) ? null : "The zone of {$stem->value} is another.", Stem::cases()),
            $this->a->captions == $this->b->captions ? null : \sprintf('Captions: %d instead of %d.', $after, $before),
        ]);
    }

    /** @param list<?string> $said */
    private function with(array $said): self
    {
        return new self($this->a, $this->b, [...$this->sentences, ...array_values(array_filter($said, static fn (?string $s): bool => null !== $s))]);
    }

    /** The name of a clip, with its time where there are several of that name. */
    private function named(Mix $mix, Clip $clip): string
    {
        $same = 0;
        foreach ($mix->tracks as $track) {
            $same += \count(array_filter($track->clips, static fn (Clip $c): bool => $c->name === $clip->name));
        }

        return $same > 1 ? "{$clip->name} at {$this->clock($clip->at)}" : $clip->name;
    }

    private function clock(int $sample): string
    {
        return Timecode::clock($sample, $this->b->rate);
    }

    private static function level(string $what, Decibels $old, Decibels $new): ?string
    {
        if ($old->equals($new)) {
            return null;
        }
        $by = $old->isSilence() || $new->isSilence() ? '' : \sprintf(' (%s dB)', self::signed($new->db - $old->db));

        return "{$what} is at {$new->format()} instead of {$old->format()}{$by}.";
    }

    private static function signed(float $db): string
    {
        return \sprintf('%s%.1f', $db < 0 ? '−' : '+', abs($db));
    }

    private static function pan(float $pan): string
    {
        return abs($pan) < 0.005 ? 'to the centre' : \sprintf('%.0f %% %s', abs($pan) * 100, $pan < 0 ? 'left' : 'right');
    }

    /** @return array<string, array{string, Clip}> name of the track, and the clip */
    private static function places(Mix $mix): array
    {
        $places = [];
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                $places[$clip->id] = [$track->name, $clip];
            }
        }

        return $places;
    }
}
