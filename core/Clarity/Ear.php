<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Wattage\Core\Bands\ThirdOctaves;

/** Turns powers by band, as they lie in a mix, into levels at somebody's ear, and those into the index. */
final class Ear
{
    private readonly SpeechIndex $index;
    /** @var list<float> what makes a power of a mix one per hertz at the ear, 10^(dB SPL / 10), by band */
    private array $factors = [];
    /** @var list<float> of the room itself, likewise */
    private array $noise = [];

    /** @param float $loudness power of the speech as a whole, over all bands, as it lies in the mix: it is listened to at the level that $hearing says */
    public function __construct(Hearing $hearing, float $loudness)
    {
        $this->index = new SpeechIndex($hearing->loss);
        for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
            $width = ThirdOctaves::edge($band + 1) - ThirdOctaves::edge($band);
            $this->factors[] = 10.0 ** (($hearing->level + ($hearing->response[$band] ?? 0.0)) / 10.0) / ($loudness * $width);
            $this->noise[] = isset($hearing->noise[$band]) ? 10.0 ** ($hearing->noise[$band] / 10.0) : 0.0;
        }
    }

    /**
     * @param array<int, float> $speech power by band
     * @param array<int, float> $rest likewise, of everything else
     */
    public function index(array $speech, array $rest): float
    {
        return array_sum($this->parts($speech, $rest));
    }

    /**
     * @param array<int, float> $speech
     * @param array<int, float> $rest
     *
     * @return list<float> what each band brings to the index
     */
    public function parts(array $speech, array $rest): array
    {
        return $this->index->parts($this->said($speech), $this->disturbing($rest));
    }

    /**
     * What of a sentence does not change while what disturbs it does.
     *
     * @param array<int, float> $speech power by band
     *
     * @return list<float> dB by band, for {@see indexOf()}
     */
    public function said(array $speech): array
    {
        $said = [];
        foreach ($this->factors as $band => $factor) {
            $power = $speech[$band] * $factor;
            $said[] = $power > SpeechIndex::NOTHING ? 10.0 * log10($power) : SpeechIndex::SILENCE;
        }

        return $said;
    }

    /**
     * @param list<float> $said see {@see said()}
     * @param array<int, float> $disturbing see {@see disturbing()}
     */
    public function indexOf(array $said, array $disturbing): float
    {
        return $this->index->of($said, $disturbing);
    }

    /**
     * @param array<int, float> $rest power by band, of everything but the speech
     *
     * @return list<float> power per hertz at the ear, with what is there of itself
     */
    public function disturbing(array $rest): array
    {
        $disturbing = [];
        foreach ($this->factors as $band => $factor) {
            $disturbing[] = $rest[$band] * $factor + $this->noise[$band];
        }

        return $disturbing;
    }

    /**
     * @param array<int, float> $some power by band
     *
     * @return list<float> power per hertz at the ear
     */
    public function reaching(array $some): array
    {
        $reaching = [];
        foreach ($this->factors as $band => $factor) {
            $reaching[] = $some[$band] * $factor;
        }

        return $reaching;
    }
}
