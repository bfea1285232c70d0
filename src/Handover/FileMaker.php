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
use Wattage\Core\Handover\MetadataText;
use Wattage\Core\Handover\Target;
use Wattage\Core\Handover\ToTarget;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Core\Problem;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\Clipping;
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
    private const DISK = 'work disk of this server';

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
            $sound = new Rendered($order->excerpt->of($mix), $sounds, $span);

            return $this->once(new ToTarget($target, null, $order->channels, $order->rate), $sound, $sound, $order, $mix, $span, $work, $about, $film, $report);
        }
        $share = self::isPart($order) ? 0.25 : 0.5;
        // What is written as it is rendered can be measured on the way.
        $meter = 10 * Renderer::PIECE === $mix->rate && $mix->rate === $order->rate && 2 === $order->channels ? new SampleMeter(2, $mix->rate, peaks: false) : null;
        $part = $this->converted($this->rendered($order->excerpt->of($mix), $sounds, $span, "{$work}/part", self::isPart($order) ? null : $meter, static fn (float $done): mixed => $report($share * $done)), $order, $report);
        $whole = self::isPart($order)
            ? $this->converted($this->rendered($mix, $sounds, $span, "{$work}/whole", $meter, static fn (float $done): mixed => $report($share + $share * $done)), $order, $report)
            : $part;
        $measured = $meter?->finish() ?? $whole->measured(static fn (): mixed => $report(0.5));
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

    /** Whether it is written as it is rendered: no loudness is asked for, that must be known before, and nothing is converted or coded with loss. */
    private static function isOneWay(FileOrder $order, int $rate): bool
    {
        return null !== $order->target && null === $order->target->loudness && $order->format->isLossless() && !self::isPart($order) && $rate === $order->rate && 2 === $order->channels;
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
    private function rendered(Mix $mix, array $sounds, Span $span, string $path, ?SampleMeter $meter, Closure $report): FloatFile
    {
        $file = OutFile::create($path, 'the work file', self::DISK);
        foreach ((new Renderer($mix, $sounds))->render($span) as $from => $samples) {
            $file->write(pack('g*', ...$samples));
            $meter?->push($samples);
            $report(($from - $span->from) / $span->length());
        }
        $file->close();

        return new FloatFile($path, $mix->rate, 2);
    }

    /** @param Closure(float): mixed $report */
    private function converted(FloatFile $file, FileOrder $order, Closure $report): FloatFile
    {
        if ($file->rate === $order->rate && $file->channels === $order->channels) {
            return $file;
        }
        $converted = new FloatFile("{$file->path}.converted", $order->rate, $order->channels);
        $this->coder->convert($file->path, $file->rate, $converted->path, $order->rate, $order->channels, static fn (): mixed => $report(0.5));
        unlink($file->path);

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
     * @param array{?string, ?string} $film picture and captions
     * @param Closure(float): mixed $report
     */
    private function once(ToTarget $to, Sound $whole, Sound $part, FileOrder $order, Mix $mix, Span $span, string $work, About $about, array $film, Closure $report): Made
    {
        $frames = $part->frames();
        $chapters = Chapter::of($mix, $span, $order->rate);
        $reference = (int) round($span->from * $order->rate / $mix->rate);
        $isCoded = FileFormat::Wav !== $order->format;
        $wavPath = $isCoded ? "{$work}/samples.wav" : "{$work}/file";
        $wav = new WavFile(OutFile::create($wavPath, 'the file', self::DISK), $order->samples(), $order->channels, $order->rate, $frames, $about, $reference, $chapters);
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
        $wav->end($measured);
        if ($isCoded) {
            $measured = $this->coded($order, $wavPath, "{$work}/file", MetadataText::of($about->tags, $about->made->format('Y-m-d'), $chapters, $order->rate, $frames, FileFormat::Flac === $order->format), $measured, [...$film, $about->cover], static fn (): mixed => $report(0.95));
        }

        return new Made("{$work}/file", $measured, $to->gain, $order->target($mix->aim)->isMetBy($whole === $part ? $measured : $to->result), $to->acts, $clipping);
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
