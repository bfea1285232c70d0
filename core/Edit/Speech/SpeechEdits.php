<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Closure;
use Wattage\Core\Captions\CaptionFile;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Edits of what is known of speech, and of what is ducked beneath it. */
final class SpeechEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'set-captions' => static fn (EditFields $read): Edit => self::setCaptions($read),
            'accept-buried' => static fn (EditFields $read): Edit => new AcceptBuried($read->span(), $read->fields->has('note') ? $read->fields->string('note') : null),
            'duck' => static fn (EditFields $read): Edit => self::duck($read),
            'mark-speech' => static fn (EditFields $read): Edit => new MarkSpeech($read->names('tracks'), $read->span(), self::heardAs($read)),
            'release-held' => static fn (EditFields $read): Edit => new ReleaseHeld($read->fields->string('track'), self::range($read)),
            'set-part-in-ducking' => static fn (EditFields $read): Edit => self::partInDucking($read),
        ];
    }

    private static function setCaptions(EditFields $read): SetCaptions
    {
        $text = $read->fields->string('text');
        if ('' === $text) {
            return new SetCaptions([]);
        }
        $file = CaptionFile::read($text, $read->mix->rate);

        return new SetCaptions($file->cues, \count($file->leftOut));
    }

    private static function duck(EditFields $read): Duck
    {
        $fields = $read->fields;
        $lanes = $bands = [];
        foreach ($fields->objects('lanes', Mix::MAX_TRACKS) as $lane) {
            [$all, $band] = [CurveDocument::read($lane), $lane->has('band') ? CurveDocument::read($lane, 'band') : null];
            foreach ($lane->strings('tracks') as $track) {
                $lanes[$track] = $all;
                null === $band || $bands[$track] = $band;
            }
        }

        return new Duck(
            $fields->has('rule') ? RuleDocument::read($fields->object('rule'), $read->mix->rate) : null,
            $fields->has('without') ? $fields->string('without') : null,
            $lanes,
            $bands,
        );
    }

    private static function heardAs(EditFields $read): ?bool
    {
        return match ($read->fields->string('as')) {
            'speech' => true,
            'other' => false,
            'found' => null,
            default => throw InvalidDocument::wrongType('as', 'speech, other or found'),
        };
    }

    private static function range(EditFields $read): ?Span
    {
        return $read->fields->has('from') ? $read->span() : null;
    }

    private static function partInDucking(EditFields $read): SetPartInDucking
    {
        $fields = $read->fields;
        $fields->has('triggers') || $fields->has('ducked') || throw InvalidEdit::nothingToSet('triggers, ducked');

        return new SetPartInDucking($read->clips(), $fields->has('triggers') ? $fields->bool('triggers') : null, $fields->has('ducked') ? $fields->bool('ducked') : null);
    }
}
