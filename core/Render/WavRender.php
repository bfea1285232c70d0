<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Generator;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Signal\Output;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Signal\WavHeader;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** The whole programme as a WAV file. */
final readonly class WavRender
{
    /** What of it passes full scale, once it has been written. */
    public Clipping $clipping;

    /** @param array<string, PcmSource> $sources by source id */
    public function __construct(private Mix $mix, private array $sources, private SampleFormat $format)
    {
        $this->clipping = new Clipping();
    }

    /**
     * @param resource $stream gets the file
     *
     * @return Generator<float> how much is done, 0…1, as it goes
     */
    public function writeTo(mixed $stream): Generator
    {
        $length = $this->mix->length();
        Output::write($stream, WavHeader::delivery($this->format, $this->mix->rate, $length));
        if (0 === $length) {
            return;
        }
        $encoder = new SampleEncoder($this->format);
        foreach ((new Renderer($this->mix, $this->sources))->render(Span::of(0, $length)) as $from => $samples) {
            $this->clipping->look($samples, $from);
            Output::write($stream, $encoder->encode($samples));
            yield min(1.0, ($from + Renderer::PIECE) / $length);
        }
    }
}
