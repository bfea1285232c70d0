<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use RuntimeException;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Loudness\Totals;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Timeline\Mix;

/**
 * Measures the sound in a work directory, into files beside it. Of a long one a second process does the second half, and what it found is put behind the first: in little more
 * than half of the time there is the same to a hair.
 */
final readonly class MeasuredFile
{
    /** A shorter one is not worth a second process. */
    private const LONG_SECONDS = 40;

    /**
     * Seconds by which the second half begins early, so that its filters have settled, and the first goes on, so that windows across the border are whole. Even, like the border
     * itself: windows of one channel are looked at in pairs.
     */
    private const OVERLAP = 2;

    private const SECOND = 'second-half';

    /**
     * @param int $recordedAt samples per second of the recording itself
     * @param string $name what people call it
     */
    public function __construct(private Spool $spool, private string $work, private PcmFormat $format, private int $recordedAt, private string $name)
    {
    }

    /**
     * @param Closure(float): mixed $report told how much is done, 0 … 1
     *
     * @throws NoRoom
     */
    public function measure(Closure $report): Totals
    {
        $frames = intdiv((int) filesize("{$this->work}/pcm"), $this->format->bytesPerFrame());
        $seconds = intdiv($frames, Mix::DEFAULT_RATE);
        $half = 2 * intdiv($seconds, 4);
        $theirs = fn (Closure $alive): string => serialize($this->part($this->spool->within($this->work, self::SECOND), $half - self::OVERLAP, $seconds + 1, $alive));
        $beside = $seconds < self::LONG_SECONDS ? null : Beside::begin($theirs);
        if (null === $beside) {
            return new Totals($frames, $this->part($this->work, 0, $seconds + 1, $report));
        }
        try {
            $peak = $this->part($this->work, 0, $half + self::OVERLAP, $report);
            $told = $beside->result(static fn (): mixed => $report(1.0));
        } finally {
            $beside->end();
        }
        // Where the other process failed, its half is done here, or what is in the way is said here.
        $second = unserialize($told ?? $theirs(static fn () => $report(1.0)), ['allowed_classes' => false]);
        $this->join($half);

        return new Totals($frames, max($peak, \is_float($second) ? $second : 0.0));
    }

    /**
     * @param int $from second
     * @param int $to second
     * @param Closure(float): mixed $report
     *
     * @return float highest sample, full scale is 1
     *
     * @throws NoRoom
     */
    private function part(string $directory, int $from, int $to, Closure $report): float
    {
        $pcm = fopen("{$this->work}/pcm", 'r') ?: throw new RuntimeException('A work file is gone.');
        $measuring = Measuring::into($this->spool, $directory, $this->format, $this->recordedAt, $this->name);
        $second = Mix::DEFAULT_RATE * $this->format->bytesPerFrame();
        try {
            fseek($pcm, $from * $second);
            for ($at = $from; $at < $to && '' !== ($bytes = (string) stream_get_contents($pcm, $second)); ++$at) {
                $measuring->push($bytes);
                $report(($at - $from) / ($to - $from));
            }
        } finally {
            fclose($pcm);
        }

        return $measuring->finish()->peak;
    }

    /** @throws NoRoom */
    private function join(int $half): void
    {
        foreach (Measuring::bytesPerSecond($this->format->channels) as $part => $second) {
            $file = $this->spool->ending("{$this->work}/{$part}", $half * $second, $this->name);
            $rest = fopen("{$this->work}/".self::SECOND."/{$part}", 'r') ?: throw new RuntimeException('A work file is gone.');
            fseek($rest, self::OVERLAP * $second);
            while ('' !== ($bytes = (string) fread($rest, OutFile::PIECE))) {
                $file->write($bytes);
            }
            fclose($rest);
            $file->close();
        }
    }
}
