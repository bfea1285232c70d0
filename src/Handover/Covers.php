<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\Refused;
use Wattage\App\Storage\Store;

/**
 * The cover picture of a project, which goes into its files. What is sent is never stored: it is decoded, and what is kept is a JPEG of our own, at
 * most 1400 pixels wide and high.
 */
final readonly class Covers
{
    public const MOST_BYTES = 10_000_000;
    private const SECONDS = 15;
    private const KINDS = ["\xFF\xD8\xFF" => 'jpeg_pipe', "\x89PNG" => 'png_pipe'];

    public function __construct(private Store $store, private string $ffmpeg)
    {
    }

    /** @throws Refused */
    public function keep(Project $project, string $bytes): void
    {
        $kind = array_values(array_filter(self::KINDS, static fn (string $magic): bool => str_starts_with($bytes, $magic), \ARRAY_FILTER_USE_KEY))[0] ?? throw Refused::cover();
        // A frame of a whole film, a GIF in disguise, a picture of a hundred thousand pixels a side: none of it gets further than this.
        $process = new Process([
            ...Ffmpeg::LIMITS, $this->ffmpeg, '-nostdin', '-hide_banner', '-v', 'error', '-max_pixels', '60000000', '-protocol_whitelist', 'pipe', '-f', $kind, '-i', 'pipe:0',
            '-frames:v', '1', '-vf', 'scale=w=1400:h=1400:force_original_aspect_ratio=decrease:force_divisible_by=2,format=yuvj420p', '-map_metadata', '-1', '-q:v', '3', '-f', 'mjpeg', 'pipe:1',
        ], input: $bytes, timeout: self::SECONDS);
        try {
            $process->run();
        } catch (ProcessTimedOutException) {
            throw Refused::cover();
        }
        $cover = $process->getOutput();
        $process->isSuccessful() && str_starts_with($cover, "\xFF\xD8") || throw Refused::cover();
        $this->store->write(self::path($project->id), $cover);
    }

    public function has(Project $project): bool
    {
        return $this->store->has(self::path($project->id));
    }

    public function remove(Project $project): void
    {
        $this->store->delete(self::path($project->id));
    }

    /** Writes it to a file, where there is one. */
    public function fetch(Project $project, string $to): ?string
    {
        if (!$this->has($project)) {
            return null;
        }
        $stored = $this->store->open(self::path($project->id));

        return file_put_contents($to, $stored->read(0, $stored->size())) > 0 ? $to : null;
    }

    public static function path(Uuid $project): string
    {
        return "covers/{$project}.jpg";
    }
}
