<?php

declare(strict_types=1);

namespace Wattage\App\Intake;

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
use Wattage\App\Job\Share;
use Wattage\App\Media\AudioFacts;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Quotas;
use Wattage\App\Media\Refused;
use Wattage\App\Media\Spool;
use Wattage\App\Media\Uploads;
use Wattage\App\Media\WavNotes;
use Wattage\App\Storage\NoRoom;

/** Makes sources of what was sent: one of most files, one for each channel where these are more than two, and all that is in an archive. */
final readonly class Ingest
{
    /** How much of the job is done when all is decoded; and of a file with channels, when it is split. */
    private const DECODED = 0.95;
    private const SPLIT = 0.25;

    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private Uploads $uploads, private SourceMaker $maker, private Quotas $quotas, private EntityManagerInterface $entities, private MediaStore $store, private ArchiveTaken $archives)
    {
    }

    /** @throws Refused|NoRoom|Cancelled|Interrupted|LeaseLost */
    public function run(Source $source, Job $job, Lease $lease): Taken
    {
        $work = $this->spool->workDirectory($job->id);
        try {
            $this->spool->needs($source->size, $source->name);
            $sha256 = $this->uploads->assemble($source->id, $source->size, $this->spool->file($work, 'original', $source->name), $lease->alive(...));
            $share = Share::of($lease, self::DECODED);
            if (ArchiveFile::is("{$work}/original")) {
                return $this->archive($source, $work, $share);
            }
            $other = $this->known($source, $sha256);
            null === $other || throw Refused::duplicate($source->name, $other->name);

            return new Taken($this->sources($source, $source->name, $work, $sha256, $share));
        } finally {
            $this->spool->remove($work);
        }
    }

    /** All that is in an archive. What is here already is not taken in again. */
    private function archive(Source $source, string $work, Share $share): Taken
    {
        $archive = ArchiveFile::open("{$work}/original", $source->name);
        $contents = $archive->contents();
        $this->archives->fits($source->project, $contents) || throw Refused::archive($source->name, 'there is a mix in this project already. Begin a new project, and bring it in there');
        $this->quotas->file($source->project, $source->name, $archive->bytes());
        $this->spool->needs($archive->bytes(), $source->name);
        $incoming = $ids = $placeable = [];
        try {
            foreach ($contents->media as $n => $entry) {
                $own = $this->spool->within($work, "media-{$n}");
                $sha256 = $archive->extract($entry->entry, $this->spool->file($own, 'original', $entry->name), $share->alive(...));
                null === $entry->sha256 || $entry->sha256 === $sha256 || throw Refused::archive($source->name, "“{$entry->name}” in it is damaged");
                $known = $this->known($source, $sha256)?->toMixSource();
                if (null === $known) {
                    $of = [] === $incoming ? $source : new Source($source->project, $entry->name, $source->size);
                    $taken = $this->sources($of, $entry->name, $own, $sha256, $share->part($n / \count($contents->media), 1 / \count($contents->media)));
                    array_push($incoming, ...$taken);
                    $known = $taken[0]->placeable();
                }
                $ids[$entry->id] = $known->id;
                $placeable[$known->id] = $known;
                $this->spool->remove($own);
            }
            $this->archives->check($contents, $ids, $placeable);
        } catch (Throwable $problem) {
            $this->forget($source, $incoming);
            throw $problem instanceof Refused ? $problem->within($source->name) : $problem;
        }

        return new Taken($incoming, $contents, $ids);
    }

    /**
     * @param string $name what it is to be called
     * @param string $work a directory with the file, called original
     * @param string $sha256 of it, hexadecimal
     *
     * @return non-empty-list<Incoming> one, or as many as it has channels where these are more than two
     */
    private function sources(Source $source, string $name, string $work, string $sha256, Share $share): array
    {
        $size = (int) filesize("{$work}/original");
        $facts = $this->ffmpeg->probe("{$work}/original", $name, Ffmpeg::MAX_CHANNELS, orSilent: true);
        $many = $facts->channels > 2;
        $this->quotas->sound($source, (int) ceil($facts->claimedSeconds ?? 0.0) * ($many ? $facts->channels : 1));
        $notes = WavNotes::of("{$work}/original");
        $facts = [] === $facts->chapters ? $facts->withChapters($notes->cues) : $facts;
        if (!$many) {
            return [new Incoming($source, $name, $this->maker->make($source, $work, $facts, $sha256, $share), $size)];
        }
        // A film comes besides, for its picture; before its channels, as it is moved into the store.
        $channels = $this->split($name, $work, $facts, $share);
        $film = $facts->hasPicture ? [new Incoming($source, $name, $this->maker->make($source, $work, $facts->pictureOnly(), $sha256, $share->part(self::SPLIT, 0.0)), $size)] : [];

        return [...$film, ...$this->channels($source, $name, $channels, $facts, $notes, $share)];
    }

    /** @return non-empty-list<string> a directory for each channel, with its WAV file, called original */
    private function split(string $name, string $work, AudioFacts $facts, Share $share): array
    {
        $seconds = max(1.0, $facts->claimedSeconds ?? 1.0);
        $this->spool->needs((int) ($seconds * $facts->channels * $facts->rate * $facts->bits / 8), $name);
        foreach ($this->ffmpeg->split("{$work}/original", $name, $facts, $work) as $done) {
            $share->report(min(self::SPLIT, self::SPLIT * $done / $seconds));
        }

        return array_map(function (int $channel) use ($work): string {
            $own = $this->spool->within($work, (string) $channel);
            rename("{$work}/{$channel}.wav", "{$own}/original");

            return $own;
        }, range(1, max(1, $facts->channels)));
    }

    /**
     * @param non-empty-list<string> $directories of the channels
     *
     * @return non-empty-list<Incoming>
     */
    private function channels(Source $source, string $name, array $directories, AudioFacts $all, WavNotes $notes, Share $share): array
    {
        $sha256 = array_map(static fn (string $own): string => (string) hash_file('sha256', "{$own}/original"), $directories);
        // One that is like another, as silent ones are, is no matter; all of them are the same file again.
        $known = array_map(fn (string $one): ?Source => $this->known($source, $one), $sha256);
        \in_array(null, $known, true) || throw Refused::duplicate($name, $known[0]->name ?? $name);
        $part = (1.0 - self::SPLIT) / \count($directories);
        $taken = [];
        try {
            foreach ($directories as $i => $own) {
                $size = (int) filesize("{$own}/original");
                $of = 0 === $i && !$all->hasPicture ? $source : new Source($source->project, $name, $size);
                $facts = $this->ffmpeg->probe("{$own}/original", $name)->recorded($all->beganAt)->withChapters(0 === $i ? $all->chapters : []);
                $measured = $this->maker->make($of, $own, $facts, $sha256[$i], $share->part(self::SPLIT + $i * $part, $part));
                $taken[] = new Incoming($of, Source::channelName($name, $notes->tracks[$i + 1] ?? 'channel '.($i + 1)), $measured, $size);
                $this->spool->remove($own);
            }
        } catch (Throwable $problem) {
            $this->forget($source, $taken);
            throw $problem;
        }

        return $taken;
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

    /** The same file, where it is in the project already. */
    private function known(Source $source, string $sha256): ?Source
    {
        $other = $this->entities->getRepository(Source::class)->findOneBy(['project' => $source->project, 'sha256' => $sha256, 'state' => SourceState::Ready]);

        return $other === $source ? null : $other;
    }
}
