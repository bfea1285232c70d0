<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use RuntimeException;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Source;
use Wattage\App\Job\Progress;
use Wattage\Core\Timeline\Mix;

/** Makes the small picture that plays beside the sound of a source. */
final readonly class PictureMaker
{
    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private MediaStore $store, private EntityManagerInterface $entities)
    {
    }

    /** A picture that cannot be made is no reason to lose the sound: it is only said. */
    public function run(Source $source, Job $job, Progress $progress): void
    {
        if (PictureState::Ready === $source->picture) {
            return; // an earlier try got this far before it was cut off
        }
        $work = $this->spool->workDirectory($job->id);
        try {
            $this->make($source, $work, $progress);
            $this->store->put(MediaStore::pathOf($source, 'picture'), "{$work}/picture.webm");
            $source->picture = PictureState::Ready;
        } catch (Refused $reason) {
            $source->picture = PictureState::Failed;
            throw $reason;
        } finally {
            $this->entities->flush();
            $this->spool->clear($job->id);
        }
    }

    private function make(Source $source, string $work, Progress $progress): void
    {
        $file = "{$work}/original";
        $copy = fopen($file, 'w') ?: throw new RuntimeException('The work directory cannot be written.');
        stream_copy_to_stream($this->store->open(MediaStore::pathOf($source, 'original')), $copy);
        fclose($copy);
        $facts = $this->ffmpeg->probe($file, $source->name);
        $seconds = max(1.0, ($source->frames ?? 0) / Mix::DEFAULT_RATE);
        foreach ($this->ffmpeg->picture($file, $source->name, "{$work}/picture.webm", $facts->startSeconds) as $done) {
            $progress->report(min(0.98, $done / $seconds));
        }
    }
}
