<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * How much each channel counts. Source: ITU-R BS.1770, Annex 1, table 3: front channels 1, surrounds 1.41; the low-frequency
 * channel does not count. Channels in the order of WAV files.
 */
final class ChannelWeights
{
    public const MOST = 6;
    private const SURROUND = 1.41;

    /**
     * @return list<float>
     *
     * @throws InvalidSound
     */
    public static function of(int $channels): array
    {
        return match ($channels) {
            1 => [1.0],
            2 => [1.0, 1.0],
            3 => [1.0, 1.0, 1.0],
            4 => [1.0, 1.0, self::SURROUND, self::SURROUND],
            5 => [1.0, 1.0, 1.0, self::SURROUND, self::SURROUND],
            6 => [1.0, 1.0, 1.0, 0.0, self::SURROUND, self::SURROUND],
            default => throw InvalidSound::channels($channels),
        };
    }
}
