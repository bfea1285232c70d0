<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use Aws\S3\S3Client;
use Closure;
use League\Flysystem\AwsS3V3\AwsS3V3Adapter;
use League\Flysystem\Config;
use League\Flysystem\FileAttributes;
use League\Flysystem\Filesystem;

/** Anything that speaks S3. Ranges are asked for as ranges; large files are sent in parts. */
final readonly class S3Store implements Store
{
    private const SECONDS_VALID = '+6 hours';
    private const PART_BYTES = 32 << 20;

    private Filesystem $files;

    public function __construct(private S3Client $client, private string $bucket, private string $prefix)
    {
        $this->files = new Filesystem(new AwsS3V3Adapter($client, $bucket, $prefix));
    }

    public function put(string $path, string $localFile, ?Closure $tick = null): void
    {
        $stream = fopen($localFile, 'r') ?: throw new MissingFile($localFile);
        $options = ['mup_threshold' => self::PART_BYTES, 'part_size' => self::PART_BYTES, 'before_upload' => static fn () => null === $tick || $tick()];
        $this->files->writeStream($path, $stream, $options);
        \is_resource($stream) && fclose($stream);
        unlink($localFile);
    }

    public function write(string $path, string $bytes): void
    {
        $this->files->write($path, $bytes, [Config::OPTION_VISIBILITY => 'private']);
    }

    public function open(string $path): StoredBytes
    {
        return new S3Bytes($this->client, $this->bucket, $this->key($path), $path);
    }

    public function has(string $path): bool
    {
        return $this->files->fileExists($path);
    }

    public function delete(string $path): void
    {
        $this->files->delete($path);
    }

    public function deleteAll(string $directory): void
    {
        $this->files->deleteDirectory($directory);
    }

    public function files(string $directory): iterable
    {
        foreach ($this->files->listContents($directory, true) as $found) {
            if ($found instanceof FileAttributes) {
                yield $found->path() => $found->lastModified() ?? 0;
            }
        }
    }

    public function freeBytes(): ?int
    {
        return null;
    }

    public function address(string $path, array $as): ?string
    {
        $command = $this->client->getCommand('GetObject', [
            'Bucket' => $this->bucket,
            'Key' => $this->key($path),
            'ResponseContentType' => $as['type'],
            ...(isset($as['disposition']) ? ['ResponseContentDisposition' => $as['disposition']] : []),
        ]);

        return (string) $this->client->createPresignedRequest($command, self::SECONDS_VALID)->getUri();
    }

    private function key(string $path): string
    {
        return ltrim("{$this->prefix}/{$path}", '/');
    }
}
