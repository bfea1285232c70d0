<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use Aws\S3\Exception\S3Exception;
use Aws\S3\S3Client;

/** A file in an S3 store. What follows a short range is fetched with it, since sound is mostly read in order. */
final class S3Bytes implements StoredBytes
{
    private const AHEAD = 1 << 20;

    private ?int $size = null;
    private string $known = '';
    private int $knownFrom = 0;

    public function __construct(private readonly S3Client $client, private readonly string $bucket, private readonly string $key, private readonly string $path)
    {
    }

    public function size(): int
    {
        try {
            return $this->size ??= (int) $this->client->headObject(['Bucket' => $this->bucket, 'Key' => $this->key])->get('ContentLength');
        } catch (S3Exception) {
            throw new MissingFile($this->path);
        }
    }

    public function read(int $from, int $length): string
    {
        if ($length < 1 || $from >= $this->size()) {
            return '';
        }
        $length = min($length, $this->size() - $from);
        if ($from < $this->knownFrom || $from + $length > $this->knownFrom + \strlen($this->known)) {
            $to = min($this->size(), $from + max($length, self::AHEAD)) - 1;
            $found = $this->client->getObject(['Bucket' => $this->bucket, 'Key' => $this->key, 'Range' => "bytes={$from}-{$to}"]);
            $this->known = (string) $found->get('Body');
            $this->knownFrom = $from;
        }

        return substr($this->known, $from - $this->knownFrom, $length);
    }

    /** Its connection is one process's own. */
    public function apart(): null
    {
        return null;
    }
}
