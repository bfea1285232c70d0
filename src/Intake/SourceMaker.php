<?php

declare(strict_types=1);

namespace Wattage\App\Intake;

use Wattage\App\Entity\Source;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Job\Share;
use Wattage\App\Media\AudioFacts;
use Wattage\App\Media\Complaints;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\Measured;
use Wattage\App\Media\MeasuredFile;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Quotas;
use Wattage\App\Media\Refused;
use Wattage\App\Media\SourceParts;
use Wattage\App\Media\Spool;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Timeline\Mix;

/** Decodes one file with one or two channels, measures it, and stores the results. */
final readonly class SourceMaker
{
    /** A file may hold this much less than its header says before it counts as cut off: codecs round to whole packets. */
    private const LENGTH_TOLERANCE_SECONDS = 0.5;

    /** Of all that is measured beside the sound itself, for one channel of one second. */
    private const MEASURED_BYTES_PER_SECOND = 2500;

    /** Of the time, about. */
    private const DECODING = 0.35;

    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private SourceParts $parts, private Quotas $quotas)
    {
    }

    /**
     * @param string $work a directory with the file, called original, which goes into the store
     * @param string $sha256 of it, hexadecimal
     *
     * @throws Refused|NoRoom|Cancelled|Interrupted|LeaseLost
     */
    public function make(Source $source, string $work, AudioFacts $facts, string $sha256, Share $share): Measured
    {
        $seconds = $facts->claimedSeconds ?? 0.0;
        $this->spool->needs((int) ($seconds * $facts->channels * (Mix::DEFAULT_RATE * $facts->bits / 8 + self::MEASURED_BYTES_PER_SECOND)), $source->name);
        [$soundDigest, $warning] = $this->decode($source, $facts, $work, $share->part(0.0, self::DECODING));
        $totals = (new MeasuredFile($this->spool, $work, PcmFormat::of($facts->channels, $facts->bits), $facts->rate, $source->name))->measure($share->part(self::DECODING, 1.0 - self::DECODING)->report(...));
        [$average, $loudness] = $this->parts->work($work, $facts->channels, $share->alive(...));
        $this->parts->publish($source, $work, ['pcm' => $soundDigest, 'original' => $sha256], $share->alive(...));

        return new Measured($facts, $totals, $average, $loudness, $sha256, $soundDigest, $facts->whySilent ?? $warning);
    }

    /** @return array{string, ?string} the digest of the sound, and what the decoder complained about */
    private function decode(Source $source, AudioFacts $facts, string $work, Share $share): array
    {
        $format = PcmFormat::of($facts->channels, $facts->bits);
        $pcm = $this->spool->file($work, 'pcm', $source->name);
        $expected = $facts->claimedSeconds * Mix::DEFAULT_RATE * $format->bytesPerFrame();
        $most = $this->quotas->secondsLeft($source) * Mix::DEFAULT_RATE * $format->bytesPerFrame();
        $hash = hash_init(MediaStore::DIGEST);
        $done = 0;
        $complaints = new Complaints();
        foreach ($this->ffmpeg->decode("{$work}/original", $source->name, $facts, Mix::DEFAULT_RATE, $complaints) as $piece) {
            $pcm->write($piece);
            hash_update($hash, $piece);
            $done += \strlen($piece);
            $done <= $most || throw $this->quotas->tooMuchSound($source);
            $share->report($expected > 0 ? $done / $expected : 0.5);
        }
        $pcm->close();
        $found = intdiv($done, $format->bytesPerFrame()) / Mix::DEFAULT_RATE;
        if (null !== $facts->claimedSeconds && $found < $facts->claimedSeconds - self::LENGTH_TOLERANCE_SECONDS) {
            throw Refused::cutOff($source->name, $facts->claimedSeconds, $found);
        }

        return [hash_final($hash), $complaints->sentence()];
    }
}
