<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;

/** A cut beside the sources of a project: what can be laid, as an edit, and what is missing for the rest. */
final readonly class Laid
{
    /** Seconds that a file may be shorter than its part in the cut: a frame, since others round to frames. */
    private const SHORTER = 0.05;

    /** What the names of tracks say of their sound: [CP]. */
    private const WORDS = [
        'speech' => '/\b(dia|dialog(ue)?|voice|vo|speech|narrat\w*|host|guest|interview|talk)\b/i',
        'music' => '/\b(mus\w*|mx|score|song|theme|bed)\b/i',
        'effects' => '/\b(fx|sfx|effects?|spot|foley|hits?)\b/i',
    ];

    /**
     * @param ?array<string, mixed> $edit JSON of the edit that lays it; null where nothing was found
     * @param int $found clips that it lays
     * @param list<array{media: string, at: int, clips: int, seconds: float}> $missing files that are not among the sources, where each is used first, and how much of it
     * @param list<string> $short sentences about files that end too early
     */
    private function __construct(public ?array $edit, public int $found, public array $missing, public array $short)
    {
    }

    /**
     * @param list<array{string, Source}> $sources with the names of the files that they were
     * @param string $key what the ids of all that is laid begin with
     *
     * @throws InvalidCut
     */
    public static function of(Cut $cut, array $sources, Mix $mix, string $key): self
    {
        $cut->clips() <= Cut::MOST_CLIPS || throw InvalidCut::tooMany('clips', Cut::MOST_CLIPS);
        $byName = self::byName($sources);
        $tracks = $missing = $short = [];
        $found = 0;
        foreach ($cut->tracks as $t => $track) {
            $clips = [];
            $end = 0;
            foreach ($track->clips as $c => $clip) {
                $source = self::match($byName, $clip);
                if (null === $source) {
                    $missing[$clip->media] = ['media' => $clip->media, 'at' => min($clip->at, $missing[$clip->media]['at'] ?? $clip->at), 'clips' => 1 + ($missing[$clip->media]['clips'] ?? 0), 'seconds' => ($missing[$clip->media]['seconds'] ?? 0.0) + $clip->length / $mix->rate];
                    continue;
                }
                $in = self::in($clip, $source);
                $length = min($clip->length, $source->length - $in);
                if ($length < $clip->length - self::SHORTER * $mix->rate) {
                    $short[] = \sprintf('“%s” ends %.1f s before its part in the cut does.', $source->name, ($clip->length - max(0, $length)) / $mix->rate);
                }
                if ($length > 0) {
                    $clips[] = ['clip' => "{$key}-{$t}-{$c}", 'source' => $source->id, 'name' => $clip->name, 'at' => $clip->at, 'in' => $in, 'length' => $length,
                        // An overlap is a crossfade by itself.
                        ...($clip->fadeIn > 0 && $clip->at >= $end ? ['fadeIn' => min($clip->fadeIn, $length)] : []),
                        ...($clip->fadeOut > 0 ? ['fadeOut' => min($clip->fadeOut, $length)] : [])];
                    $end = $clip->at + $length;
                    ++$found;
                }
            }[] === $clips || $tracks[] = ['track' => "{$key}-{$t}", 'name' => $track->name, 'stem' => self::stem($track)->value, 'clips' => $clips];
        }
        $markers = array_map(static fn (array $marker, int $i): array => ['marker' => "{$key}-m{$i}", 'at' => $marker[0], 'name' => $marker[1]], $cut->markers, array_keys($cut->markers));

        return new self([] === $tracks ? null : ['edit' => 'lay-cut', 'cut' => $key, 'name' => '' === $cut->name ? 'from elsewhere' : $cut->name, 'tracks' => $tracks, 'markers' => $markers], $found, array_values($missing), \array_slice($short, 0, 200));
    }

    /** Where the part begins in the file: as it says, or counted from its hour where the file's own time does not begin at zero. */
    private static function in(CutClip $clip, Source $source): int
    {
        return $clip->in + $clip->length > $source->length && $clip->hour > 0 ? $clip->in - $clip->hour : $clip->in;
    }

    /** By the name of the track, or else by those of most of its clips. */
    private static function stem(CutTrack $track): Stem
    {
        $votes = array_count_values(array_map(static fn (CutClip $clip): string => (self::named("{$clip->name} {$clip->media}") ?? Stem::Ambience)->value, $track->clips));
        arsort($votes);

        return self::named($track->name) ?? Stem::from((string) (array_key_first($votes) ?? 'ambience'));
    }

    private static function named(string $name): ?Stem
    {
        foreach (self::WORDS as $stem => $words) {
            if (1 === preg_match($words, (string) preg_replace('/[\W_\d]+/u', ' ', $name))) {
                return Stem::from($stem);
            }
        }

        return null;
    }

    /**
     * @param list<array{string, Source}> $sources
     *
     * @return array<string, list<Source>> by name in small letters, with its ending and without; by what the mix calls it, too
     */
    private static function byName(array $sources): array
    {
        $byName = [];
        foreach ($sources as [$file, $source]) {
            $names = array_map(mb_strtolower(...), [$file, $source->name]);
            foreach (array_unique([...$names, ...array_map(static fn (string $name): string => (string) preg_replace('/\.\w{1,5}$/', '', $name), $names)]) as $one) {
                $byName[$one][] = $source;
            }
        }

        return $byName;
    }

    /**
     * By name, with its ending first; of several the first that is long enough.
     *
     * @param array<string, list<Source>> $byName
     */
    private static function match(array $byName, CutClip $clip): ?Source
    {
        $name = mb_strtolower($clip->media);
        $candidates = $byName[$name] ?? $byName[(string) preg_replace('/\.\w{1,5}$/', '', $name)] ?? [];
        $long = array_values(array_filter($candidates, static fn (Source $source): bool => $source->length >= self::in($clip, $source) + $clip->length));
        // Channels of one file are told apart by what the clip is called.
        $named = array_values(array_filter($long, static fn (Source $source): bool => $source->name === $clip->name));

        return $named[0] ?? $long[0] ?? $candidates[0] ?? null;
    }
}
