<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Wattage\App\Entity\Delivery;
use Wattage\Core\Handover\Excerpt;
use Wattage\Core\Handover\ExcerptKind;
use Wattage\Core\Handover\NamePattern;
use Wattage\Core\Timeline\Mix;

/** What a file that is handed over is called. */
final class FileName
{
    /** @param ?Mix $mix to name a track by; null says only that it is one */
    public static function of(Delivery $delivery, ?Mix $mix = null): string
    {
        $order = $delivery->order();
        $loudness = $delivery->outcome['integrated'] ?? null;

        return (new NamePattern($delivery->pattern))->name([
            'project' => $delivery->project->name,
            'recipe' => $delivery->recipe,
            'part' => self::part($order->excerpt, $mix),
            'date' => $delivery->createdAt->format('Y-m-d'),
            'revision' => (string) $delivery->revision,
            'loudness' => \is_float($loudness) || \is_int($loudness) ? \sprintf('%.1f LUFS', $loudness) : '',
        ]).'.'.$order->format->ending();
    }

    public static function part(Excerpt $excerpt, ?Mix $mix): string
    {
        return match ($excerpt->kind) {
            ExcerptKind::Programme => '',
            ExcerptKind::Stem => $excerpt->stem->value ?? '',
            ExcerptKind::Without => 'without '.($excerpt->stem->value ?? ''),
            ExcerptKind::Track => $mix?->tracks[(string) $excerpt->track]->name ?? 'track',
        };
    }
}
