<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\Core\Clarity\Clarity;
use Wattage\Core\Clarity\TrackBands;
use Wattage\Core\Ducking\Ducker;
use Wattage\Core\Ducking\Listening;
use Wattage\Core\Ducking\PlainSpectra;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Room;
use Wattage\Core\Timeline\Source;

/** A mix of sounds made by the test, one to a track, measured as they are taken in; when somebody speaks in them is known. */
final class Scene
{
    public readonly Mix $mix;
    /** @var array<string, string> 16 bits, by track */
    private array $pcm;
    /** @var array<string, Heard> */
    private array $heard;
    /** @var array<string, list<Span>> */
    private array $spoken;

    /**
     * @param array<string, array<int, float>> $sounds mono, by track
     * @param array<string, list<array{float, float}>> $times seconds at which somebody speaks, of each track of speech
     */
    public function __construct(array $sounds, array $times)
    {
        $this->pcm = array_map(Sound::pcm16(...), $sounds);
        $this->heard = array_map(Heard::in(...), $sounds);
        $this->spoken = array_map(static fn (array $some): array => array_map(self::span(...), $some), $times);
        $mix = Mix::empty();
        $sources = [];
        foreach ($sounds as $id => $sound) {
            $sources[$id] = new Source($id, $id, \count($sound), 1, Decibels::unchanged());
        }
        foreach (array_keys($sounds) as $id) {
            $mix = Mixes::edited($mix, ['edit' => 'add-track', 'track' => $id, 'name' => $id, 'stem' => isset($times[$id]) ? 'speech' : 'music'], $sources);
            $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => $id, 'clip' => "c-{$id}", 'source' => $id, 'at' => 0], $sources);
        }
        $this->mix = $mix;
    }

    /** @param array{float, float} $time seconds */
    public static function span(array $time): Span
    {
        return Span::of((int) ($time[0] * Heard::RATE), (int) ($time[1] * Heard::RATE));
    }

    public function ducker(Mix $mix): Ducker
    {
        return new Ducker($mix, new Listening(fn (string $id): array => $this->spoken[$id] ?? []), $this->figures(...), new PlainSpectra($this->tenths(...), fn (string $id) => $this->heard[$id]->bands));
    }

    /** @param array<string, mixed> $rule */
    public function ducked(array $rule, ?Mix $mix = null): Mix
    {
        $read = RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'Rule', ...$rule]), Heard::RATE);

        return $this->ducker(($mix ?? $this->mix)->withRule($read))->applied();
    }

    public function figures(Mix $mix): MixFigures
    {
        return MixFigures::of($mix, $this->tenths(...));
    }

    public function tenths(string $id): SourceTenths
    {
        return $this->heard[$id]->tenths->withBands(fn () => $this->heard[$id]->bands);
    }

    /** @return array<string, string> */
    public function bands(Mix $mix): array
    {
        $figures = $this->figures($mix);
        $bands = [];
        foreach ($mix->tracks as $id => $track) {
            $bands[(string) $id] = TrackBands::of($mix, $track, $figures->tracks()[$id]->powers, $this->tenths(...), fn (string $source) => $this->heard[$source]->bands);
        }

        return $bands;
    }

    public function clarity(Mix $mix, float $wanted = 75.0): Clarity
    {
        return Clarity::of($mix, $this->bands($mix), $this->speech($mix), $wanted, Room::Quiet);
    }

    /** @return list<Span> */
    public function speech(Mix $mix): array
    {
        return SpeechTimes::of($mix, fn (string $id): array => $this->spoken[$id] ?? []);
    }

    /**
     * Some tracks alone, as they are rendered.
     *
     * @return list<float> the left side
     */
    public function rendered(Mix $mix, string ...$tracks): array
    {
        foreach (array_keys($mix->tracks) as $id) {
            \in_array((string) $id, $tracks, true) || $mix = Mixes::edited($mix, ['edit' => 'set-muted', 'track' => (string) $id, 'muted' => true]);
        }
        $left = [];
        foreach ((new Renderer($mix, array_map(static fn (string $pcm) => Sound::stream($pcm, 1, 16), $this->pcm)))->render(Span::of(0, $mix->length())) as $samples) {
            for ($i = 0, $n = \count($samples); $i < $n; $i += 2) {
                $left[] = $samples[$i];
            }
        }

        return $left;
    }
}
