<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Time\Rearrangement;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\CutPart;
use Wattage\Core\Timeline\FreshIds;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Rearranging;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Core\Timeline\UnknownItem;

/**
 * A new version of a cut in place of the one that was laid, with the balance kept. Clips are known again by source and part; an edge that the cut did
 * not move stays where it was trimmed to here, one that it moved goes where the cut has it. What was taken out of a clip here stays out, what was
 * moved here stays moved, on the track on which it is. Lanes go with the clips of their track; captions, ducking, markers, and clips that were placed
 * here, with the programme: where speech went, if two disagree.
 */
final class ChangedCut
{
    /** @var list<LaidPart> */
    private array $laid = [];

    /** @var list<CutPart> */
    private array $new = [];

    /** @var list<Clip> of the new cut, at the same places */
    private array $clips = [];

    /** @var list<string> ids of their tracks */
    private array $trackOf = [];

    /** @var array<string, list<Clip>> what stands on a track from now on, by its id */
    private array $onTrack = [];

    /** @var array<string, list<array{Span, ?int}>> what of a track was kept, and by how much it moves */
    private array $moves = [];

    /** @var array<string, string> id of the track of the mix that most of a track of the new cut stood on, by its id */
    private array $cameFrom = [];

    /** @var array<string, true> ids of the clips that are what was laid */
    private array $ofCut = [];

    /** @var array<string, true> */
    private array $usedIds = [];

    /** @var list<array{name: string, at: int}> */
    private array $added = [];

    /** @var list<array{name: string, at: int}> at: where it is in the new cut */
    private array $changed = [];
    private FreshIds $fresh;

    /**
     * @param array<string, Track> $tracks the new cut, by id
     */
    private function __construct(private readonly Mix $before, private readonly array $tracks, private readonly ?string $instead)
    {
        $this->fresh = new FreshIds($before);
    }

    /**
     * @param list<Track> $tracks the new cut, its clips with their parts in it
     * @param array<string, Source> $sources that it uses, by id
     * @param list<Marker> $markers of the new cut, in place of those that came with the earlier one
     * @param ?string $instead id of the cut that was laid; null for what stands on tracks of the same names, wherever it came from
     *
     * @throws UnknownItem when there is nothing of it
     */
    public static function lay(array $tracks, array $sources, array $markers, ?string $instead, Mix $before): Relaid
    {
        foreach (array_diff_key($sources, $before->sources) as $source) {
            $before = $before->withSource($source);
        }
        $change = new self($before, array_column($tracks, null, 'id'), $instead);
        $change->find();
        $matched = CutMatching::of($change->new, array_map(static fn (LaidPart $laid): CutPart => $laid->part, $change->laid));
        $partners = $change->partners($matched);
        foreach ($change->new as $n => $part) {
            isset($matched[$n]) ? $change->keep($n, $matched[$n], $partners) : $change->add($n, $partners[$change->trackOf[$n]]);
        }
        $gone = [];
        foreach (array_diff_key($change->laid, array_fill_keys(array_merge(...array_values($matched)), true)) as $laid) {
            $gone[] = ['name' => $laid->pieces()[0][1]->name, 'at' => $laid->pieces()[0][1]->at];
        }
        usort($gone, static fn (array $a, array $b): int => $a['at'] <=> $b['at']);

        return new Relaid($change->mix($markers), \count($matched), $change->added, $gone, $change->changed);
    }

    /** What there is of the earlier cut, and the parts of the new one. */
    private function find(): void
    {
        $laid = [];
        $named = array_fill_keys(array_map(static fn (Track $track): string => mb_strtolower($track->name), $this->tracks), true);
        foreach ($this->before->tracks as $track) {
            foreach ($track->clips as $clip) {
                $known = null === $this->instead ? isset($named[mb_strtolower($track->name)]) : $clip->cutPart?->cut === $this->instead;
                if ($known) {
                    $part = null === $this->instead || null === $clip->cutPart ? CutPart::ofClip('here', $track->name, $clip) : $clip->cutPart;
                    $key = "{$track->id} {$part->track} {$part->source} {$part->at} {$part->in} {$part->length}";
                    ($laid[$key] ??= new LaidPart($part))->add($track->id, $clip);
                    $this->ofCut[$clip->id] = true;
                }
            }
        }
        $this->laid = [] === $laid ? throw UnknownItem::cut() : array_values($laid);
        foreach ($this->tracks as $track) {
            foreach ($track->inOrder() as $clip) {
                $this->new[] = $clip->cutPart ?? CutPart::ofClip('here', $track->name, $clip);
                $this->clips[] = $clip;
                $this->trackOf[] = $track->id;
            }
        }
    }

    /**
     * The track of the mix that each track of the new cut goes on with: the one that holds most of it, or one of its name.
     *
     * @param array<int, non-empty-list<int>> $matched
     *
     * @return array<string, string> id of a track of the mix, or of the cut where it begins a new one, by that of the cut
     */
    private function partners(array $matched): array
    {
        $weights = [];
        foreach ($matched as $n => $places) {
            foreach ($places as $b) {
                foreach ($this->laid[$b]->pieces() as [$track, $piece]) {
                    $weights["{$this->trackOf[$n]}\n{$track}"] = ($weights["{$this->trackOf[$n]}\n{$track}"] ?? 0) + $piece->length;
                }
            }
        }
        arsort($weights);
        $partners = [];
        foreach (array_keys($weights) as $pair) {
            [$new, $old] = explode("\n", $pair);
            isset($partners[$new]) || \in_array($old, $partners, true) || $partners[$new] = $old;
            $this->cameFrom[$new] ??= $old;
        }
        foreach ($this->tracks as $id => $track) {
            $named = array_filter($this->before->tracks, static fn (Track $t): bool => mb_strtolower($t->name) === mb_strtolower($track->name) && !\in_array($t->id, $partners, true));
            $partners[$id] ??= (string) (array_key_first($named) ?? $id);
        }

        return $partners;
    }

    /**
     * A clip that was there: in as many pieces as it has been cut into here.
     *
     * @param non-empty-list<int> $places of what was laid, in the order of the source
     * @param array<string, string> $partners
     */
    private function keep(int $n, array $places, array $partners): void
    {
        $new = $this->clips[$n];
        $part = $this->new[$n];
        $made = [];
        foreach ($places as $i => $b) {
            $from = 0 === $i ? $part->in : max($part->in, $this->laid[$b]->part->in);
            $to = isset($places[$i + 1]) ? min($part->out(), $this->laid[$places[$i + 1]]->part->in) : $part->out();
            $to > $from && array_push($made, ...$this->pieces($new, $part, $this->laid[$b], $from, $to, $partners[$this->trackOf[$n]]));
        }
        if ([] === $made) {
            // All of it that there was had been taken out here: what it had been like is kept.
            [$track, $like] = $this->laid[$places[0]]->pieces()[0];
            $made = [[$track, $this->called($new->withCutPart($part)->withGain($like->gain)->withCurve($like->curve), $new->id)]];
        }
        foreach ($made as $i => [$track, $clip]) {
            $in = 0 === $i && 0 === $clip->fadeIn->length && $new->fadeIn->length > 0 ? $new->fadeIn : $clip->fadeIn;
            $out = $i === \count($made) - 1 && 0 === $clip->fadeOut->length && $new->fadeOut->length > 0 ? $new->fadeOut : $clip->fadeOut;
            $this->onTrack[$track][] = $in === $clip->fadeIn && $out === $clip->fadeOut ? $clip : $clip->withFades($in, $out);
        }
        $first = $this->laid[$places[0]]->part;
        if (\count($places) > 1 || $first->in !== $part->in || $first->length !== $part->length) {
            $this->changed[] = ['name' => $new->name, 'at' => $part->at];
        }
    }

    /**
     * @param int $from sample of the source from which this part of the new cut is what was laid
     * @param int $to where it ends
     * @param string $partner id of the track that the new cut has it on
     *
     * @return list<array{string, Clip}> by track
     */
    private function pieces(Clip $new, CutPart $part, LaidPart $laid, int $from, int $to, string $partner): array
    {
        $was = $laid->part;
        $length = $this->before->source($new->source)->length;
        $made = [];
        $all = $laid->pieces();
        foreach ($all as $i => [$track, $piece]) {
            $in = self::begins($piece, 0 === $i, $from, $was->in);
            $out = self::ends($piece, \count($all) - 1 === $i, $to, $was->out());
            $moved = $piece->at - $piece->in - $was->at + $was->in;
            $by = $part->at - $part->in + $moved;
            $in = max($in, -$by, 0);
            $out = min($out, $piece->source === $new->source ? $length : $this->before->source($piece->source)->length);
            if ($out <= $in) {
                continue;
            }
            $stays = $part->track === $was->track ? $track : $partner;
            $this->moved($track, $piece, $in, $out, $by);
            $made[] = [$stays, $this->called($piece->movedTo($piece->in)->trimmedTo(Span::of($in, $out))->movedTo($in + $by)->withCutPart($part), $new->id)];
        }

        return $made;
    }

    /**
     * An edge that the cut did not move stays where it is here, one that it moved goes there; what was cut here within stays.
     *
     * @param int $from sample of the source where the cut has it begin
     * @param int $was where it had it begin before
     */
    private static function begins(Clip $piece, bool $first, int $from, int $was): int
    {
        return match (true) {
            $first && $from === $was => $piece->in,
            $first && $from < $was => $from,
            default => max($piece->in, $from),
        };
    }

    private static function ends(Clip $piece, bool $last, int $to, int $was): int
    {
        $end = $piece->in + $piece->length;

        return match (true) {
            $last && $to === $was => $end,
            $last && $to > $was => $to,
            default => min($end, $to),
        };
    }

    /** Keeps in mind what of a track goes where. */
    private function moved(string $track, Clip $piece, int $in, int $out, int $by): void
    {
        $old = $piece->span()->within(Span::of($in + $piece->at - $piece->in, $out + $piece->at - $piece->in));
        null === $old || $this->moves[$track][] = [$old, $by - $piece->at + $piece->in];
    }

    private function called(Clip $clip, string $else): Clip
    {
        $id = isset($this->usedIds[$clip->id]) ? (isset($this->usedIds[$else]) || $this->before->hasClip($else) ? $this->fresh->after($clip->id) : $else) : $clip->id;
        $this->usedIds[$id] = true;

        return $id === $clip->id ? $clip : $clip->called($id);
    }

    private function add(int $n, string $track): void
    {
        $clip = $this->called($this->clips[$n]->withCutPart($this->new[$n]), $this->clips[$n]->id);
        $this->added[] = ['name' => $clip->name, 'at' => $clip->at];
        $this->onTrack[$track][] = $clip;
    }

    /** @param list<Marker> $markers */
    private function mix(array $markers): Mix
    {
        $programme = Rearrangement::of($this->programmeMoves());
        $mix = $this->before;
        foreach ($this->before->tracks as $track) {
            $mix = $mix->withTrack($this->changedTrack($track, $programme));
        }
        foreach (array_diff_key($this->onTrack, $mix->tracks) as $id => $clips) {
            $mix = $mix->withTrack($this->newTrack($this->tracks[$id], $mix)->withClip(...$clips));
        }
        $mix = $this->uncovered($mix);
        $own = null === $this->instead ? $mix->markers : array_filter($mix->markers, fn (Marker $marker): bool => !str_starts_with($marker->id, "{$this->instead}-m"));
        $mix = (new Rearranging($programme))->programme($mix->withMarkers($own));

        return [] === $markers ? $mix : $mix->withMarkers([...$mix->markers, ...array_column($markers, null, 'id')]);
    }

    /** What would lie wholly under another, as it did not before, goes on a track beside it, with the same settings. */
    private function uncovered(Mix $mix): Mix
    {
        foreach ($mix->tracks as $track) {
            $covered = array_intersect_key($track->clips, array_diff_key($track->covered(), ($this->before->tracks[$track->id] ?? null)?->covered() ?? []));
            if ([] !== $covered) {
                $id = substr($track->id, 0, 50).'-beside';
                $beside = $mix->tracks[$id] ?? new Track($id, mb_substr($track->name, 0, 100).', beside', $track->stem, $track->fader, $track->pan, $track->muted, [], false, $track->hue, $track->lanes, $track->ducking, $track->band, $track->colour);
                $mix = $mix->withTrack($track->withoutClip(...array_map(strval(...), array_keys($covered))))->withTrack($beside->withClip(...array_values($covered)));
            }
        }

        return $mix;
    }

    /** A track that was not there: as the one that its clips stood on, if they did. */
    private function newTrack(Track $new, Mix $mix): Track
    {
        $like = $mix->tracks[$this->cameFrom[$new->id] ?? ''] ?? $new;

        return new Track($new->id, $new->name, $like->stem, $like->fader, $like->pan, $like->muted, [], false, null, $like->lanes, $like->ducking, $like->band, $like->colour);
    }

    private function changedTrack(Track $track, Rearrangement $programme): Track
    {
        $own = isset($this->moves[$track->id]) ? Rearrangement::of($this->moves[$track->id]) : $programme;
        $clips = $this->onTrack[$track->id] ?? [];
        foreach ($track->clips as $clip) {
            if (!isset($this->ofCut[$clip->id])) {
                $at = $programme->moment($clip->at) ?? $own->moment($clip->at);
                $clips[] = null === $at || $at === $clip->at ? $clip : $clip->movedTo($at);
            }
        }
        usort($clips, static fn (Clip $a, Clip $b): int => $a->at <=> $b->at);

        return new Track(
            $track->id, $track->name, $track->stem, $track->fader, $track->pan, $track->muted, array_column($clips, null, 'id'), $track->locked, $track->hue,
            (new Rearranging($own))->lanes($track->lanes), (new Rearranging($programme))->ducking($track->ducking), (new Rearranging($programme))->ducking($track->band), $track->colour,
        );
    }

    /** @return list<array{Span, ?int}> of all tracks, speech first, with what of it is gone, and the longest first */
    private function programmeMoves(): array
    {
        $moves = [];
        foreach ($this->moves as $track => $of) {
            foreach ($of as [$span, $by]) {
                $moves[] = [Stem::Speech === $this->before->tracks[$track]->stem ? 0 : 2, -$span->length(), $span, $by];
            }
        }
        foreach ($this->laid as $laid) {
            foreach ($laid->pieces() as [$track, $piece]) {
                Stem::Speech === $this->before->tracks[$track]->stem && $moves[] = [1, 0, $piece->span(), null];
            }
        }
        usort($moves, static fn (array $a, array $b): int => [$a[0], $a[1]] <=> [$b[0], $b[1]]);

        return array_map(static fn (array $move): array => [$move[2], $move[3]], $moves);
    }
}
