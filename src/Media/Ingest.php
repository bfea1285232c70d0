<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Throwable;
use Wattage\App\Archive\ArchiveFile;
use Wattage\App\Archive\ArchiveTaken;
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

    /** How much of the job is done when a file is split into its channels, and when all is decoded. */
    private const SPLIT = 0.25;
    private const DONE = 0.95;

    /** Of all that is measured beside the sound itself, for one channel of one second. */
    private const MEASURED_BYTES_PER_SECOND = 1800;

    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private Uploads $uploads, private SourceParts $parts, private Quotas $quotas, private EntityManagerInterface $entities, private MediaStore $store, private ArchiveTaken $archives)
    {
    }

    /** @throws Refused|NoRoom|Cancelled|Interrupted|LeaseLost */
    public function run(Source $source, Job $job, Lease $lease): Taken
    {
        $work = $this->spool->workDirectory($job->id);
        try {
            $this->spool->needs($source->size, $source->name);
            $sha256 = $this->uploads->assemble($source->id, $source->size, $this->spool->file($work, 'original', $source->name), $lease->alive(...));

            return ArchiveFile::is("{$work}/original") ? $this->archive($source, $work, $lease) : new Taken($this->taken($source, $work, $sha256, $lease));
        } finally {
            $this->spool->remove($work);
        }
    }

    /** All that is in an archive. What is here already is not taken in again. */
    private function archive(Source $source, string $work, Lease $lease): Taken
    {
        $archive = ArchiveFile::open("{$work}/original", $source->name);
        $contents = $archive->contents();
        $this->archives->fits($source->project, $contents) || throw Refused::archive($source->name, 'there is a mix in this project already. Begin a new project, and bring it in there');
        $this->quotas->file($source->project, $source->name, $archive->bytes());
        $this->spool->needs($archive->bytes(), $source->name);
        $incoming = $ids = $sources = [];
        try {
            foreach ($contents->media as $n => $entry) {
                $own = "{$work}/media-{$n}";
                mkdir($own, 0o750);
                $sha256 = $archive->extract($entry->entry, $this->spool->file($own, 'original', $entry->name), $lease->alive(...));
                null === $entry->sha256 || $entry->sha256 === $sha256 || throw Refused::archive($source->name, "“{$entry->name}” in it is damaged");
                $known = $this->known($source, $sha256);
                $of = [] === $incoming ? $source : new Source($source->project, $entry->name, (int) filesize("{$own}/original"));
                $taken = null === $known ? $this->taken($of, $own, $sha256, $lease, $entry->name) : [];
                array_push($incoming, ...$taken);
                $placeable = $known?->toMixSource() ?? $taken[0]->placeable();
                $ids[$entry->id] = $placeable->id;
                $sources[$placeable->id] = $placeable;
                $this->spool->remove($own);
            }
            $this->archives->check($contents, $ids, $sources);
        } catch (Throwable $problem) {
            $this->forget($source, $incoming);
            throw $problem;
        }

        return new Taken($incoming, $contents, $ids);
    }

    /**
     * @param ?string $name what it is to be called, where it came in an archive
     *
     * @return list<Incoming> one, or as many as it has channels where these are more than two
     */
    private function taken(Source $source, string $work, string $sha256, Lease $lease, ?string $name = null): array
    {
        $name ??= $source->name;
        $size = (int) filesize("{$work}/original");
        $this->refuseDuplicate($source, $sha256);
        $facts = $this->ffmpeg->probe("{$work}/original", $source->name, Ffmpeg::MAX_CHANNELS, orSilent: true);
        $many = $facts->channels > 2;
        $this->quotas->sound($source, (int) ceil($facts->claimedSeconds ?? 0.0) * ($many ? $facts->channels : 1));
        $notes = WavNotes::of("{$work}/original");
        $facts = [] === $facts->chapters ? $facts->withChapters($notes->cues) : $facts;

        return $many ? $this->channels($source, $name, $work, $facts, $notes, $sha256, $lease) : [new Incoming($source, $name, $this->measured($source, $work, $facts, $sha256, $lease), $size)];
    }

    /**
     * Each channel as a source of its own; a film besides, for its picture.
     *
     * @return list<Incoming>
     */
    private function channels(Source $source, string $name, string $work, AudioFacts $facts, WavNotes $notes, string $sha256, Lease $lease): array
    {
        $this->spool->needs((int) (($facts->claimedSeconds ?? 0.0) * $facts->channels * $facts->rate * $facts->bits / 8), $source->name);
        $seconds = max(1.0, $facts->claimedSeconds ?? 1.0);
        foreach ($this->ffmpeg->split("{$work}/original", $source->name, $facts, $work) as $done) {
            $lease->report(min(self::SPLIT, self::SPLIT * $done / $seconds));
        }
        $taken = [];
        try {
            for ($channel = 1; $channel <= $facts->channels; ++$channel) {
                $own = "{$work}/{$channel}";
                mkdir($own, 0o750);
                rename("{$work}/{$channel}.wav", "{$own}/original");
                $size = (int) filesize("{$own}/original");
                $of = 1 === $channel && !$facts->hasPicture ? $source : new Source($source->project, $name, $size);
                $taken[] = new Incoming($of, Source::channelName($name, $notes->tracks[$channel] ?? "channel {$channel}"), $this->channel($of, $own, $facts, $channel, $lease), $size);
                $this->spool->remove($own);
            }
            if ($facts->hasPicture) {
                $size = (int) filesize("{$work}/original");
                $taken[] = new Incoming($source, $name, $this->measured($source, $work, $facts->pictureOnly(), $sha256, $lease, self::DONE, 0.0), $size);
            }
        } catch (Throwable $problem) {
            $this->forget($source, $taken);
            throw $problem;
        }

        return $taken;
    }

    private function channel(Source $of, string $own, AudioFacts $all, int $channel, Lease $lease): Measured
    {
        $part = (self::DONE - self::SPLIT) / $all->channels;
        $sha256 = (string) hash_file('sha256', "{$own}/original");
        $this->refuseDuplicate($of, $sha256);

        $facts = $this->ffmpeg->probe("{$own}/original", $of->name)->recorded($all->beganAt)->withChapters(1 === $channel ? $all->chapters : []);

        return $this->measured($of, $own, $facts, $sha256, $lease, self::SPLIT + ($channel - 1) * $part, $part);
    }

    /**
     * @param float $from how much of the whole job is done, 0 … 1
     * @param float $part how much of it this is
     */
    private function measured(Source $source, string $work, AudioFacts $facts, string $sha256, Lease $lease, float $from = 0.0, float $part = self::DONE): Measured
    {
        $seconds = $facts->claimedSeconds ?? 0.0;
        $this->spool->needs((int) ($seconds * $facts->channels * (Mix::DEFAULT_RATE * $facts->bits / 8 + self::MEASURED_BYTES_PER_SECOND)), $source->name);
        [$totals, $soundSha256, $warning] = $this->decode($source, $facts, $work, static fn (float $done) => $lease->report($from + $part * $done));
        [$average, $loudness] = $this->parts->work($work, $facts->channels, $lease->alive(...));
        $this->parts->publish($source, $work, ['pcm' => $soundSha256, 'original' => $sha256], $lease->alive(...));

        return new Measured($facts, $totals, $average, $loudness, $sha256, $soundSha256, $facts->whySilent ?? $warning);
    }

    /**
     * Files of those that nobody will ask for.
     *
     * @param list<Incoming> $taken
     */
    private function forget(Source $source, array $taken): void
    {
        array_map(fn (Incoming $one) => $one->source === $source ? null : $this->store->deleteMedia($one->source->media), $taken);
    }

    private function refuseDuplicate(Source $source, string $sha256): void
    {
        $other = $this->known($source, $sha256);
        null === $other || throw Refused::duplicate($source->name, $other->name);
    }

    /** The same file, where it is in the project already. */
    private function known(Source $source, string $sha256): ?Source
    {
        $other = $this->entities->getRepository(Source::class)->findOneBy(['project' => $source->project, 'sha256' => $sha256, 'state' => SourceState::Ready]);

        return $other === $source ? null : $other;
    }

    /**
     * @param Closure(float): void $report told how much of it is done, 0 … 1
     *
     * @return array{Totals, string, ?string} with the SHA-256 of the sound, and what the decoder complained about
     */
    private function decode(Source $source, AudioFacts $facts, string $work, Closure $report): array
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
                $report($expected > 0 ? min(1.0, $done / $expected) : 0.5);
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
