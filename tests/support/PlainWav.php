<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\Core\Render\PcmSource;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Signal\WavHeader;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** A mix as a WAV file and nothing else: neither measured nor brought to anything. */
final class PlainWav
{
    /**
     * @param array<string, PcmSource> $sources
     * @param resource $stream
     */
    public static function write(Mix $mix, array $sources, SampleFormat $format, mixed $stream): void
    {
        fwrite($stream, WavHeader::delivery($format, $mix->rate, $mix->length()));
        $encoder = new SampleEncoder($format);
        foreach ((new Renderer($mix, $sources))->render(Span::of(0, $mix->length())) as $samples) {
            fwrite($stream, $encoder->encode($samples));
        }
    }
}
