<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use Aws\S3\S3Client;
use LogicException;

/** Makes the store that the environment names. */
final class Stores
{
    /** @param string $place a directory, or s3://bucket/prefix?endpoint=http://…&region=…; keys are read from AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY */
    public static function at(string $place): Store
    {
        if (!str_starts_with($place, 's3://')) {
            return new LocalStore($place);
        }
        class_exists(S3Client::class) || throw new LogicException('WATTAGE_STORE names an S3 store, but the package for it is not installed. Run: composer require --no-update league/flysystem-aws-s3-v3 && composer update');
        $parts = parse_url($place);
        parse_str($parts['query'] ?? '', $options);
        $option = static fn (string $name, string $usual): string => \is_string($options[$name] ?? null) ? $options[$name] : $usual;

        return new S3Store(new S3Client([
            'region' => $option('region', 'us-east-1'),
            // Stores other than the first of their kind have an address of their own, and name the bucket in the path.
            ...('' === $option('endpoint', '') ? [] : ['endpoint' => $option('endpoint', ''), 'use_path_style_endpoint' => true]),
            // Older ones do not know the newer checksums.
            'request_checksum_calculation' => 'when_required',
            'response_checksum_validation' => 'when_required',
            'retries' => 4,
        ]), $parts['host'] ?? '', trim($parts['path'] ?? '', '/'));
    }
}
