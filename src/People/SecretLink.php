<?php

declare(strict_types=1);

namespace Wattage\App\People;

/** A token that goes out in a link, and of which only the hash is kept here. */
final readonly class SecretLink
{
    private function __construct(public string $token)
    {
    }

    public static function fresh(): self
    {
        return new self(rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '='));
    }

    public static function hashOf(string $token): string
    {
        return hash('sha256', $token);
    }

    public function hash(): string
    {
        return self::hashOf($this->token);
    }
}
