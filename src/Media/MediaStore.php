<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use Generator;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Source;
use Wattage\App\Storage\MissingFile;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\App\Storage\Store;
use Wattage\App\Storage\StoredBytes;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Core\Speech\SpeechLevels;

/** Finished files: the sources as sent and as measured, and deliveries. */
final readonly class MediaStore
{
    /** What sound and all that was measured of it is told by: whether it is what was written, not whether somebody meant harm, and in a tenth of the time. */
    public const DIGEST = 'xxh128';
    /** What files are told by that people sent, and get. */
    private const OF_FILES = 'sha256';

    private const HASHED_AT_ONCE = 4 << 20;

    public function __construct(private Store $store)
    {
    }

    /** Copies of a project share the media of its sources. */
    public static function pathOf(Source $source, string $part): string
    {
        return "sources/{$source->media}/{$part}";
    }

    /**
     * Stores a local file, and reads it again from where it then is: only what is the same there is stored.
     *
     * @param string $digest of the file as it was made, hexadecimal
     * @param Closure(): mixed $tick called now and then
     *
     * @throws NoRoom|Damaged
     */
    public function put(string $path, string $localFile, string $digest, Closure $tick): void
    {
        $this->store->put($path, $localFile, $tick);
        $this->digest($path, self::algorithmOf($digest), $tick) === $digest || throw new Damaged($path);
    }

    /** Each is as long as only one kind is. */
    public static function algorithmOf(string $digest): string
    {
        return 2 * 16 === \strlen($digest) ? self::DIGEST : self::OF_FILES;
    }

    /** @return string of what is stored, hexadecimal @throws MissingFile */
    public function digest(string $path, string $algorithm, ?Closure $tick = null): string
    {
        $file = $this->store->open($path);
        $hash = hash_init($algorithm);
        for ($at = 0, $size = $file->size(); $at < $size; $at += self::HASHED_AT_ONCE) {
            hash_update($hash, $file->read($at, self::HASHED_AT_ONCE));
            null === $tick || $tick();
        }

        return hash_final($hash);
    }

    /** @throws MissingFile */
    public function open(string $path): StoredBytes
    {
        return $this->store->open($path);
    }

    public function has(string $path): bool
    {
        return $this->store->has($path);
    }

    public function delete(string $path): void
    {
        $this->store->delete($path);
    }

    public function deleteMedia(Uuid $media): void
    {
        $this->store->deleteAll("sources/{$media}");
    }

    public function sound(Source $source): StoredSound
    {
        return new StoredSound($this->store->open(self::pathOf($source, 'pcm')), self::formatOf($source));
    }

    /** How loud a source is every 100 ms. */
    public function tenths(Source $source): SourceTenths
    {
        return SourceTenths::fromBytes($this->bytes($source, 'tenths'), $source->channels ?? 1);
    }

    /** What lies in each of its bands every 100 ms. */
    public function bands(Source $source): SourceBands
    {
        return SourceBands::fromBytes($this->bytes($source, 'bands'), $source->channels ?? 1);
    }

    /**
     * What it was measured in, minute by minute.
     *
     * @return Generator<SourceBlocks>
     */
    public function blocks(Source $source): Generator
    {
        $file = $this->store->open(self::pathOf($source, 'blocks'));
        $channels = $source->channels ?? 1;
        for ($at = 0, $size = $file->size(), $step = SourceBlocks::bytesAtOnce($channels); $at < $size; $at += $step) {
            yield SourceBlocks::fromBytes($file->read($at, $step), $channels);
        }
    }

    /** How loud it is against its own background. */
    public function speechLevels(Source $source): SpeechLevels
    {
        return SpeechLevels::fromBytes($this->bytes($source, 'speech-levels'));
    }

    /** How much it sounds like speech. */
    public function speechChance(Source $source): SpeechChance
    {
        return SpeechChance::fromBytes($this->bytes($source, 'speech-chance'));
    }

    /**
     * Copies a part of a source into a work directory.
     *
     * @param Closure(): mixed $tick called now and then
     *
     * @throws MissingFile|NoRoom
     */
    public function fetch(Source $source, string $part, OutFile $copy, Closure $tick): void
    {
        $file = $this->store->open(self::pathOf($source, $part));
        for ($at = 0, $size = $file->size(); $at < $size; $at += OutFile::PIECE) {
            $copy->write($file->read($at, OutFile::PIECE));
            $tick();
        }
        $copy->close();
    }

    public function bytes(Source $source, string $part): string
    {
        $file = $this->store->open(self::pathOf($source, $part));

        return $file->read(0, $file->size());
    }

    public static function formatOf(Source $source): PcmFormat
    {
        return PcmFormat::of($source->channels ?? 0, $source->bits ?? 0);
    }
}
