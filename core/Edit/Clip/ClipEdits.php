<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Interchange\ClipDocument;
use Wattage\Core\Interchange\ColourDocument;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Levels;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Side;

/** Edits of whole clips: gain, fades, channels, names, sound. */
final class ClipEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'set-clip-gain' => static fn (EditFields $read): Edit => new SetClipGain($read->clips(), $read->fields->level('gain')),
            'set-clip-gains' => static fn (EditFields $read): Edit => new SetClipGains(self::gains($read)),
            'set-curves' => static fn (EditFields $read): Edit => new SetCurves(self::curves($read)),
            'change-clip-gain' => static fn (EditFields $read): Edit => new ChangeClipGain($read->clips(), $read->difference('by')),
            'spread-level' => static fn (EditFields $read): Edit => new SpreadLevel($read->fields->string('clip'), $read->clips()),
            'paste-levels' => static fn (EditFields $read): Edit => new PasteLevels($read->clips(), self::levels($read)),
            'reset-clips' => static fn (EditFields $read): Edit => new ResetClips($read->clips(), self::parts($read)),
            'set-fade' => static fn (EditFields $read): Edit => new SetFade($read->clips(), $read->fields->choice('edge', FadeEdge::class), $read->length('length'), self::shape($read)),
            'cross-over' => static fn (EditFields $read): Edit => new CrossOver($read->fields->string('earlier'), $read->fields->string('later'), $read->length('length'), self::shape($read)),
            'set-channels' => static fn (EditFields $read): Edit => new SetChannels($read->clips(), $read->fields->choice('mode', ChannelMode::class)),
            'open-channels' => static fn (EditFields $read): Edit => new OpenChannels($read->clips(), $read->fields->bool('open')),
            'set-channel' => static fn (EditFields $read): Edit => self::setChannel($read),
            'rename-clip' => static fn (EditFields $read): Edit => new RenameClip($read->fields->string('clip'), Name::check($read->fields->string('name'))),
            'replace-sound' => static fn (EditFields $read): Edit => new ReplaceSound($read->fields->string('clip'), $read->source()),
            'set-clip-colours' => static fn (EditFields $read): Edit => new SetClipColours(self::colours($read)),
            'set-clips-muted' => static fn (EditFields $read): Edit => new SetClipsMuted($read->clips(), $read->fields->bool('muted')),
        ];
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

    /** @return non-empty-array<string, Colour> by clip */
    private static function colours(EditFields $read): array
    {
        $colours = [];
        foreach ($read->fields->objects('colours', EditFields::MAX_AT_ONCE) as $fields) {
            $colours[$fields->string('clip')] = ColourDocument::read($fields->object('colour'));
        }

        return [] === $colours ? throw InvalidDocument::wrongType('colours', 'a list with at least one entry') : $colours;
    }

    /** @return non-empty-array<string, Curve> by clip */
    private static function curves(EditFields $read): array
    {
        $curves = [];
        foreach ($read->fields->objects('curves', 500) as $fields) {
            $curves[$fields->string('clip')] = CurveDocument::read($fields);
        }

        return [] === $curves ? throw InvalidDocument::wrongType('curves', 'a list with at least one entry') : $curves;
    }

    private static function levels(EditFields $read): Levels
    {
        $fields = $read->fields;
        $fields->has('gain') || $fields->has('curve') || $fields->has('fadeIn') || $fields->has('fadeOut') || throw InvalidEdit::nothingToSet('gain, curve, fadeIn, fadeOut');

        return new Levels(
            $fields->has('gain') ? $fields->level('gain') : null,
            $fields->has('curve') ? CurveDocument::read($fields) : null,
            $fields->has('fadeIn') ? ClipDocument::fade($fields->object('fadeIn')) : null,
            $fields->has('fadeOut') ? ClipDocument::fade($fields->object('fadeOut')) : null,
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
}
