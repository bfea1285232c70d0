<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use Closure;
use FilesystemIterator;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Filesystem\Path;

/** A directory on a disk of this machine, or one that several machines share. */
final readonly class LocalStore implements Store
{
    private const DISK = 'disk of the media store';

    private Filesystem $disk;

    public function __construct(private string $root)
    {
        $this->disk = new Filesystem();
        $this->disk->mkdir($root, 0o750);
    }

    public function put(string $path, string $localFile, ?Closure $tick = null): void
    {
        $target = $this->place($path);
        $part = $target.bin2hex(random_bytes(6)).self::UNFINISHED;
        // Across disks PHP would copy without a word about how far it is.
        if (self::disk($localFile) !== self::disk(\dirname($target)) || !@rename($localFile, $part)) {
            $this->copy($localFile, $part, $tick);
            unlink($localFile);
        }
        self::name($part, $target, $path);
    }

    public function write(string $path, string $bytes): void
    {
        $target = $this->place($path);
        $part = $target.bin2hex(random_bytes(6)).self::UNFINISHED;
        try {
            $out = OutFile::create($part, basename($path), self::DISK);
        } catch (NoRoom $full) {
            clearstatcache();
            throw is_dir(\dirname($target)) ? $full : new MissingFile($path);
        }
        $out->write($bytes);
        $out->close();
        self::name($part, $target, $path);
    }

    public function open(string $path): StoredBytes
    {
        return new LocalBytes($this->file($path), $path);
    }

    public function has(string $path): bool
    {
        return is_file($this->file($path));
    }

    public function delete(string $path): void
    {
        $this->disk->remove($this->file($path));
    }

    public function deleteAll(string $directory): void
    {
        $this->disk->remove($this->file($directory));
    }

    public function files(string $directory): iterable
    {
        if (!is_dir($this->file($directory))) {
            return;
        }
        $found = new RecursiveIteratorIterator(new RecursiveDirectoryIterator($this->file($directory), FilesystemIterator::SKIP_DOTS));
        foreach ($found as $file) {
            if ($file instanceof SplFileInfo && $file->isFile()) {
                yield Path::makeRelative($file->getPathname(), $this->root) => (int) @filemtime($file->getPathname());
            }
        }
    }

    public function freeBytes(): ?int
    {
        $free = disk_free_space($this->root);

        return false === $free ? null : (int) $free;
    }

    public function address(string $path, array $as): ?string
    {
        return null;
    }

    /** Somebody may have removed the directory, and all that was in it, in the meantime. */
    private static function name(string $part, string $target, string $path): void
    {
        @rename($part, $target) || throw new MissingFile($path);
    }

    private static function disk(string $file): ?int
    {
        $stat = @stat($file);

        return false === $stat ? null : $stat['dev'];
    }

    private function place(string $path): string
    {
        $file = $this->file($path);
        $this->disk->mkdir(\dirname($file), 0o750);

        return $file;
    }

    /** @param ?Closure(): mixed $tick */
    private function copy(string $from, string $to, ?Closure $tick): void
    {
        $in = fopen($from, 'r') ?: throw new MissingFile($from);
        $out = OutFile::create($to, basename($to), self::DISK);
        while ('' !== ($bytes = (string) fread($in, OutFile::PIECE))) {
            $out->write($bytes);
            null === $tick || $tick();
        }
        $out->close();
        fclose($in);
    }

    private function file(string $path): string
    {
        return "{$this->root}/{$path}";
    }
}
