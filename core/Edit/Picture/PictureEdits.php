<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Picture;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;

/** Edits of where pictures stand. */
final class PictureEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'detach-picture' => static fn (EditFields $read): Edit => new DetachPicture($read->clips()),
            'attach-picture' => static fn (EditFields $read): Edit => new AttachPicture($read->clips()),
            'trim-picture' => static fn (EditFields $read): Edit => new TrimPicture($read->fields->string('picture'), $read->span()),
            'move-picture' => static fn (EditFields $read): Edit => new MovePicture($read->fields->string('picture'), $read->time('at')),
            'remove-pictures' => static fn (EditFields $read): Edit => new RemovePictures($read->names('pictures')),
        ];
    }
}
