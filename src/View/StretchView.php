<?php

declare(strict_types=1);

namespace Wattage\App\View;

use LogicException;
use Wattage\Core\Curve\Factor;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Fade\FadeRamp;

/** A stretch of gain as the player gets it. */
final class StretchView
{
    /** @return array<string, mixed> */
    public static function of(Stretch $stretch): array
    {
        $numbers = $stretch->inGain || 0.0 === $stretch->bend ? [$stretch->base, $stretch->slope] : [$stretch->base, $stretch->slope, $stretch->bend];

        return [
            'from' => $stretch->from,
            'to' => $stretch->to,
            $stretch->inGain ? 'gain' : 'db' => $numbers,
            ...($stretch->isSampled() ? ['grid' => $stretch->grid] : []),
            ...([] === $stretch->factors ? [] : ['factors' => array_map(self::factor(...), $stretch->factors)]),
        ];
    }

    /** @return array<string, mixed> */
    private static function factor(Factor $factor): array
    {
        return match (true) {
            $factor instanceof FadeRamp => ['from' => $factor->from, 'to' => $factor->to, 'fade' => $factor->fade->shape->value, 'falling' => $factor->falling, 'window' => [$factor->fade->windowFrom, $factor->fade->windowTo]],
            $factor instanceof Stretch => self::of($factor),
            default => throw new LogicException('A factor that the player does not know.'),
        };
    }
}
