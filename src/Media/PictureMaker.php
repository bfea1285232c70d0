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
    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private MediaStore $store)
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
        if ($this->store->has($made)) {
            return;
        }
        $work = $this->spool->workDirectory($job->id);
        try {
            $this->make($source, $work, $lease);
            $picture = "{$work}/picture.webm";
            $this->store->put($made, $picture, (string) hash_file('sha256', $picture), $lease->alive(...));
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
