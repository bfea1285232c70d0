<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use RuntimeException;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Job\Progress;
use Wattage\Core\Loudness\AverageLevel;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\Totals;
use Wattage\Core\Timeline\Mix;

/** Makes a source of a file that was sent: decodes it, measures it, stores the results, and only then calls it ready. */
final readonly class Ingest
{
    /** A file may hold this much less than its header says before it counts as cut off: codecs round to whole packets. */
    private const LENGTH_TOLERANCE_SECONDS = 0.5;

    public function __construct(private Ffmpeg $ffmpeg, private Spool $spool, private MediaStore $store, private EntityManagerInterface $entities)
    {
    }

    /** @throws Refused|\Wattage\App\Job\Cancelled */
    public function run(Source $source, Job $job, Progress $progress): void
    {
        if (SourceState::Ready === $source->state) {
            return; // an earlier try got this far before it was cut off
        }
        $file = $this->spool->upload($source->id);
        if (!is_file($file) || 0 === filesize($file)) {
            throw Refused::empty($source->name);
        }
        $facts = $this->ffmpeg->probe($file, $source->name);
        $sha256 = (string) hash_file('sha256', $file);
        $this->refuseDuplicate($source, $sha256);

        $work = $this->spool->workDirectory($job->id);
        $totals = $this->measure($source, $file, $facts, $work, $progress);
        $this->outline($work, $facts->channels);
        $average = $this->average($work, $facts->channels);
        $this->publish($source, $file, $work);
        $source->becomeReady($facts, $totals->frames, $totals->peak, $average, $sha256);
        $this->entities->flush();
        $this->spool->clear($source->id);
        $this->spool->clear($job->id);
    }

    private function refuseDuplicate(Source $source, string $sha256): void
    {
        $other = $this->entities->getRepository(Source::class)->findOneBy(['project' => $source->project, 'sha256' => $sha256, 'state' => SourceState::Ready]);
        if (null !== $other && $other !== $source) {
            throw Refused::duplicate($source->name, $other->name);
        }
    }

    private function measure(Source $source, string $file, AudioFacts $facts, string $work, Progress $progress): Totals
    {
        $format = \Wattage\Core\Signal\PcmFormat::of($facts->channels, $facts->bits);
        [$pcm, $blocks, $waveform] = array_map(static fn (string $part): mixed => fopen("{$work}/{$part}", 'w'), ['pcm', 'blocks', 'waveform']);
        if (!\is_resource($pcm) || !\is_resource($blocks) || !\is_resource($waveform)) {
            throw new RuntimeException('The work directory cannot be written.');
        }
        $measurer = new SourceMeasurer($format, Mix::DEFAULT_RATE, $blocks, $waveform);
        $expected = $facts->claimedSeconds * Mix::DEFAULT_RATE * $format->bytesPerFrame();
        $done = 0;
        foreach ($this->ffmpeg->decode($file, $source->name, $facts, Mix::DEFAULT_RATE) as $piece) {
            fwrite($pcm, $piece);
            $measurer->push($piece);
            $done += \strlen($piece);
            $progress->report($expected > 0 ? min(0.98, $done / $expected) : 0.5);
        }
        $totals = $measurer->finish();
        array_map(fclose(...), [$pcm, $blocks, $waveform]);
        $found = $totals->frames / Mix::DEFAULT_RATE;
        if (null !== $facts->claimedSeconds && $found < $facts->claimedSeconds - self::LENGTH_TOLERANCE_SECONDS) {
            throw Refused::cutOff($source->name, $facts->claimedSeconds, $found);
        }

        return $totals;
    }

    private function outline(string $work, int $channels): void
    {
        $waveform = fopen("{$work}/waveform", 'r') ?: throw new RuntimeException('A work file is gone.');
        $levels = [];
        foreach (array_keys(Overview::BINS_PER_POINT) as $level) {
            $levels[] = fopen("{$work}/overview-{$level}", 'w') ?: throw new RuntimeException('The work directory cannot be written.');
        }
        Overview::write($waveform, $channels, $levels);
        array_map(fclose(...), [$waveform, ...$levels]);
    }

    private function average(string $work, int $channels): ?float
    {
        $blocks = fopen("{$work}/blocks", 'r') ?: throw new RuntimeException('A work file is gone.');
        $average = AverageLevel::ofStream($blocks, $channels);
        fclose($blocks);

        return $average;
    }

    private function publish(Source $source, string $file, string $work): void
    {
        foreach (['pcm', 'blocks', 'waveform', ...array_map(static fn (int $level): string => "overview-{$level}", array_keys(Overview::BINS_PER_POINT))] as $part) {
            $this->store->put(MediaStore::pathOf($source, $part), "{$work}/{$part}");
        }
        $this->store->put(MediaStore::pathOf($source, 'original'), $file);
    }
}
