<?php

declare(strict_types=1);

namespace Wattage\App\Archive;

use Closure;
use Wattage\App\Media\Refused;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;
use ZipArchive;

/**
 * A ZIP file from outside: a project of ours, or a bundle of OpenTimelineIO (content.otio, and its media beside it). Nothing in it is trusted: names
 * are never paths here, links, secrets and paths that lead out are refused, and no entry may give more than it says.
 */
final readonly class ArchiveFile
{
    public const FORMAT = 'wattage-project';
    private const MOST_ENTRIES = 5000;
    /** Bytes of one text, of all mixes together, and how many objects and lists one may have, each half a kilobyte once it is read. */
    private const MOST_TEXT = 20_000_000;
    public const MOST_MIXES = 50_000_000;
    private const MOST_PARTS = 300_000;
    private const MAGIC = "PK\x03\x04";
    private const LINK = 0o120000;
    private const KIND = 0o170000;

    /** @param array<string, array{int, int}> $entries place and bytes, by name */
    private function __construct(private ZipArchive $zip, private string $name, private array $entries)
    {
    }

    public static function is(string $file): bool
    {
        return self::MAGIC === (string) file_get_contents($file, length: 4);
    }

    /**
     * @param string $name what the person calls it
     *
     * @throws Refused
     */
    public static function open(string $file, string $name): self
    {
        $zip = new ZipArchive();
        true === $zip->open($file, ZipArchive::RDONLY) || throw Refused::archive($name, 'it is damaged');
        $zip->numFiles <= self::MOST_ENTRIES || throw Refused::archive($name, \sprintf('it has more than %d files in it', self::MOST_ENTRIES));
        $entries = [];
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            /** @var array{name: string, size: int, encryption_method: int}|false $stat */
            $stat = $zip->statIndex($i, ZipArchive::FL_UNCHANGED);
            false !== $stat || throw Refused::archive($name, 'it is damaged');
            self::check($zip, $i, $stat, $name);
            str_ends_with($stat['name'], '/') || $entries[$stat['name']] = [$i, $stat['size']];
        }

        return new self($zip, $name, $entries);
    }

    /** Bytes of all that is in it. */
    public function bytes(): int
    {
        return array_sum(array_column($this->entries, 1));
    }

    /**
     * @return Contents what is to be taken in
     *
     * @throws Refused
     */
    public function contents(): Contents
    {
        return match (true) {
            isset($this->entries['project.json']) => $this->project(),
            isset($this->entries['content.otio']) => $this->bundle(),
            default => throw Refused::archive($this->name, 'it is neither a project from here nor a bundle of OpenTimelineIO. Unpack it and bring in its files'),
        };
    }

    /**
     * @param Closure(): mixed $tick called now and then
     *
     * @return string SHA-256, hexadecimal
     *
     * @throws Refused
     */
    public function extract(string $entry, OutFile $to, Closure $tick): string
    {
        [$place, $size] = $this->entries[$entry] ?? throw Refused::archive($this->name, "“{$entry}” is missing from it");
        $stream = $this->zip->getStreamIndex($place);
        false !== $stream || throw Refused::archive($this->name, 'it is damaged');
        $hash = hash_init('sha256');
        $done = 0;
        while ('' !== $piece = (string) @fread($stream, OutFile::PIECE)) {
            $done += \strlen($piece);
            $done <= $size || throw Refused::archive($this->name, "“{$entry}” is larger than it says");
            hash_update($hash, $piece);
            $to->write($piece);
            $tick();
        }
        fclose($stream);
        $to->close();

        return $done === $size ? hash_final($hash) : throw Refused::archive($this->name, "“{$entry}” cannot be read to its end");
    }

    private function project(): Contents
    {
        try {
            $project = Fields::of(json_decode($this->json('project.json'), true));
            self::FORMAT === $project->string('format') && 1 === $project->int('version') || throw Refused::archive($this->name, 'it was made by a newer version');
            $media = array_map(static fn (Fields $source): MediaEntry => new MediaEntry($source->string('file'), self::base($source->string('name')), $source->string('id'), $source->string('sha256')), $project->objects('sources', self::MOST_ENTRIES));
            $snapshots = $this->snapshots($project);
        } catch (Problem $problem) {
            throw Refused::archive($this->name, lcfirst(rtrim($problem->getMessage(), '.')));
        }

        return new Contents($this->name, $media, $this->json('mix.json'), $snapshots, null);
    }

    /**
     * @return list<array{string, string}> name and mix JSON
     *
     * @throws Problem|Refused
     */
    private function snapshots(Fields $project): array
    {
        $snapshots = [];
        $bytes = 0;
        foreach ($project->objects('snapshots', self::MOST_ENTRIES) as $snapshot) {
            $mix = $this->json($snapshot->string('file'));
            $bytes += \strlen($mix);
            $bytes <= self::MOST_MIXES || throw Refused::archive($this->name, 'its snapshots are too large');
            $snapshots[] = [$snapshot->string('name'), $mix];
        }

        return $snapshots;
    }

    private function bundle(): Contents
    {
        $media = [];
        foreach (array_keys($this->entries) as $entry) {
            $entry = (string) $entry;
            str_starts_with($entry, 'media/') && $media[] = new MediaEntry($entry, self::base($entry), $entry, null);
        }

        return new Contents($this->name, $media, null, [], $this->text('content.otio'));
    }

    /** @return string an object or a list, as text: many are kept, and few are looked at */
    private function json(string $entry): string
    {
        $text = $this->text($entry);
        substr_count($text, '{') + substr_count($text, '[') <= self::MOST_PARTS || throw Refused::archive($this->name, "“{$entry}” in it is too large");

        return \is_array(json_decode($text, true, 32)) ? $text : throw Refused::archive($this->name, "“{$entry}” in it is damaged");
    }

    private function text(string $entry): string
    {
        [$place, $size] = $this->entries[$entry] ?? throw Refused::archive($this->name, "“{$entry}” is missing from it");
        $size <= self::MOST_TEXT || throw Refused::archive($this->name, "“{$entry}” in it is too large");
        $text = $this->zip->getFromIndex($place, $size);

        return false !== $text && \strlen($text) === $size ? $text : throw Refused::archive($this->name, "“{$entry}” in it is damaged");
    }

    /** @param array{name: string, size: int, encryption_method: int} $stat */
    private static function check(ZipArchive $zip, int $place, array $stat, string $name): void
    {
        $entry = $stat['name'];
        $leadsOut = str_starts_with($entry, '/') || str_contains($entry, '\\') || 1 === preg_match('~(^|/)\.\.(/|$)|^[A-Za-z]:|[\x00-\x1F]~', $entry) || \strlen($entry) > 400;
        $leadsOut && throw Refused::archive($name, 'names in it lead out of it');
        ZipArchive::EM_NONE === $stat['encryption_method'] || throw Refused::archive($name, 'it is encrypted');
        $system = $attributes = 0;
        $known = $zip->getExternalAttributesIndex($place, $system, $attributes);
        $known && ZipArchive::OPSYS_UNIX === $system && \is_int($attributes) && self::LINK === (($attributes >> 16) & self::KIND) && throw Refused::archive($name, 'there are links in it');
    }

    private static function base(string $name): string
    {
        return trim((string) preg_replace(['~^.*[/\\\\]~s', '~^\d{3} ~'], '', $name));
    }
}
