<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Problem;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\DuckKind;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\DuckTiming;

/** A rule of ducking in the mix JSON. Times are in seconds, spans in samples. */
final class RuleDocument
{
    /** @throws Problem */
    public static function read(Fields $fields, int $rate): DuckRule
    {
        $fields->onlyHave('id', 'name', 'triggers', 'clips', 'targets', 'depth', 'clearance', 'deepest', 'sensitivity', 'lead', 'fall', 'rise', 'hold', 'bridge', 'ignore', 'added', 'dropped', 'follows', 'kind', 'part', 'clarity', 'moving', 'addsUp', 'breaths');
        $usual = DuckTiming::usual($rate);
        $kind = $fields->choice('kind', DuckKind::class, DuckKind::Under);
        $samplesOf = static fn (string $name, int $samples, float $least = 0.0): int => (int) round($rate * $fields->float($name, $least, DuckTiming::LONGEST_SECONDS, $samples / $rate));

        return new DuckRule(
            $fields->string('id'),
            $fields->string('name'),
            $fields->has('triggers') ? $fields->names('triggers') : [],
            $fields->has('clips') ? $fields->names('clips') : [],
            $fields->names('targets'),
            $fields->has('depth') || DuckKind::Under !== $kind ? $fields->float('depth', DuckRule::DEEPEST, DuckRule::SHALLOWEST) : null,
            $fields->float('clearance', Aim::LEAST_CLEARANCE, Aim::MOST_CLEARANCE, 15.0),
            $fields->float('deepest', DuckRule::DEEPEST, DuckRule::SHALLOWEST, -30.0),
            $fields->has('sensitivity') ? $fields->float('sensitivity', Aim::LEAST_SENSITIVITY, Aim::MOST_SENSITIVITY) : null,
            new DuckTiming(
                $samplesOf('lead', $usual->lead),
                $samplesOf('fall', $usual->fall, 0.005),
                $samplesOf('rise', $usual->rise, 0.005),
                $samplesOf('hold', $usual->hold),
                $samplesOf('bridge', $usual->bridge),
                $samplesOf('ignore', $usual->ignore),
            ),
            $fields->has('added') ? LanesDocument::spans($fields, 'added') : [],
            $fields->has('dropped') ? LanesDocument::spans($fields, 'dropped') : [],
            $fields->bool('follows', false),
            $kind,
            $fields->choice('part', DuckPart::class, DuckPart::All),
            $fields->has('clarity') ? $fields->float('clarity', 0, 100) : null,
            $fields->bool('moving', false),
            $fields->bool('addsUp', false),
            $fields->bool('breaths', true),
        );
    }

    /** @return array<string, mixed> */
    public static function toArray(DuckRule $rule, int $rate): array
    {
        $timing = $rule->timing;

        return [
            'id' => $rule->id,
            'name' => $rule->name,
            'triggers' => $rule->triggers,
            'clips' => $rule->clips,
            'targets' => $rule->targets,
            ...(null === $rule->depth ? [] : ['depth' => $rule->depth]),
            'clearance' => $rule->clearance,
            'deepest' => $rule->deepest,
            ...(null === $rule->sensitivity ? [] : ['sensitivity' => $rule->sensitivity]),
            ...array_map(static fn (int $samples): float => $samples / $rate, ['lead' => $timing->lead, 'fall' => $timing->fall, 'rise' => $timing->rise, 'hold' => $timing->hold, 'bridge' => $timing->bridge, 'ignore' => $timing->ignore]),
            'added' => LanesDocument::spansToArray($rule->added),
            'dropped' => LanesDocument::spansToArray($rule->dropped),
            'follows' => $rule->follows,
            ...(DuckKind::Under === $rule->kind ? [] : ['kind' => $rule->kind->value]),
            ...(DuckPart::All === $rule->part ? [] : ['part' => $rule->part->value]),
            ...(null === $rule->clarity ? [] : ['clarity' => $rule->clarity]),
            ...array_filter(['moving' => $rule->moving, 'addsUp' => $rule->addsUp]),
            ...($rule->breaths ? [] : ['breaths' => false]),
        ];
    }
}
