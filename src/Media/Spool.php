<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use RuntimeException;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Uid\Uuid;

/**
 * A local directory for files that are not finished: uploads coming in and a worker's own. Every name in it is an id of
 * ours, never one from outside.
 */
final readonly class Spool
{
    private Filesystem $files;

    public function __construct(private string $directory)
    {
        $this->files = new Filesystem();
        $this->files->mkdir($directory, 0o750);
    }

    public function upload(Uuid $source): string
    {
        return "{$this->directory}/{$source}.upload";
    }

    /**
     * Adds bytes to an upload at an offset; what may stand behind it, from a try that broke off, is dropped.
     *
     * @param int<0, max> $offset
     */
    public function write(Uuid $source, int $offset, string $bytes): void
    {
        $stream = fopen($this->upload($source), 'c+') ?: throw new RuntimeException('The upload cannot be stored.');
        try {
            ftruncate($stream, $offset);
            fseek($stream, $offset);
            if (fwrite($stream, $bytes) !== \strlen($bytes)) {
                throw new RuntimeException('The upload cannot be stored: the disk may be full.');
            }
        } finally {
            fclose($stream);
        }
    }

    /** An empty directory of a job's own; anything left in it from an earlier try is gone. */
    public function workDirectory(Uuid $job): string
    {
        $directory = "{$this->directory}/{$job}.work";
        $this->files->remove($directory);
        $this->files->mkdir($directory, 0o750);

        return $directory;
    }

    public function clear(Uuid $id): void
    {
        $this->files->remove(["{$this->directory}/{$id}.upload", "{$this->directory}/{$id}.work"]);
    }
}
