<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\Totals;
use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Timeline\Mix;

/** Makes a source of a file that was sent: decodes it, measures it, and stores the results. */
final readonly class Ingest
{
    /** A file may hold this much less than its header says before it counts as cut off: codecs round to whole packets. */
    private const LENGTH_TOLERANCE_SECONDS = 0.5;

    /** Of all that is measured beside the sound itself, for one channel of one second. */
    private const MEASURED_BYTES_PER_SECOND = 1800;

    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private Uploads $uploads, private SourceParts $parts, private Quotas $quotas, private EntityManagerInterface $entities)
    {
    }

    /** @throws Refused|NoRoom|Cancelled|Interrupted|LeaseLost */
    public function run(Source $source, Job $job, Lease $lease): Measured
    {
        $work = $this->spool->workDirectory($job->id);
        try {
            return $this->measured($source, $work, $lease);
        } finally {
            $this->spool->remove($work);
        }
    }

    private function measured(Source $source, string $work, Lease $lease): Measured
    {
        $this->spool->needs($source->size, $source->name);
        $sha256 = $this->uploads->assemble($source->id, $source->size, $this->spool->file($work, 'original', $source->name), $lease->alive(...));
        $this->refuseDuplicate($source, $sha256);
        $facts = $this->ffmpeg->probe("{$work}/original", $source->name);
        $this->quotas->sound($source, (int) ceil($facts->claimedSeconds ?? 0.0));
        $seconds = $facts->claimedSeconds ?? 0.0;
        $this->spool->needs((int) ($seconds * $facts->channels * (Mix::DEFAULT_RATE * $facts->bits / 8 + self::MEASURED_BYTES_PER_SECOND)), $source->name);
        [$totals, $soundSha256, $warning] = $this->decode($source, $facts, $work, $lease);
        [$average, $loudness] = $this->parts->work($work, $facts->channels, $lease->alive(...));
        $this->parts->publish($source, $work, ['pcm' => $soundSha256, 'original' => $sha256], $lease->alive(...));

        return new Measured($facts, $totals, $average, $loudness, $sha256, $soundSha256, $warning);
    }

    private function refuseDuplicate(Source $source, string $sha256): void
    {
        $other = $this->entities->getRepository(Source::class)->findOneBy(['project' => $source->project, 'sha256' => $sha256, 'state' => SourceState::Ready]);
        if (null !== $other && $other !== $source) {
            throw Refused::duplicate($source->name, $other->name);
        }
    }

    /** @return array{Totals, string, ?string} with the SHA-256 of the sound, and what the decoder complained about */
    private function decode(Source $source, AudioFacts $facts, string $work, Lease $lease): array
    {
        $format = PcmFormat::of($facts->channels, $facts->bits);
        [$pcm, $blocks, $waveform] = array_map(fn (string $part): OutFile => $this->spool->file($work, $part, $source->name), ['pcm', 'blocks', 'waveform']);
        $measurer = new SourceMeasurer($format, Mix::DEFAULT_RATE, $blocks->stream(), $waveform->stream());
        $expected = $facts->claimedSeconds * Mix::DEFAULT_RATE * $format->bytesPerFrame();
        $most = $this->quotas->secondsLeft($source) * Mix::DEFAULT_RATE * $format->bytesPerFrame();
        $hash = hash_init('sha256');
        $done = 0;
        $complaints = new Complaints();
        try {
            foreach ($this->ffmpeg->decode("{$work}/original", $source->name, $facts, Mix::DEFAULT_RATE, $complaints) as $piece) {
                $pcm->write($piece);
                hash_update($hash, $piece);
                $measurer->push($piece);
                $done += \strlen($piece);
                $done <= $most || throw $this->quotas->tooMuchSound($source);
                $lease->report($expected > 0 ? min(0.95, 0.95 * $done / $expected) : 0.5);
            }
            $totals = $measurer->finish();
        } catch (NotWritten) {
            $blocks->full();
        }
        array_map(static fn (OutFile $file) => $file->close(), [$pcm, $blocks, $waveform]);
        $found = $totals->frames / Mix::DEFAULT_RATE;
        if (null !== $facts->claimedSeconds && $found < $facts->claimedSeconds - self::LENGTH_TOLERANCE_SECONDS) {
            throw Refused::cutOff($source->name, $facts->claimedSeconds, $found);
        }

        return [$totals, hash_final($hash), $complaints->sentence()];
    }
}
