<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Time\Span;

/** What gives way to what, how far, and when. */
final readonly class DuckRule
{
    public const SHALLOWEST = -0.5;
    public const DEEPEST = -60.0;
    public const MAX_RULES = 32;

    public string $id;
    public string $name;

    /**
     * @param list<string> $triggers tracks that are listened to; with $clips, none for all speech
     * @param list<string> $clips clips that are listened to besides
     * @param list<string> $targets tracks that give way
     * @param ?float $depth dB, negative; null for as deep as the clearance needs
     * @param float $clearance LU that speech is to stand above the rest, where there is no fixed depth
     * @param float $deepest dB; no dip for a clearance goes further
     * @param ?float $sensitivity dB above its background from which a sound counts; null for that of the mix
     * @param list<Span> $added timeline samples that count as speech whatever is heard
     * @param list<Span> $dropped timeline samples that do not
     * @param bool $follows whether it runs again by itself after every edit
     * @param ?float $clarity 0 … 100 that speech is to reach, in place of the clearance
     * @param bool $moving whether a dip without fixed depth follows what is needed from moment to moment; else it is as deep as its worst moment needs
     * @param bool $addsUp whether what was lowered by hand counts towards a fixed depth
     * @param bool $breaths whether a hush is over early enough for the breath before a word
     *
     * @throws InvalidMix
     */
    public function __construct(
        string $id,
        string $name,
        public array $triggers,
        public array $clips,
        public array $targets,
        public ?float $depth,
        public float $clearance,
        public float $deepest,
        public ?float $sensitivity,
        public DuckTiming $timing,
        public array $added = [],
        public array $dropped = [],
        public bool $follows = false,
        public DuckKind $kind = DuckKind::Under,
        public DuckPart $part = DuckPart::All,
        public ?float $clarity = null,
        public bool $moving = false,
        public bool $addsUp = false,
        public bool $breaths = true,
    ) {
        $this->id = Name::checkId($id, 'rule');
        $this->name = Name::check($name);
        [] !== $targets || throw InvalidMix::ruleWithoutTarget();
        [] === array_intersect($triggers, $targets) || throw InvalidMix::ruleDucksItself();
        DuckKind::Turns !== $kind || \count(array_unique($targets)) > 1 || throw InvalidMix::turnsOfOne();
        \count($added) + \count($dropped) <= 10_000 || throw InvalidMix::tooMany('stretches', 10_000);
    }

    /** dB that it lowers by, or as far as it may. */
    public function limit(): float
    {
        return $this->depth ?? $this->deepest;
    }

    /** The same wish by a plain dip. */
    public function plain(): self
    {
        return new self($this->id, $this->name, $this->triggers, $this->clips, $this->targets, $this->depth, $this->clearance, $this->deepest, $this->sensitivity, $this->timing, $this->added, $this->dropped, clarity: $this->clarity);
    }

    /** Music and the like under all speech, as a new project begins with. */
    public static function usual(Mix $mix): self
    {
        $targets = array_map(strval(...), array_keys(array_filter($mix->tracks, static fn ($track): bool => Stem::Music === $track->stem)));

        return new self('duck', 'Music under speech', [], [], $targets, -12.0, $mix->aim->clearance, -30.0, null, DuckTiming::usual($mix->rate));
    }

    /**
     * @param list<Span> $added
     * @param list<Span> $dropped
     */
    public function withSpans(array $added, array $dropped): self
    {
        return new self(
            $this->id, $this->name, $this->triggers, $this->clips, $this->targets, $this->depth, $this->clearance, $this->deepest, $this->sensitivity, $this->timing,
            $added, $dropped, $this->follows, $this->kind, $this->part, $this->clarity, $this->moving, $this->addsUp, $this->breaths,
        );
    }

    /** @return list<string> tracks that are listened to: those named that are still there, or all of speech */
    public function tracksHeard(Mix $mix): array
    {
        if (DuckKind::Under !== $this->kind) {
            return $this->targetsIn($mix);
        }
        $heard = [] === $this->triggers && [] === $this->clips
            ? array_keys(array_filter($mix->tracks, fn ($track): bool => Stem::Speech === $track->stem && !\in_array($track->id, $this->targets, true)))
            : array_filter($this->triggers, static fn (string $id): bool => isset($mix->tracks[$id]));

        return array_values(array_map(strval(...), $heard));
    }

    /** @return list<string> tracks that give way and are still there */
    public function targetsIn(Mix $mix): array
    {
        return array_values(array_filter($this->targets, static fn (string $id): bool => isset($mix->tracks[$id])));
    }
}
