<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Handover\BroadcastExtension;
use Wattage\Core\Handover\Chapter;
use Wattage\Core\Handover\CuePoints;
use Wattage\Core\Handover\InfoList;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Signal\WavHeader;

/** A WAV file with all that it says about itself; it can be begun again, and learns its loudness at the end. */
final class WavFile
{
    private const ORIGINATOR = 'Wattage';

    private SampleEncoder $encoder;
    private readonly OutFile $file;

    /**
     * @param string $disk what it is written to, for people
     * @param int $frames how many there will be
     * @param int $timeReference samples since midnight at which it begins, at its rate
     * @param list<Chapter> $chapters
     *
     * @throws NoRoom
     */
    public function __construct(
        public readonly string $path,
        string $disk,
        private readonly SampleFormat $format,
        private readonly int $channels,
        private readonly int $rate,
        public readonly int $frames,
        private readonly About $about,
        private readonly int $timeReference,
        private readonly array $chapters,
    ) {
        $this->file = OutFile::create($path, 'the file', $disk);
        $this->encoder = new SampleEncoder($format);
    }

    /** Bytes before the first sample. */
    public function headerBytes(): int
    {
        return \strlen($this->header(null));
    }

    /** @throws NoRoom */
    public function begin(): void
    {
        $this->encoder = new SampleEncoder($this->format);
        $stream = $this->file->stream();
        rewind($stream);
        ftruncate($stream, 0);
        $this->file->write($this->header(null));
    }

    /** @param array<int, float> $samples @throws NoRoom */
    public function write(array $samples): void
    {
        [] === $samples || $this->file->write($this->encoder->encode($samples));
    }

    /** Whether some of what was written last may pass full scale. */
    public function mayPass(): bool
    {
        return $this->encoder->mayPass();
    }

    /** @throws NoRoom */
    public function end(Loudness $loudness): void
    {
        $bytes = $this->frames * $this->channels * intdiv($this->format->bits(), 8);
        fseek($this->file->stream(), 0, \SEEK_END);
        $this->file->write($bytes % 2 ? "\0" : '');
        rewind($this->file->stream());
        $this->file->write($this->header($loudness));
        $this->file->close();
    }

    private function header(?Loudness $loudness): string
    {
        $isFloat = SampleFormat::Float32 === $this->format;
        $history = \sprintf('A=PCM,F=%d,W=%d,M=%s,T=%s', $this->rate, $this->format->bits(), 1 === $this->channels ? 'mono' : 'stereo', self::ORIGINATOR);
        $broadcast = new BroadcastExtension($this->about->description, self::ORIGINATOR, $this->about->reference, $this->about->made, $this->timeReference, $loudness, $history);

        return WavHeader::of($this->channels, $this->format->bits(), $isFloat, $this->rate, $this->frames, $broadcast->chunk().InfoList::chunk($this->about->tags, $this->about->made->format('Y-m-d')).CuePoints::chunks($this->chapters));
    }
}
