<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Storage\MissingFile;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\App\Storage\Store;

/** The pieces of files that are coming in, each stored under the place where it begins. Any application server may take one. */
final readonly class Uploads
{
    private const DIRECTORY = 'uploads';

    public function __construct(private Store $store)
    {
    }

    /**
     * Stores a piece; sent once more, it takes its own place. One that begins within another takes over from there.
     *
     * @param int<0, max> $offset
     * @param int $received bytes that are here already
     *
     * @throws NoRoom
     * @throws MissingFile when the upload is cleared meanwhile
     */
    public function add(Uuid $source, int $offset, string $bytes, int $received): void
    {
        foreach ($offset < $received ? $this->pieces($source) : [] as [$path, $length]) {
            $start = (int) basename($path);
            if ($start < $offset && $offset < $start + $length) {
                $bytes = $this->store->open($path)->read(0, $offset - $start).$bytes;
                $offset = $start;
            }
        }
        $this->store->write(\sprintf('%s/%015d', self::of($source), $offset), $bytes);
    }

    /** Whether all bytes are here. */
    public function isWhole(Uuid $source, int $size): bool
    {
        return $size === array_sum(array_map(static fn (array $piece): int => $piece[1], $this->pieces($source)));
    }

    /**
     * Puts the pieces together.
     *
     * @param Closure(): void $tick called after every piece
     *
     * @return string SHA-256 of the whole, hexadecimal
     *
     * @throws MissingFile|NoRoom
     */
    public function assemble(Uuid $source, int $size, OutFile $out, Closure $tick): string
    {
        $hash = hash_init('sha256');
        $done = 0;
        foreach ($this->pieces($source) as [$path, $length]) {
            $bytes = $this->store->open($path)->read(0, $length);
            hash_update($hash, $bytes);
            $out->write($bytes);
            $done += \strlen($bytes);
            $tick();
        }
        $out->close();

        return $done === $size ? hash_final($hash) : throw new MissingFile(self::of($source));
    }

    public function clear(Uuid $source): void
    {
        $this->store->deleteAll(self::of($source));
    }

    /**
     * Those that follow one another from the start. One that was sent again in another length has left pieces that nothing leads to.
     *
     * @return list<array{string, int}> path and bytes
     */
    private function pieces(Uuid $source): array
    {
        $paths = [];
        foreach ($this->store->files(self::of($source)) as $path => $written) {
            $paths[(int) basename($path)] = $path;
        }
        $pieces = [];
        for ($at = 0; isset($paths[$at]); $at += $size) {
            $size = $this->store->open($paths[$at])->size();
            $pieces[] = [$paths[$at], $size];
            if ($size < 1) {
                break;
            }
        }

        return $pieces;
    }

    private static function of(Uuid $source): string
    {
        return self::DIRECTORY."/{$source}";
    }
}
