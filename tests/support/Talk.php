<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Closure;
use Wattage\Core\Ducking\Ducker;
use Wattage\Core\Ducking\Listening;
use Wattage\Core\Ducking\PlainSpectra;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;

/** Speech made by the test, its times known, over a steady bed: a mix with sounds, to duck and to render. */
final class Talk
{
    public const RATE = 48_000;

    private static ?self $only = null;

    /**
     * @param list<array{float, float}> $times seconds of the timeline at which somebody speaks
     * @param array<string, PcmStream> $sounds
     * @param array<string, SourceBlocks> $blocks
     */
    private function __construct(public readonly Mix $mix, public readonly array $times, private readonly array $sounds, private readonly array $blocks)
    {
    }

    public static function open(): self
    {
        return self::$only ??= self::made();
    }

    /** @param array<string, mixed> $rule */
    public static function rule(array $rule = []): DuckRule
    {
        return RuleDocument::read(Fields::of(['id' => 'r', 'name' => 'Under speech', 'targets' => ['music'], ...(isset($rule['clearance']) ? [] : ['depth' => -12]), ...$rule]), self::RATE);
    }

    public function ducker(Mix $mix): Ducker
    {
        return new Ducker($mix, new Listening($this->activity()), fn (Mix $bare): MixFigures => MixFigures::of($bare, $this->tenths()), new PlainSpectra($this->tenths(), static fn (): null => null));
    }

    /** @return Closure(string, float): list<Span> */
    public function activity(): Closure
    {
        return fn (string $id, float $sensitivity): array => Activity::of($this->blocks[$id], self::RATE, $sensitivity);
    }

    /** @return Closure(string): SourceTenths */
    public function tenths(): Closure
    {
        return fn (string $id): SourceTenths => SourceTenths::of($this->blocks[$id]);
    }

    /**
     * The bed alone, as it is rendered.
     *
     * @return list<float> RMS of each 10 ms of the left channel, dBFS
     */
    public function bed(Mix $mix): array
    {
        $alone = Mixes::edited($mix, ['edit' => 'set-muted', 'track' => 'speech', 'muted' => true]);
        $levels = [];
        foreach ((new Renderer($alone, $this->sounds))->render(Span::of(0, $mix->length())) as $samples) {
            foreach (array_chunk($samples, 960) as $part) {
                $sum = 0.0;
                for ($i = 0, $n = \count($part); $i < $n; $i += 2) {
                    $sum += $part[$i] ** 2;
                }
                $levels[] = 10.0 * log10(max(1e-12, 2.0 * $sum / $n));
            }
        }

        return $levels;
    }

    private static function made(): self
    {
        $times = [[2.0, 4.0], [4.5, 6.2], [9.0, 11.5], [15.0, 15.6], [19.0, 22.0]];
        $quiet = [[26.0, 27.5]];
        $random = new Random(4);
        $voice = $bed = [];
        for ($i = 0; $i < 30 * self::RATE; ++$i) {
            $t = $i / self::RATE;
            $gain = 0.0;
            foreach ($times as [$from, $to]) {
                $gain = $t >= $from && $t < $to ? 0.15 : $gain;
            }
            foreach ($quiet as [$from, $to]) {
                $gain = $t >= $from && $t < $to ? 0.0012 : $gain;
            }
            $syllable = 0.35 + 0.65 * abs(sin(2 * \M_PI * 2.1 * $t));
            $voice[] = $gain * $syllable * (sin(2 * \M_PI * 230 * $t) + 0.4 * sin(2 * \M_PI * 1300 * $t)) + 0.00025 * $random->float(-1, 1);
            $bed[] = 0.1 * sin(2 * \M_PI * 500 * $t);
        }
        $sounds = $blocks = [];
        foreach (['src-voice' => $voice, 'src-bed' => $bed] as $id => $samples) {
            $pcm = Sound::pcm16($samples);
            $written = Sound::memory();
            $measurer = new SourceMeasurer(PcmFormat::of(1, 16), self::RATE, $written, Sound::memory());
            $measurer->push($pcm);
            $measurer->finish();
            $sounds[$id] = Sound::stream($pcm, 1, 16);
            $blocks[$id] = SourceBlocks::fromBytes(Sound::contents($written), 1);
        }
        $mix = Mix::empty();
        $sources = array_map(static fn (string $id): \Wattage\Core\Timeline\Source => new \Wattage\Core\Timeline\Source($id, $id, 30 * self::RATE, 1, \Wattage\Core\Level\Decibels::unchanged()), ['src-voice' => 'src-voice', 'src-bed' => 'src-bed']);
        foreach ([
            ['edit' => 'add-track', 'track' => 'speech', 'name' => 'Narrator', 'stem' => 'speech'],
            ['edit' => 'add-track', 'track' => 'music', 'name' => 'Music', 'stem' => 'music'],
            ['edit' => 'add-clip', 'track' => 'speech', 'clip' => 'voice', 'source' => 'src-voice', 'at' => 0],
            ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'bed', 'source' => 'src-bed', 'at' => 0],
        ] as $edit) {
            $mix = Mixes::edited($mix, $edit, $sources);
        }

        return new self($mix, $times, $sounds, $blocks);
    }
}
