<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Says what is speech in the sources that sound in a range; it holds in every clip of them. */
final readonly class MarkSpeech implements Edit
{
    /**
     * @param non-empty-list<string> $tracks on which they sound
     * @param Span $range timeline samples
     * @param ?bool $speech null for as it is heard
     */
    public function __construct(private array $tracks, private Span $range, private ?bool $speech)
    {
    }

    public function label(Mix $before): string
    {
        $what = match ($this->speech) {
            true => 'This is speech, ',
            false => 'Nobody speaks here, ',
            null => 'Speech as it is heard, ',
        };

        return $what.Naming::span($before, $this->range);
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        $met = false;
        foreach ($this->tracks as $id) {
            foreach ($before->track($id)->clips as $clip) {
                $within = $clip->span()->within($this->range);
                if (null !== $within) {
                    $met = true;
                    $source = $after->source($clip->source);
                    $marks = $source->marks->marked($within->shifted($clip->in - $clip->at), $this->speech);
                    $after = $marks == $source->marks ? $after : $after->withSource($source->withMarks($marks));
                }
            }
        }

        return $met ? $after : throw InvalidEdit::nothingSounds();
    }
}
