<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Closure;
use Wattage\App\Media\Beside;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\MeasuredPart;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/**
 * Writes a mix into a file as it is rendered, and measures it on the way. Of a long one a second process does the second half, into the
 * same file: the bytes are the same, in little more than half of the time.
 */
final class RenderedFile
{
    /** A shorter one is not worth a second process. */
    private const LONG_SECONDS = 20;

    /** Pieces of 100 ms by which the second half begins early, so that its filters have settled. */
    private const RUN_UP = 10;

    /** Frames of 100 ms, by which it is measured. */
    private readonly int $piece;
    private readonly Clipping $clipping;
    /** @var list<MeasuredPart> */
    private array $parts = [];

    /**
     * @param array<string, PcmSource> $sounds by source id
     * @param string $path a file that is there
     * @param int $at byte of the first sample
     * @param bool $peaks whether peaks are looked for
     */
    public function __construct(
        private readonly Mix $mix,
        private readonly array $sounds,
        private readonly Span $span,
        private readonly SampleFormat $format,
        private readonly string $path,
        private readonly int $at,
        private readonly bool $peaks,
    ) {
        $this->piece = intdiv($mix->rate, 10);
        $this->clipping = new Clipping();
    }

    /**
     * @param Closure(float): mixed $report told how much is done, 0…1
     *
     * @throws NoRoom
     */
    public function write(Closure $report): void
    {
        $pieces = intdiv($this->span->length(), $this->piece);
        $half = intdiv($pieces, 2);
        $apart = 10 * self::LONG_SECONDS > $pieces ? null : $this->soundsApart();
        $beside = null === $apart ? null : Beside::begin(fn (Closure $alive): string => serialize($this->part($half, null, $apart, $alive)));
        if (null === $beside) {
            $this->take($this->part(0, null, $this->sounds, $report));

            return;
        }
        try {
            $this->take($this->part(0, $half, $this->sounds, $report));
            $second = self::told($beside->result(static fn (): mixed => $report(1.0)));
        } finally {
            $beside->end();
        }
        // Where the other process failed, its half is made here, or what is in the way is said here.
        $this->take($second ?? $this->part($half, null, $this->sounds, $report));
    }

    public function measured(): Loudness
    {
        return LoudnessMeter::joined([] === $this->parts ? [new MeasuredPart([], 0.0, 0, 0.0, 0.0)] : $this->parts, 2);
    }

    public function clipping(): Clipping
    {
        return $this->clipping;
    }

    /** @return ?array<string, PcmSource> for another process */
    private function soundsApart(): ?array
    {
        $apart = array_filter(array_map(static fn (PcmSource $sound): ?PcmSource => $sound->apart(), $this->sounds));

        return \count($apart) === \count($this->sounds) ? $apart : null;
    }

    /**
     * @param int $first number of the piece it begins with
     * @param ?int $end the piece before which it ends; null for the end
     * @param array<string, PcmSource> $sounds
     * @param Closure(float): mixed $report
     *
     * @return array{MeasuredPart, Clipping}
     *
     * @throws NoRoom
     */
    private function part(int $first, ?int $end, array $sounds, Closure $report): array
    {
        $from = $this->span->from + $first * $this->piece;
        $to = null === $end ? $this->span->to : $this->span->from + $end * $this->piece;
        $runUp = min($first, self::RUN_UP);
        $meter = new SampleMeter(2, $this->mix->rate, $this->peaks, $runUp);
        $encoder = new SampleEncoder($this->format);
        $encoder->skip($first, 2 * $this->piece);
        $clipping = new Clipping();
        $file = OutFile::within($this->path, $this->at + 2 * ($from - $this->span->from) * intdiv($this->format->bits(), 8), 'the file', FileMaker::DISK);
        foreach ((new Renderer($this->mix, $sounds, $this->piece))->render(Span::of($from - $runUp * $this->piece, $to)) as $position => $samples) {
            $meter->push($samples);
            if ($position < $from) {
                continue;
            }
            $file->write($encoder->encode($samples));
            $encoder->mayPass() && $clipping->look($samples, $position);
            $report(($position - $from) / ($to - $from));
        }
        $file->close();

        return [null === $end ? $meter->lastPart() : $meter->part(), $clipping];
    }

    /** @param array{MeasuredPart, Clipping} $part */
    private function take(array $part): void
    {
        $this->parts[] = $part[0];
        $this->clipping->join($part[1]);
    }

    /** @return ?array{MeasuredPart, Clipping} */
    private static function told(?string $bytes): ?array
    {
        $told = null === $bytes ? null : unserialize($bytes, ['allowed_classes' => [MeasuredPart::class, Clipping::class]]);

        return \is_array($told) && ($told[0] ?? null) instanceof MeasuredPart && ($told[1] ?? null) instanceof Clipping ? [$told[0], $told[1]] : null;
    }
}
