<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Closure;
use Wattage\App\Media\FilmCoder;
use Wattage\Core\Handover\EmptyExcerpt;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Picture;
use Wattage\Core\Timeline\PictureStrip;

/**
 * The picture of a film that is handed over. One that is not cut is taken over as it is, frame by frame; several, cut or with gaps, are laid as the
 * timeline shows them and coded anew.
 */
final readonly class FilmPicture
{
    /** Pieces that one film may be laid of. */
    private const MOST = 300;

    public function __construct(private FilmCoder $coder)
    {
    }

    /**
     * @param Closure(string): string $original path of the file of a source, as it was sent
     * @param Closure(): mixed $tick called now and then
     *
     * @return string the path of a file without sound
     *
     * @throws EmptyExcerpt
     */
    public function make(FileFormat $format, Mix $mix, Span $span, string $work, Closure $original, Closure $tick): string
    {
        $pieces = self::within(PictureStrip::of($mix), $span);
        [] !== $pieces || throw EmptyExcerpt::noPicture();
        \count($pieces) <= self::MOST || throw EmptyExcerpt::tooManyPictures(self::MOST);
        $first = $this->coder->look($original($pieces[0]->source));
        $picture = "{$work}/picture.mp4";
        $begins = $pieces[0]->in / $mix->rate + $first->leadSeconds;
        if (1 === \count($pieces) && $pieces[0]->at === $span->from && abs($begins) < 0.5 / $first->framesPerSecond && $first->canBeCopied) {
            $this->coder->copy($original($pieces[0]->source), $span->length() / $mix->rate, $picture, $tick);

            return $picture;
        }
        $parts = [];
        $at = $span->from;
        foreach ($pieces as $piece) {
            $piece->at > $at && $parts[] = [null, 0.0, ($piece->at - $at) / $mix->rate];
            $file = $original($piece->source);
            $parts[] = [$file, $piece->in / $mix->rate + $this->coder->look($file)->leadSeconds, $piece->length / $mix->rate];
            $at = $piece->at + $piece->length;
        }
        $at < $span->to && $parts[] = [null, 0.0, ($span->to - $at) / $mix->rate];
        $this->coder->lay($parts, $first, $mix->frameRate, FileFormat::Matroska === $format, $picture, $tick);

        return $picture;
    }

    /**
     * @param list<Picture> $strip
     *
     * @return list<Picture>
     */
    private static function within(array $strip, Span $span): array
    {
        $within = [];
        foreach ($strip as $picture) {
            $part = $picture->span()->within($span);
            null === $part || $within[] = $picture->trimmedTo($part);
        }

        return $within;
    }
}
