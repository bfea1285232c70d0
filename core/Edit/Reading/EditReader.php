<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Reading;

use Closure;
use Wattage\Core\Edit\Clip\ClipEdits;
use Wattage\Core\Edit\Cut\CutEdits;
use Wattage\Core\Edit\Desk\DeskEdits;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Keyframe\KeyframeEdits;
use Wattage\Core\Edit\Lane\LaneEdits;
use Wattage\Core\Edit\Layout\LayoutEdits;
use Wattage\Core\Edit\Picture\PictureEdits;
use Wattage\Core\Edit\Range\RangeEdits;
use Wattage\Core\Edit\Source\SourceEdits;
use Wattage\Core\Edit\Speech\SpeechEdits;
use Wattage\Core\Edit\Track\TrackEdits;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Makes edits from their JSON form, {"edit": "dip-range", …}; docs/edits.yaml says which there are, and what they take. */
final readonly class EditReader
{
    /** @param array<string, Source> $sources what may be placed besides the sources of the mix, by id */
    public function __construct(private Mix $mix, private array $sources = [])
    {
    }

    /** @throws Problem naming the field that is wrong */
    public function read(mixed $json): Edit
    {
        $fields = Fields::watched($json);
        $read = self::readers()[$fields->string('edit')] ?? throw InvalidEdit::unknownKind($fields->string('edit'));
        $edit = $read(new EditFields($fields, $this->mix, $this->sources));
        $fields->nothingElse();

        return $edit;
    }

    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            ...TrackEdits::readers(),
            ...SourceEdits::readers(),
            ...LayoutEdits::readers(),
            ...PictureEdits::readers(),
            ...CutEdits::readers(),
            ...ClipEdits::readers(),
            ...KeyframeEdits::readers(),
            ...RangeEdits::readers(),
            ...DeskEdits::readers(),
            ...LaneEdits::readers(),
            ...SpeechEdits::readers(),
        ];
    }
}
