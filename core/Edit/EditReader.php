<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Edit\Reading\ClipEdits;
use Wattage\Core\Edit\Reading\DeskEdits;
use Wattage\Core\Edit\Reading\EditFields;
use Wattage\Core\Edit\Reading\LayoutEdits;
use Wattage\Core\Edit\Reading\LevelEdits;
use Wattage\Core\Edit\Reading\TrackEdits;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Makes edits from their JSON form, {"edit": "dip-range", …}; docs/formats.md lists them. */
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
        $kind = $fields->string('edit');
        $read = new EditFields($fields, $this->mix, $this->sources);

        $edit = TrackEdits::read($kind, $read)
            ?? LayoutEdits::read($kind, $read)
            ?? ClipEdits::read($kind, $read)
            ?? LevelEdits::read($kind, $read)
            ?? DeskEdits::read($kind, $read)
            ?? throw InvalidEdit::unknownKind($kind);
        $fields->nothingElse();

        return $edit;
    }
}
