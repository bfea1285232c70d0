<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\ChannelLevel;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Channels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\CutPart;
use Wattage\Core\Timeline\Side;

/** A clip as JSON has it, both ways: its level, fades, channels, colour, and where it stood in a cut. */
final class ClipDocument
{
    public static function read(Fields $fields): Clip
    {
        $fields->onlyHave('id', 'source', 'name', 'at', 'in', 'length', 'gain', 'curve', 'fadeIn', 'fadeOut', 'channels', 'detached', 'triggers', 'ducked', 'muted', 'cut', 'colour');

        return $fields->located(static fn (): Clip => new Clip(
            $fields->string('id'),
            $fields->string('source'),
            $fields->string('name'),
            $fields->int('at'),
            $fields->int('in'),
            $fields->int('length', 1),
            $fields->level('gain', default: Decibels::unchanged()),
            $fields->has('curve') ? CurveDocument::read($fields) : Curve::flat(),
            $fields->has('fadeIn') ? self::fade($fields->object('fadeIn')) : null,
            $fields->has('fadeOut') ? self::fade($fields->object('fadeOut')) : null,
            $fields->has('channels') ? self::channels($fields->object('channels')) : null,
            $fields->bool('detached', false),
            $fields->bool('triggers', true),
            $fields->bool('ducked', true),
            $fields->bool('muted', false),
            $fields->has('cut') ? self::cutPart($fields->object('cut'), $fields->string('source')) : null,
            $fields->has('colour') ? ColourDocument::read($fields->object('colour')) : null,
        ));
    }

    /** @return array<string, mixed> */
    public static function toArray(Clip $clip): array
    {
        return [
            'id' => $clip->id,
            'source' => $clip->source,
            'name' => $clip->name,
            'at' => $clip->at,
            'in' => $clip->in,
            'length' => $clip->length,
            'gain' => CurveDocument::levelToJson($clip->gain),
            'curve' => CurveDocument::toArray($clip->curve),
            ...($clip->fadeIn->isUsual() ? [] : ['fadeIn' => self::fadeToArray($clip->fadeIn)]),
            ...($clip->fadeOut->isUsual() ? [] : ['fadeOut' => self::fadeToArray($clip->fadeOut)]),
            ...($clip->channels->isUsual() ? [] : ['channels' => self::channelsToArray($clip->channels)]),
            ...($clip->detached ? ['detached' => true] : []),
            ...($clip->muted ? ['muted' => true] : []),
            ...($clip->triggers ? [] : ['triggers' => false]),
            ...($clip->ducked ? [] : ['ducked' => false]),
            ...($clip->colour == Colour::none() ? [] : ['colour' => ColourDocument::toArray($clip->colour)]),
            ...(null === $clip->cutPart ? [] : ['cut' => self::cutPartToArray($clip->cutPart, $clip->source)]),
        ];
    }

    /** @throws Problem */
    public static function fade(Fields $fields): Fade
    {
        $fields->onlyHave('length', 'shape', 'windowFrom', 'windowTo');

        return Fade::of($fields->int('length'), $fields->choice('shape', FadeShape::class, FadeShape::EqualPower), $fields->float('windowFrom', 0, 1, 0.0), $fields->float('windowTo', 0, 1, 1.0));
    }

    /** @return array<string, mixed> */
    public static function fadeToArray(Fade $fade): array
    {
        return ['length' => $fade->length, 'shape' => $fade->shape->value, ...($fade->isWhole() ? [] : ['windowFrom' => $fade->windowFrom, 'windowTo' => $fade->windowTo])];
    }

    private static function channels(Fields $fields): Channels
    {
        $fields->onlyHave('mode', 'left', 'right');
        $mode = $fields->choice('mode', ChannelMode::class, ChannelMode::Stereo);
        $opened = $fields->has('left') || $fields->has('right');

        return $opened ? Channels::opened($mode, self::channel($fields->object('left')), self::channel($fields->object('right'))) : Channels::closed($mode);
    }

    private static function channel(Fields $fields): ChannelLevel
    {
        $fields->onlyHave('gain', 'curve', 'muted');

        return new ChannelLevel(
            $fields->level('gain', default: Decibels::unchanged()),
            $fields->has('curve') ? CurveDocument::read($fields) : Curve::flat(),
            $fields->bool('muted', false),
        );
    }

    /** @return array<string, mixed> */
    private static function channelsToArray(Channels $channels): array
    {
        $opened = $channels->isOpen() ? array_combine(array_column(Side::cases(), 'value'), array_map(static fn (Side $side): array => self::channelToArray($channels->of($side)), Side::cases())) : [];

        return ['mode' => $channels->mode->value, ...$opened];
    }

    /** @return array<string, mixed> */
    private static function channelToArray(ChannelLevel $level): array
    {
        return ['gain' => CurveDocument::levelToJson($level->gain), 'curve' => CurveDocument::toArray($level->curve), 'muted' => $level->muted];
    }

    /** @param string $source that of the clip, where the part names no other */
    private static function cutPart(Fields $fields, string $source): CutPart
    {
        $fields->onlyHave('id', 'track', 'source', 'at', 'in', 'length');

        return new CutPart($fields->string('id'), $fields->string('track'), $fields->has('source') ? $fields->string('source') : $source, $fields->int('at'), $fields->int('in'), $fields->int('length', 1));
    }

    /** @return array<string, mixed> */
    private static function cutPartToArray(CutPart $part, string $source): array
    {
        return ['id' => $part->cut, 'track' => $part->track, ...($part->source === $source ? [] : ['source' => $part->source]), 'at' => $part->at, 'in' => $part->in, 'length' => $part->length];
    }
}
