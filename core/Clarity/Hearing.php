<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Wattage\Core\Timeline\Room;

/**
 * What a room, a loudspeaker or an ear adds and takes away, by third octaves from 160 Hz to 8 kHz. No published spectrum stands behind these: they are common practice and
 * rounded [CP], made so that the order of rooms is right and a difference of a few decibels matters as it does there.
 */
final readonly class Hearing
{
    /**
     * @param float $level dB SPL that the speech as a whole is listened to at
     * @param list<float> $noise spectrum level by band, dB SPL per hertz; none for silence
     * @param list<float> $response dB by band of the loudspeaker; none for a flat one
     * @param list<float> $loss dB by band of hearing; none for healthy ears
     */
    private function __construct(public float $level, public array $noise, public array $response, public array $loss)
    {
    }

    public static function in(Room $room): self
    {
        return match ($room) {
            // As loud as somebody speaks at one metre.
            Room::Quiet => new self(SpeechIndex::NORMAL_TOGETHER, [], [], []),
            // Held at arm's length on a street that is not loud; nothing much below 500 Hz.
            Room::Phone => new self(66.0, [34, 32, 30, 28, 26, 24, 22, 20, 18, 16, 14, 12, 10, 8, 6, 4, 2, 0], [-30, -26, -22, -17, -11, -6, -3, -1, 0, 0, 0, 0, 0, -1, -2, -4, -7, -11], []),
            // An extractor fan and something that sizzles.
            Room::Kitchen => new self(68.0, [35, 34, 33, 32, 31, 30, 29, 28, 26, 25, 24, 23, 22, 21, 20, 19, 18, 16], [], []),
            // At speed: loud below, soft above, and turned up against it.
            Room::Car => new self(74.0, [56, 53, 50, 47, 44, 41, 38, 35, 32, 30, 28, 26, 23, 20, 17, 14, 11, 8], [], []),
            // Sloping, as it comes with age.
            Room::HardOfHearing => new self(65.0, [], [], [15, 15, 15, 16, 17, 18, 19, 20, 21, 22, 24, 26, 29, 33, 37, 40, 43, 45]),
        };
    }
}
