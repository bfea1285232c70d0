<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Closure;
use Wattage\App\Media\Coder;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Captions\CaptionWriter;
use Wattage\Core\Handover\Chapter;
use Wattage\Core\Handover\ExcerptKind;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\GuardActs;
use Wattage\Core\Handover\MetadataText;
use Wattage\Core\Handover\Target;
use Wattage\Core\Handover\ToTarget;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Core\Problem;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Signal\SampleLayout;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/**
 * Makes a file that is handed over. The mix is rendered once, to floats; these are brought to the target, as often as it takes, and
 * written. What a coder made is decoded again: coders pass the ceiling by a little, and change the loudness by a little, and so they get
 * something else to code.
 */
final readonly class FileMaker
{
    public const DISK = 'work disk of this server';

    /** dB over the ceiling, or LU beside the loudness, that are let pass; and how much further below the ceiling a coder is then kept. */
    private const ALLOWED = 0.05;
    private const CODINGS = 4;

    public function __construct(private Coder $coder, private Ffmpeg $ffmpeg, private FilmPicture $pictures)
    {
    }

    /** Bytes of the work files, about. */
    public static function needs(FileOrder $order, Span $span): int
    {
        $frames = (int) ($span->length() / Mix::DEFAULT_RATE * $order->rate);

        $work = self::isOneWay($order, Mix::DEFAULT_RATE) ? 0 : 8 * $span->length() * (self::isPart($order) ? 2 : 1) + 16 * $frames;

        return $work + $order->bytesFor($frames);
    }

    /**
     * @param array<string, PcmSource> $sounds by source id
     * @param Closure(string): string $original path of the file of a source as it was sent, by its id; for a film
     * @param string $work a directory for it alone
     * @param Closure(float): mixed $report told how much is done, 0…1, again and again
     *
     * @throws Problem|NoRoom
     */
    public function make(FileOrder $order, Mix $mix, array $sounds, Closure $original, string $work, About $about, Closure $report): Made
    {
        $span = $order->excerpt->span($mix);
        $target = $order->target($mix->aim);
        $film = $order->format->hasPicture() ? $this->film($order->format, $mix, $span, $work, $original, static fn (): mixed => $report(0.0)) : [null, null];
        if (self::isOneWay($order, $mix->rate)) {
            return $this->asRendered($order, $mix, $sounds, $span, $work, $about, $film, $report);
        }
        $share = self::isPart($order) ? 0.25 : 0.5;
        $excerpt = $this->rendered($order->excerpt->of($mix), $sounds, $span, "{$work}/part", static fn (float $done): mixed => $report($share * $done));
        $part = $this->converted("{$work}/part", $mix->rate, $order, $report);
        $programme = self::isPart($order) ? $this->rendered($mix, $sounds, $span, "{$work}/whole", static fn (float $done): mixed => $report($share + $share * $done)) : $excerpt;
        $whole = self::isPart($order) ? $this->converted("{$work}/whole", $mix->rate, $order, $report) : $part;
        // What is written as it was rendered was measured on the way.
        $measured = $mix->rate === $order->rate && 2 === $order->channels ? $programme->measured() : $whole->measured(static fn (): mixed => $report(0.5));
        $louder = $lower = 0.0;
        for ($coding = 1;; ++$coding) {
            $to = new ToTarget($target->corrected($louder, $lower), $measured, $order->channels, $order->rate);
            $made = $this->once($to, $whole, $part, $order, $mix, $span, $work, $about, $film, $report);
            $off = null === $target->loudness || self::isPart($order) ? 0.0 : $target->loudness - ($made->measured->integrated ?? $target->loudness);
            $over = null === $target->truePeak ? 0.0 : ($made->measured->truePeak ?? -\INF) - $target->truePeak;
            if ($order->format->isLossless() || $coding >= self::CODINGS || ($over <= self::ALLOWED && abs($off) <= self::ALLOWED)) {
                return $made;
            }
            $lower += $over > self::ALLOWED ? $over + self::ALLOWED : 0.0;
            $louder += $off;
        }
    }

    /** Whether it is written as it is rendered: neither loudness nor ceiling is asked for, and nothing is converted or coded with loss. */
    private static function isOneWay(FileOrder $order, int $rate): bool
    {
        return null !== $order->target && $order->target->isAsItIs() && $order->format->isLossless() && !self::isPart($order) && $rate === $order->rate && 2 === $order->channels;
    }

    /** Whether it gets what the whole programme gets, which then has to be there, too. */
    private static function isPart(FileOrder $order): bool
    {
        return $order->asProgramme && ExcerptKind::Programme !== $order->excerpt->kind;
    }

    /**
     * @param array<string, PcmSource> $sounds
     * @param Closure(float): mixed $report
     */
    private function rendered(Mix $mix, array $sounds, Span $span, string $path, Closure $report): RenderedFile
    {
        OutFile::create($path, 'the work file', self::DISK)->close();
        $file = new RenderedFile($mix, $sounds, $span, SampleFormat::Float32, $path, 0, false);
        $file->write($report);

        return $file;
    }

    /** @param Closure(float): mixed $report */
    private function converted(string $path, int $rate, FileOrder $order, Closure $report): FloatFile
    {
        if ($rate === $order->rate && 2 === $order->channels) {
            return new FloatFile($path, $rate, 2);
        }
        $converted = new FloatFile("{$path}.converted", $order->rate, $order->channels);
        $this->coder->convert($path, $rate, $converted->path, $order->rate, $order->channels, static fn (): mixed => $report(0.5));
        unlink($path);

        return $converted;
    }

    /**
     * @param Closure(string): string $original
     * @param Closure(): mixed $tick
     *
     * @return array{string, ?string} files of its picture, and of its captions where it has some
     */
    private function film(FileFormat $format, Mix $mix, Span $span, string $work, Closure $original, Closure $tick): array
    {
        $picture = $this->pictures->make($format, $mix, $span, $work, $original, $tick);
        if ([] === $mix->captions) {
            return [$picture, null];
        }
        $captions = OutFile::create("{$work}/captions.vtt", 'the captions', self::DISK);
        $captions->write(CaptionWriter::vtt($mix->captions, $span, $mix->rate));
        $captions->close();

        return [$picture, "{$work}/captions.vtt"];
    }

    /**
     * @param array<string, PcmSource> $sounds
     * @param array{?string, ?string} $film picture and captions
     * @param Closure(float): mixed $report
     */
    private function asRendered(FileOrder $order, Mix $mix, array $sounds, Span $span, string $work, About $about, array $film, Closure $report): Made
    {
        $wav = $this->wav($order, $mix, $span, $span->length(), $work, $about);
        $wav->begin();
        $file = new RenderedFile($order->excerpt->of($mix), $sounds, $span, $order->samples(), $wav->path, $wav->headerBytes(), true);
        $file->write(static fn (float $done): mixed => $report(0.9 * $done));
        $clipping = $file->clipping();
        $clipping->atLeast($file->measured()->samplePeak);
        $measured = $this->finished($wav, $file->measured(), $order, $mix, $span, $work, $about, $film, $report);

        return new Made("{$work}/file", $measured, 0.0, $order->target($mix->aim)->isMetBy($measured), new GuardActs($order->rate), $clipping);
    }

    /**
     * @param array{?string, ?string} $film picture and captions
     * @param Closure(float): mixed $report
     */
    private function once(ToTarget $to, FloatFile $whole, FloatFile $part, FileOrder $order, Mix $mix, Span $span, string $work, About $about, array $film, Closure $report): Made
    {
        $frames = $part->frames();
        $wav = $this->wav($order, $mix, $span, $frames, $work, $about);
        $clipping = new Clipping();
        $own = $whole === $part ? null : new SampleMeter($order->channels, $order->rate);
        $begin = static function () use ($wav, $order, $mix, $span, &$clipping, &$own): Closure {
            $wav->begin();
            $clipping = new Clipping();
            $own = null === $own ? null : new SampleMeter($order->channels, $order->rate);
            $at = 0;

            return static function (array $samples) use ($wav, $order, $mix, $span, $clipping, $own, &$at): void {
                /** @var array<int, float> $samples */
                $own?->push($samples);
                $wav->write($samples);
                $wav->mayPass() && $clipping->look($samples, $span->from + (int) ($at * $mix->rate / $order->rate), $order->channels);
                $at += intdiv(\count($samples), $order->channels);
            };
        };
        foreach ($to->write($whole->pieces(...), $begin, $whole === $part ? null : $part->pieces(...)) as $done) {
            $report(0.5 + 0.4 * $done / max(1, $frames));
        }
        $measured = null === $own ? $to->result : $own->finish();
        $clipping->atLeast($measured->samplePeak);
        $measured = $this->finished($wav, $measured, $order, $mix, $span, $work, $about, $film, $report);

        return new Made("{$work}/file", $measured, $to->gain, $order->target($mix->aim)->isMetBy($whole === $part ? $measured : $to->result), $to->acts, $clipping);
    }

    private function wav(FileOrder $order, Mix $mix, Span $span, int $frames, string $work, About $about): WavFile
    {
        $path = FileFormat::Wav === $order->format ? "{$work}/file" : "{$work}/samples.wav";
        $reference = (int) round($span->from * $order->rate / $mix->rate);

        return new WavFile($path, self::DISK, $order->samples(), $order->channels, $order->rate, $frames, $about, $reference, Chapter::of($mix, $span, $order->rate));
    }

    /**
     * @param array{?string, ?string} $film
     * @param Closure(float): mixed $report
     *
     * @return Loudness of what is in the file at last
     */
    private function finished(WavFile $wav, Loudness $measured, FileOrder $order, Mix $mix, Span $span, string $work, About $about, array $film, Closure $report): Loudness
    {
        $wav->end($measured);
        if (FileFormat::Wav === $order->format) {
            return $measured;
        }
        $text = MetadataText::of($about->tags, $about->made->format('Y-m-d'), Chapter::of($mix, $span, $order->rate), $order->rate, $wav->frames, FileFormat::Flac === $order->format);

        return $this->coded($order, $wav->path, "{$work}/file", $text, $measured, [...$film, $about->cover], static fn (): mixed => $report(0.95));
    }

    /**
     * @param array{?string, ?string, ?string} $beside picture and captions of a film, and a cover
     * @param Closure(): mixed $tick
     *
     * @return Loudness of what a decoder makes of it
     */
    private function coded(FileOrder $order, string $wav, string $file, string $about, Loudness $measured, array $beside, Closure $tick): Loudness
    {
        file_put_contents("{$wav}.about", $about) === \strlen($about) || throw NoRoom::full('the file', self::DISK);
        $this->coder->encode($wav, "{$wav}.about", $order, $file, $tick, ...$beside);
        unlink($wav);
        if ($order->format->isLossless()) {
            return $measured;
        }
        $facts = $this->ffmpeg->probe($file, 'the file');
        $meter = new LoudnessMeter(16 === $facts->bits ? SampleLayout::int16($order->channels) : SampleLayout::float32($order->channels), $order->rate);
        foreach ($this->ffmpeg->samples($file, 'the file', $facts) as $bytes) {
            $meter->push($bytes);
            $tick();
        }

        return $meter->finish();
    }
}
