<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** The demo project, with its sounds decoded and measured once for all tests. */
final class Demo
{
    private static ?self $only = null;

    /**
     * @param array<string, PcmStream> $sounds by source id
     * @param array<string, SourceBlocks> $blocks
     */
    private function __construct(public readonly Mix $mix, public readonly array $sounds, public readonly array $blocks)
    {
    }

    public static function open(): self
    {
        return self::$only ??= self::read();
    }

    /** @return callable(string): SourceTenths */
    public function tenths(): callable
    {
        $tenths = array_map(SourceTenths::of(...), $this->blocks);

        return static fn (string $id): SourceTenths => $tenths[$id];
    }

    /**
     * The loudness of a render, every 100 ms.
     *
     * @return array{list<float>, string} weighted mean square of each 100 ms over both channels, and the sound as float32
     */
    public function rendered(Mix $mix): array
    {
        $meter = new \Wattage\Core\Loudness\PlainScan(\Wattage\Core\Signal\SampleLayout::float32(2), $mix->rate);
        $powers = [];
        $sound = '';
        foreach ((new Renderer($mix, $this->sounds))->render(Span::of(0, $mix->length())) as $samples) {
            $bytes = pack('g*', ...$samples);
            $powers[] = $meter->measure($bytes)[0] / Renderer::PIECE;
            $sound .= $bytes;
        }

        return [$powers, $sound];
    }

    private static function read(): self
    {
        $root = \dirname(__DIR__, 2).'/demo';
        $json = (string) file_get_contents("{$root}/salt-ferry.json");
        $mix = MixDocument::decode($json);
        $sounds = $blocks = [];
        /** @var array{sources: list<array{id: string, file: string}>} $document */
        $document = json_decode($json, true);
        foreach ($document['sources'] as ['id' => $id, 'file' => $file]) {
            $format = PcmFormat::of($mix->source($id)->channels, 16);
            $pcm = Sound::run(['ffmpeg', '-v', 'error', '-i', "{$root}/media/{$file}", '-map', '0:a:0', '-ar', '48000', '-ac', (string) $format->channels, '-f', 's16le', '-']);
            $pcm = substr(str_pad($pcm, $mix->source($id)->length * $format->bytesPerFrame(), "\0"), 0, $mix->source($id)->length * $format->bytesPerFrame());
            $written = Sound::memory();
            $measurer = new SourceMeasurer($format, $mix->rate, $written, Sound::memory());
            $measurer->push($pcm);
            $measurer->finish();
            $sounds[$id] = Sound::stream($pcm, $format->channels, 16);
            $blocks[$id] = SourceBlocks::fromBytes(Sound::contents($written), $format->channels);
        }

        return new self($mix, $sounds, $blocks);
    }
}
