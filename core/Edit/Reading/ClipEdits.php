<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Reading;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\ChangeClipGain;
use Wattage\Core\Edit\CrossOver;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\FadeEdge;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\OpenChannels;
use Wattage\Core\Edit\PasteLevels;
use Wattage\Core\Edit\ResetClips;
use Wattage\Core\Edit\ResetPart;
use Wattage\Core\Edit\SetChannel;
use Wattage\Core\Edit\SetChannels;
use Wattage\Core\Edit\SetClipGain;
use Wattage\Core\Edit\SetClipGains;
use Wattage\Core\Edit\SetCurves;
use Wattage\Core\Edit\SetFade;
use Wattage\Core\Edit\SpreadLevel;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Levels;
use Wattage\Core\Timeline\Side;

/** Edits of the levels of whole clips: gain, fades, channels. */
final class ClipEdits
{
    public static function read(string $kind, EditFields $read): ?Edit
    {
        $fields = $read->fields;

        return match ($kind) {
            'set-clip-gain' => new SetClipGain($read->clips(), $fields->level('gain')),
            'set-clip-gains' => new SetClipGains(self::gains($read)),
            'set-curves' => new SetCurves(self::curves($read)),
            'change-clip-gain' => new ChangeClipGain($read->clips(), $read->difference('by')),
            'spread-level' => new SpreadLevel($fields->string('clip'), $read->clips()),
            'paste-levels' => new PasteLevels($read->clips(), self::levels($read)),
            'reset-clips' => new ResetClips($read->clips(), self::parts($read)),
            'set-fade' => new SetFade($read->clips(), $fields->choice('edge', FadeEdge::class), $read->length('length'), self::shape($read)),
            'cross-over' => new CrossOver($fields->string('earlier'), $fields->string('later'), $read->length('length'), self::shape($read)),
            'set-channels' => new SetChannels($read->clips(), $fields->choice('mode', ChannelMode::class)),
            'open-channels' => new OpenChannels($read->clips(), $fields->bool('open')),
            'set-channel' => self::setChannel($read),
            default => null,
        };
    }

    /** @return non-empty-array<string, Decibels> by clip */
    private static function gains(EditFields $read): array
    {
        $gains = [];
        foreach ($read->fields->objects('gains', EditFields::MAX_AT_ONCE) as $fields) {
            $gains[$fields->string('clip')] = $fields->level('gain');
        }

        return [] === $gains ? throw InvalidDocument::wrongType('gains', 'a list with at least one entry') : $gains;
    }

    /** @return non-empty-array<string, Curve> by clip */
    private static function curves(EditFields $read): array
    {
        $curves = [];
        foreach ($read->fields->objects('curves', 500) as $fields) {
            $curves[$fields->string('clip')] = MixDocument::curve($fields);
        }

        return [] === $curves ? throw InvalidDocument::wrongType('curves', 'a list with at least one entry') : $curves;
    }

    private static function shape(EditFields $read): ?FadeShape
    {
        return $read->fields->has('shape') ? $read->fields->choice('shape', FadeShape::class) : null;
    }

    private static function setChannel(EditFields $read): SetChannel
    {
        $fields = $read->fields;
        $fields->has('gain') || $fields->has('muted') || throw InvalidEdit::nothingToSet('gain, muted');

        return new SetChannel($fields->string('clip'), $fields->choice('channel', Side::class), $fields->has('gain') ? $fields->level('gain') : null, $fields->has('muted') ? $fields->bool('muted') : null);
    }

    private static function levels(EditFields $read): Levels
    {
        $fields = $read->fields;
        $fields->has('gain') || $fields->has('curve') || $fields->has('fadeIn') || $fields->has('fadeOut') || throw InvalidEdit::nothingToSet('gain, curve, fadeIn, fadeOut');

        return new Levels(
            $fields->has('gain') ? $fields->level('gain') : null,
            $fields->has('curve') ? MixDocument::curve($fields) : null,
            $fields->has('fadeIn') ? MixDocument::fade($fields->object('fadeIn')) : null,
            $fields->has('fadeOut') ? MixDocument::fade($fields->object('fadeOut')) : null,
        );
    }

    /** @return non-empty-list<ResetPart> */
    private static function parts(EditFields $read): array
    {
        return array_map(
            static fn (string $part): ResetPart => ResetPart::tryFrom($part) ?? throw InvalidDocument::wrongType('parts', 'a list of gain, curve, fades, channels'),
            $read->names('parts'),
        );
    }
}
