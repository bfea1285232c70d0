<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\Totals;
use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Timeline\Mix;

/** Measures sound as it streams past, into files of a work directory: what {@see SourceParts} goes on from. */
final readonly class Measuring
{
    private const PARTS = ['blocks', 'waveform', 'bands', SourceParts::RECORDS];

    /** @param non-empty-list<OutFile> $files */
    private function __construct(private SourceMeasurer $measurer, private array $files)
    {
    }

    /**
     * @param int $recordedAt samples per second of the recording itself
     * @param string $name what people call it
     *
     * @throws NoRoom
     */
    public static function into(Spool $spool, string $work, PcmFormat $format, int $recordedAt, string $name): self
    {
        $files = array_map(static fn (string $part): OutFile => $spool->file($work, $part, $name), self::PARTS);
        [$blocks, $waveform, $bands, $records] = array_map(static fn (OutFile $file): mixed => $file->stream(), $files);

        return new self(new SourceMeasurer($format, Mix::DEFAULT_RATE, $blocks, $waveform, new BandMeter($format, Mix::DEFAULT_RATE, $recordedAt, $bands, $records)), $files);
    }

    /** @return array<string, int> how many bytes a second of each part takes */
    public static function bytesPerSecond(int $channels): array
    {
        return array_combine(self::PARTS, [...SourceMeasurer::bytesPerSecond($channels), ...BandMeter::bytesPerSecond($channels)]);
    }

    /** @throws NoRoom */
    public function push(string $bytes): void
    {
        try {
            $this->measurer->push($bytes);
        } catch (NotWritten) {
            $this->files[0]->full();
        }
    }

    /** @throws NoRoom */
    public function finish(): Totals
    {
        try {
            $totals = $this->measurer->finish();
        } catch (NotWritten) {
            $this->files[0]->full();
        }
        array_map(static fn (OutFile $file) => $file->close(), $this->files);

        return $totals;
    }
}
