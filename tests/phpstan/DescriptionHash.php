<?php

declare(strict_types=1);

namespace Wattage\Tests\phpstan;

use PHPStan\Analyser\ResultCache\ResultCacheMetaExtension;

/** Has everything looked at again where the description of the API has changed. */
final readonly class DescriptionHash implements ResultCacheMetaExtension
{
    public function getKey(): string
    {
        return 'description of the API';
    }

    public function getHash(): string
    {
        return hash_file('xxh128', ApiTypes::DESCRIPTION).hash_file('xxh128', ApiTypes::EDITS);
    }
}
