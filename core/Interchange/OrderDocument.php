<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Handover\Excerpt;
use Wattage\Core\Handover\ExcerptKind;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\Target;
use Wattage\Core\Problem;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Stem;

/** What a file that is handed over is to be, as JSON. */
final class OrderDocument
{
    /** @throws Problem */
    public static function read(Fields $fields): FileOrder
    {
        $fields->onlyHave('format', 'bits', 'kbps', 'rate', 'channels', 'part', 'stem', 'track', 'range', 'target', 'asProgramme');
        $format = $fields->choice('format', FileFormat::class);
        [$least, $usual, $most] = $format->kbps();
        $sizes = $format->bits();

        return new FileOrder(
            $format,
            [] === $sizes ? 0 : $fields->int('bits', 16, 32, $sizes[1]),
            0 === $most ? 0 : $fields->int('kbps', $least, $most, $usual),
            $fields->int('rate', 8000, 192_000, 48_000),
            $fields->int('channels', 1, 2, 2),
            self::excerpt($fields),
            self::target($fields),
            $fields->bool('asProgramme', false),
        );
    }

    /** @return array<string, mixed> */
    public static function toArray(FileOrder $order): array
    {
        $excerpt = $order->excerpt;

        return [
            'format' => $order->format->value,
            ...([] === $order->format->bits() ? [] : ['bits' => $order->bits]),
            ...(0 === $order->kbps ? [] : ['kbps' => $order->kbps]),
            'rate' => $order->rate,
            'channels' => $order->channels,
            'part' => $excerpt->kind->value,
            ...(null === $excerpt->stem ? [] : ['stem' => $excerpt->stem->value]),
            ...(null === $excerpt->track ? [] : ['track' => $excerpt->track]),
            ...(null === $excerpt->range ? [] : ['range' => ['from' => $excerpt->range->from, 'to' => $excerpt->range->to]]),
            ...(null === $order->target ? [] : ['target' => ['loudness' => $order->target->loudness, 'truePeak' => $order->target->truePeak]]),
            'asProgramme' => $order->asProgramme,
        ];
    }

    /** @throws Problem */
    private static function excerpt(Fields $fields): Excerpt
    {
        $range = null;
        if ($fields->has('range')) {
            $span = $fields->object('range');
            $span->onlyHave('from', 'to');
            $range = Span::of($span->int('from'), $span->int('to', 1));
        }

        return match ($fields->choice('part', ExcerptKind::class, ExcerptKind::Programme)) {
            ExcerptKind::Programme => Excerpt::programme($range),
            ExcerptKind::Stem => Excerpt::stem($fields->choice('stem', Stem::class), $range),
            ExcerptKind::Without => Excerpt::without($fields->choice('stem', Stem::class), $range),
            ExcerptKind::Track => Excerpt::track($fields->string('track'), $range),
        };
    }

    /** @return ?Target null for that of the project @throws Problem */
    private static function target(Fields $fields): ?Target
    {
        if (!$fields->has('target')) {
            return null;
        }
        $target = $fields->object('target');
        $target->onlyHave('loudness', 'truePeak');
        // The bounds that count are those of a target, which says them in its own words.
        $number = static fn (string $name): ?float => $target->isNumber($name) ? $target->float($name, -1000.0, 1000.0) : null;

        return Target::of($number('loudness'), $number('truePeak'));
    }
}
