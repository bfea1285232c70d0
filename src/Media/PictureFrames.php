<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\Source;
use Wattage\App\Job\Lease;
use Wattage\Core\Timeline\Mix;

/** What the timeline shows of a picture: small frames on sheets, and where it cuts. Made of the small picture, which is quick to read. */
final readonly class PictureFrames
{
    /** Frames on a sheet are so many in a row, in as many rows, one every so many seconds, of so many px. */
    public const PER_ROW = 10;
    public const SECONDS_PER_FRAME = 2;
    public const WIDTH = 96;
    public const HEIGHT = 54;

    public function __construct(private Ffmpeg $ffmpeg, private MediaStore $store)
    {
    }

    public function has(Source $source): bool
    {
        return $this->store->has(MediaStore::pathOf($source, 'cuts'));
    }

    /**
     * @param string $picture the small picture, in a work directory that the sheets may stand in too
     *
     * @throws Refused
     */
    public function make(Source $source, string $picture, string $work, Lease $lease): void
    {
        $scores = [];
        foreach ($this->ffmpeg->frames($picture, $source->name, "{$work}/frames-%d.jpg") as $time => $score) {
            $scores[$time] = $score;
            0 === \count($scores) % 1000 && $lease->alive();
        }
        for ($n = 0; is_file($sheet = "{$work}/frames-".($n + 1).'.jpg'); ++$n) {
            $this->put($source, "frames-{$n}", $sheet, $lease);
        }
        file_put_contents("{$work}/cuts", json_encode(array_map(static fn (float $seconds): int => (int) round($seconds * Mix::DEFAULT_RATE), PictureCuts::in($scores)), \JSON_THROW_ON_ERROR));
        $this->put($source, 'cuts', "{$work}/cuts", $lease);
    }

    private function put(Source $source, string $part, string $file, Lease $lease): void
    {
        $this->store->put(MediaStore::pathOf($source, $part), $file, (string) hash_file('sha256', $file), $lease->alive(...));
    }
}
