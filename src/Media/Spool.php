<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use RuntimeException;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;

/** Where a worker keeps what it has not finished, on a disk of its own machine. Every name in it is ours, never one from outside. */
final readonly class Spool
{
    private const DISK = 'work disk of this server';
    /** Left free, so that other programs on the machine can go on. */
    private const RESERVE_BYTES = 64_000_000;

    private Filesystem $files;

    public function __construct(private string $directory)
    {
        $this->files = new Filesystem();
        $this->files->mkdir($directory, 0o750);
    }

    /** An empty directory for one try of a job. Another try, on whichever machine, has another. */
    public function workDirectory(Uuid $job): string
    {
        $directory = "{$this->directory}/{$job}.".bin2hex(random_bytes(4));
        $this->files->mkdir($directory, 0o750);

        return $directory;
    }

    /** A directory within one. */
    public function within(string $directory, string $name): string
    {
        $this->files->mkdir("{$directory}/{$name}", 0o750);

        return "{$directory}/{$name}";
    }

    public function remove(string $directory): void
    {
        $this->files->remove($directory);
    }

    /** @throws NoRoom */
    public function file(string $directory, string $part, string $name): OutFile
    {
        return OutFile::create("{$directory}/{$part}", $name, self::DISK);
    }

    /**
     * A file that is there, to be written on from a byte at which it ends from now on.
     *
     * @throws NoRoom
     */
    public function ending(string $file, int $at, string $name): OutFile
    {
        $out = OutFile::within($file, $at, $name, self::DISK);
        ftruncate($out->stream(), max(0, $at));

        return $out;
    }

    /**
     * Before work begins that would fill the disk.
     *
     * @throws NoRoom
     */
    public function needs(int $bytes, string $name): void
    {
        $free = disk_free_space($this->directory);
        false !== $free || throw new RuntimeException('The work disk cannot be asked for its room.');
        $bytes + self::RESERVE_BYTES <= $free || throw NoRoom::tooLittle("“{$name}”", self::DISK, $bytes + self::RESERVE_BYTES, (int) $free);
    }

    /**
     * Removes what tries have left behind that were cut off.
     *
     * @param Closure(string): bool $isRunning whether a worker has a job in hand, by its id
     *
     * @return int how many there were
     */
    public function sweep(Closure $isRunning): int
    {
        $swept = 0;
        foreach (glob("{$this->directory}/*") ?: [] as $directory) {
            if (!$isRunning(explode('.', basename($directory))[0])) {
                $this->files->remove($directory);
                ++$swept;
            }
        }

        return $swept;
    }
}
