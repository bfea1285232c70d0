<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\Job;
use Wattage\App\Entity\Source;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Timeline\Mix;

/** Makes the small picture that plays beside the sound of a source. */
final readonly class PictureMaker
{
    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private MediaStore $store, private PictureFrames $frames)
    {
    }

    /**
     * Once for the same file, however many projects it was copied to.
     *
     * @throws Refused|NoRoom|Cancelled|Interrupted|LeaseLost
     */
    public function run(Source $source, Job $job, Lease $lease): void
    {
        $made = MediaStore::pathOf($source, 'picture');
        if ($this->store->has($made) && $this->frames->has($source)) {
            return;
        }
        $work = $this->spool->workDirectory($job->id);
        $picture = "{$work}/picture.webm";
        try {
            $isMade = $this->store->has($made);
            if ($isMade) {
                $this->store->fetch($source, 'picture', $this->spool->file($work, 'picture.webm', $source->name), $lease->alive(...));
            } else {
                $this->make($source, $work, $lease);
            }
            try {
                $this->frames->make($source, $picture, $work, $lease);
            } catch (Refused) {
                // Only the timeline shows less then.
            }
            // Stored last: it is moved from here.
            $isMade || $this->store->put($made, $picture, (string) hash_file('sha256', $picture), $lease->alive(...));
        } finally {
            $this->spool->remove($work);
        }
    }

    private function make(Source $source, string $work, Lease $lease): void
    {
        $this->spool->needs($source->size, $source->name);
        $this->store->fetch($source, 'original', $this->spool->file($work, 'original', $source->name), $lease->alive(...));
        $facts = $this->ffmpeg->probe("{$work}/original", $source->name, Ffmpeg::MAX_CHANNELS, orSilent: true);
        $seconds = max(1.0, ($source->frames ?? 0) / Mix::DEFAULT_RATE);
        foreach ($this->ffmpeg->picture("{$work}/original", $source->name, "{$work}/picture.webm", $facts->startSeconds) as $done) {
            $lease->report(min(0.98, $done / $seconds));
        }
    }
}
