<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

/** One event of an edit decision list, with what the lines after it say of it. */
final class EdlEvent
{
    public bool $otherSpeed = false;
    private ?string $from = null;
    private ?string $to = null;
    private ?string $file = null;

    /**
     * @param string $transition C for a cut, D for a dissolve, W for a wipe, K for a key
     * @param int $frames of the transition
     * @param int $sourceIn samples, as all times
     */
    public function __construct(
        private readonly string $number,
        private readonly string $reel,
        public string $channels,
        public readonly string $transition,
        public readonly int $frames,
        public readonly int $sourceIn,
        public readonly int $sourceOut,
        public readonly int $recordIn,
        public readonly int $recordOut,
    ) {
    }

    public function named(string $what, string $name): void
    {
        match ($what) {
            'TO CLIP NAME' => $this->to = $name,
            'SOURCE FILE' => $this->file = basename(str_replace('\\', '/', $name)),
            default => $this->from = $name,
        };
    }

    public function isBlack(): bool
    {
        return \in_array(strtoupper($this->reel), ['BL', 'BLACK'], true);
    }

    /** A transition has two lines of one number, and the names of both behind the second. */
    public function name(?self $before): string
    {
        $named = 'C' === $this->transition ? $this->from : $this->to ?? ($before?->number === $this->number ? null : $this->from);

        return ($named ?? $this->file ?? $this->reel) ?: 'a clip';
    }

    public function file(?self $before): string
    {
        return $this->file ?? basename(str_replace('\\', '/', $this->name($before)));
    }

    /** @return list<string> names of the tracks of sound that it is on; a pair is one */
    public function tracks(): array
    {
        $tracks = [];
        foreach (preg_split('#[\s/]+#', $this->channels) ?: [] as $channel) {
            $tracks = match (true) {
                'B' === $channel || 'A' === $channel => [...$tracks, 'A1'],
                'AA' === $channel => [...$tracks, 'A1 and A2'],
                1 === preg_match('/^A\d{1,2}$/', $channel) => [...$tracks, $channel],
                default => $tracks,
            };
        }

        return array_values(array_unique($tracks));
    }
}
