<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** What people call a track, a clip or a source; and the ids that programs call them by. */
final class Name
{
    public const MAX = 200;

    /** @throws InvalidMix */
    public static function check(string $name, string $field = 'name'): string
    {
        $trimmed = trim($name);
        $sound = mb_check_encoding($trimmed, 'UTF-8') && 1 !== preg_match('/[\p{Cc}\x{202A}-\x{202E}\x{2066}-\x{2069}]/u', $trimmed);

        return $sound && '' !== $trimmed && mb_strlen($trimmed) <= self::MAX ? $trimmed : throw InvalidMix::badName($field);
    }

    /** @throws InvalidMix */
    public static function checkId(string $id, string $field = 'id'): string
    {
        return 1 === preg_match('/^(?!-?\d+$)[A-Za-z0-9_-]{1,64}$/D', $id) ? $id : throw InvalidMix::badId($field);
    }
}
