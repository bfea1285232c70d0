<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

/**
 * What differs between two JSON values, as JSON. Applied to the first it gives the second exactly, whatever made the two differ; it is small
 * where little differs, also where something stands in the middle of a long list.
 *
 *     {"=": value}                      another value
 *     {"{": {name: difference}, "-": [name]}   members of an object
 *     {"id": {id: difference}, "-": [id], "+": [value], "order": [id]}   a list of things that have ids
 *     {"[": {place: difference}}        a list of the same length
 *     {"#": [from, count, [value]]}     some of a list in place of others
 */
final class Difference
{
    /** @return ?array<array-key, mixed> null where there is none */
    public static function between(mixed $a, mixed $b): ?array
    {
        return match (true) {
            $a === $b => null,
            !\is_array($a), !\is_array($b), [] === $a, [] === $b => ['=' => $b],
            array_is_list($a) !== array_is_list($b) => ['=' => $b],
            !array_is_list($a) => self::ofObjects($a, $b),
            null !== ($old = self::byId($a)) && null !== ($new = self::byId($b)) => self::ofThings($old, $new),
            default => self::ofLists($a, array_values($b)),
        };
    }

    /** @param ?array<array-key, mixed> $difference as {@see between()} gives it */
    public static function applied(mixed $a, ?array $difference): mixed
    {
        if (null === $difference) {
            return $a;
        }
        if (\array_key_exists('=', $difference)) {
            return $difference['='];
        }
        $a = \is_array($a) ? $a : [];
        if (isset($difference['#'])) {
            [$from, $count, $values] = self::splice($difference['#']);
            array_splice($a, $from, $count, $values);

            return $a;
        }
        if (isset($difference['id'])) {
            return self::things(self::byId($a) ?? [], $difference);
        }

        return self::members($a, $difference['{'] ?? $difference['['] ?? [], $difference['-'] ?? []);
    }

    /**
     * @param array<array-key, mixed> $a
     * @param array<array-key, mixed> $b
     *
     * @return ?array<string, mixed>
     */
    private static function ofObjects(array $a, array $b): ?array
    {
        $changed = [];
        foreach ($b as $name => $value) {
            $difference = \array_key_exists($name, $a) ? self::between($a[$name], $value) : ['=' => $value];
            if (null !== $difference) {
                $changed[$name] = $difference;
            }
        }
        $gone = array_map(strval(...), array_keys(array_diff_key($a, $b)));

        return [] === $changed && [] === $gone ? null : ['{' => $changed, ...([] === $gone ? [] : ['-' => $gone])];
    }

    /**
     * @param array<array-key, mixed> $old by id
     * @param array<array-key, mixed> $new by id
     *
     * @return ?array<string, mixed>
     */
    private static function ofThings(array $old, array $new): ?array
    {
        $changed = [];
        foreach (array_intersect_key($new, $old) as $id => $thing) {
            $difference = self::between($old[$id], $thing);
            if (null !== $difference) {
                $changed[$id] = $difference;
            }
        }
        $gone = array_map(strval(...), array_keys(array_diff_key($old, $new)));
        $added = array_values(array_diff_key($new, $old));
        $order = array_map(strval(...), array_keys($new));
        $usual = array_map(strval(...), array_keys(array_intersect_key($old, $new) + $new));
        $found = ['id' => $changed, ...([] === $gone ? [] : ['-' => $gone]), ...([] === $added ? [] : ['+' => $added]), ...($order === $usual ? [] : ['order' => $order])];

        return ['id' => []] === $found ? null : $found;
    }

    /**
     * What both have at the start and at the end stays.
     *
     * @param array<array-key, mixed> $a
     * @param list<mixed> $b
     *
     * @return array<string, mixed>
     */
    private static function ofLists(array $a, array $b): array
    {
        $a = array_values($a);
        if (\count($a) === \count($b)) {
            $changed = [];
            foreach ($b as $i => $value) {
                $difference = self::between($a[$i], $value);
                if (null !== $difference) {
                    $changed[$i] = $difference;
                }
            }

            return ['[' => $changed];
        }
        $shorter = min(\count($a), \count($b));
        for ($from = 0; $from < $shorter && $a[$from] === $b[$from]; ++$from) {
        }
        for ($kept = 0; $kept < $shorter - $from && $a[\count($a) - 1 - $kept] === $b[\count($b) - 1 - $kept]; ++$kept) {
        }

        return ['#' => [$from, \count($a) - $from - $kept, \array_slice($b, $from, \count($b) - $from - $kept)]];
    }

    /**
     * @param array<array-key, mixed> $known by id
     * @param array<array-key, mixed> $difference
     *
     * @return list<mixed>
     */
    private static function things(array $known, array $difference): array
    {
        $things = self::members($known, $difference['id'] ?? [], $difference['-'] ?? []);
        $things += self::byId(\is_array($difference['+'] ?? null) ? $difference['+'] : []) ?? [];
        if (isset($difference['order']) && \is_array($difference['order'])) {
            $things = array_replace(array_flip(array_filter($difference['order'], is_string(...))), $things);
        }

        return array_values($things);
    }

    /**
     * @param array<array-key, mixed> $known
     *
     * @return array<array-key, mixed>
     */
    private static function members(array $known, mixed $changed, mixed $gone): array
    {
        foreach (\is_array($gone) ? $gone : [] as $name) {
            if (\is_string($name)) {
                unset($known[$name]);
            }
        }
        foreach (\is_array($changed) ? $changed : [] as $name => $difference) {
            $known[$name] = self::applied($known[$name] ?? null, \is_array($difference) ? $difference : null);
        }

        return $known;
    }

    /**
     * @param array<array-key, mixed> $list
     *
     * @return ?array<array-key, mixed> null where not all have an id of their own
     */
    private static function byId(array $list): ?array
    {
        $things = [];
        foreach ($list as $thing) {
            $id = \is_array($thing) ? $thing['id'] ?? null : null;
            if (!\is_string($id) || isset($things[$id])) {
                return null;
            }
            $things[$id] = $thing;
        }

        return $things;
    }

    /** @return array{int, int, list<mixed>} */
    private static function splice(mixed $difference): array
    {
        [$from, $count, $values] = \is_array($difference) ? [...array_values($difference), null, null, null] : [null, null, null];

        return [\is_int($from) ? $from : 0, \is_int($count) ? $count : 0, \is_array($values) ? array_values($values) : []];
    }
}
